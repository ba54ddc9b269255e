"use client";
import { useEffect, useState } from "react";

/**
 * The secret behind the # of this page's address: read once, and taken out of the address, so that neither the history of the
 * browser nor a picture of the page holds it. Undefined until it was looked for, null when there is none.
 */
export const useSecret = (): string | null | undefined => {
  const [secret, setSecret] = useState<string | null | undefined>(undefined);
  useEffect(() => {
    const look = (): void => {
      const given = window.location.hash.slice(1);
      if (given !== "") {
        setSecret(/^[\w-]{22}$/.test(given) ? given : null);
        window.history.replaceState(null, "", window.location.pathname);
      } else setSecret((held) => held ?? null);
    };
    look();
    // A second link put into the address of this page only changes what stands behind the #.
    window.addEventListener("hashchange", look);
    return () => window.removeEventListener("hashchange", look);
  }, []);
  return secret;
};

/** Where to go once in: a path of ours, or the register. An address of elsewhere is none. */
export const pathBack = (search: string): string => {
  const to = new URLSearchParams(search).get("to") ?? "/";
  if (!/^\/(?![/\\])[\x21-\x7e]*$/.test(to)) return "/";
  const at = new URL(to, "https://dry-arc.invalid");
  // Steps that lead back are taken out of a path as it is read: what then begins with two strokes names another server.
  return at.origin === "https://dry-arc.invalid" && !at.pathname.startsWith("//") ? `${at.pathname}${at.search}` : "/";
};
