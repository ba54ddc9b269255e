"use client";
import Link from "next/link";
import { usePathname } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import { forgetAll, forgetCopies } from "../state/forget";
import { useMeQuery, usePerson } from "../state/me";
import { ROLE_NAME } from "../wording/people";

const DOORS = ["/sign-in", "/first", "/join", "/pair", "/new-password", "/share"];
const isDoor = (path: string): boolean => DOORS.includes(path);

/** Who is here, beside the name of the page; whoever sits at this machine is told that the server is open to them alone. */
export const WhoIsHere = ({ narrow = false }: { narrow?: boolean }) => {
  const me = useMeQuery().data;
  const person = usePerson();
  if (me === undefined) return null;
  if (!me.signIn)
    return narrow ? (
      <p className="m-0 -mx-1.5 mb-2 text-note leading-[14px] text-ink-2">open to whoever sits at this machine</p>
    ) : (
      <span className="cap">open to whoever sits at this machine</span>
    );
  if (person === null) return null;
  if (person.byShare)
    return narrow ? (
      <p className="m-0 -mx-1.5 mb-2 text-note leading-[15px]">
        <span className="block truncate font-figure" title={person.name}>
          {person.name}
        </span>
        <span className="text-ink-2">{person.identityOut ? "by a link without names and places" : "by a shared link"}</span>
      </p>
    ) : (
      <span className="cap">
        {person.name}, by a link {person.identityOut ? "that leaves out who and where" : `that ${person.organisation} shared`};{" "}
        <Link prefetch={false} href="/sign-in" className="text-ink">
          sign in
        </Link>
      </span>
    );
  if (narrow)
    return (
      <p className="m-0 -mx-1.5 mb-2 text-note leading-[15px]">
        <Link prefetch={false} href="/account" className="block truncate font-figure text-ink" title={person.name}>
          {person.name}
        </Link>
        <span className="text-ink-2">{ROLE_NAME[person.role].toLowerCase()}</span>
      </p>
    );
  return (
    <span className="cap whitespace-nowrap">
      <Link prefetch={false} href="/account" className="text-ink">
        {person.name}
      </Link>
      , {ROLE_NAME[person.role].toLowerCase()}
    </span>
  );
};

/**
 * Watches whether somebody is here. Whoever comes without a session goes to the door; whoever was here and is signed out meanwhile
 * is told, and keeps what is on the page. A phone that was ended forgets what it keeps.
 */
export const Signed = () => {
  const me = useMeQuery().data;
  const path = usePathname();
  const wasHere = useRef(false);
  const [left, setLeft] = useState(false);
  useEffect(() => {
    if (me === undefined || !me.signIn || isDoor(path)) return;
    if (me.person !== null) {
      wasHere.current = true;
      setLeft(false);
      return;
    }
    if (me.forget !== null) {
      void (me.forget === "all" ? forgetAll() : forgetCopies()).then(() => window.location.assign("/sign-in"));
      return;
    }
    if (me.shareOver) {
      window.location.assign("/share");
      return;
    }
    if (wasHere.current) setLeft(true);
    else window.location.assign(`/sign-in?to=${encodeURIComponent(`${path}${window.location.search}`)}`);
  }, [me, path]);
  if (!left) return null;
  return (
    <div
      role="alert"
      className="no-print fixed inset-x-2 top-2 z-50 flex flex-wrap gap-x-5 border-[1.6px] border-ink bg-paper px-3 py-2 text-press"
    >
      <span>You are signed out. What is on this page stays, and what you typed is kept in this browser.</span>
      <a className="press text-ink no-underline" href={`/sign-in?to=${encodeURIComponent(path)}`}>
        Sign in again
      </a>
    </div>
  );
};
