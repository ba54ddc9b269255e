"use client";
import { type ComponentType, type ReactNode, useEffect, useRef, useState } from "react";

/* Parts of a page that are not needed to see it: their code comes when they are first shown, or when the page has nothing else to do. */

const toCome = new Set<() => Promise<unknown>>();

const FETCH_AFTER_MS = 1500;

/** When the page has nothing to do, but within two seconds. */
const idle = (): Promise<void> =>
  new Promise((go) => {
    if ("requestIdleCallback" in window) requestIdleCallback(() => go(), { timeout: 2000 });
    else setTimeout(go, 50);
  });

/** Fetches what is still to come, one part after another, once the page is drawn: it is there when the server is not. */
export const useFetchAhead = (): void => {
  useEffect(() => {
    let stopped = false;
    const start = setTimeout(async () => {
      for (const fetchPart of toCome) {
        await idle();
        if (stopped) return;
        await fetchPart().catch(() => undefined);
      }
    }, FETCH_AFTER_MS);
    return () => {
      stopped = true;
      clearTimeout(start);
    };
  }, []);
};

/** What a page knows of a part whose code is fetched apart. */
export interface Code<P> {
  readonly Here: ComponentType<P> | null;
  readonly failed: boolean;
  readonly again: () => void;
}

/**
 * A hook that has the code of a part fetched and tells when it is here.
 * @param waits until the page has nothing else to do.
 */
export const lazyCode = <P extends object>(load: () => Promise<ComponentType<P>>, waits = false): (() => Code<P>) => {
  let here: ComponentType<P> | null = null;
  let pending: Promise<unknown> | null = null;
  const fetchPart = (): Promise<unknown> => {
    pending ??= load().then(
      (part) => {
        here = part;
        toCome.delete(fetchPart);
      },
      (error: unknown) => {
        pending = null;
        throw error;
      },
    );
    return pending;
  };
  toCome.add(fetchPart);
  return () => {
    const [asked, setAsked] = useState(0);
    const [state, setState] = useState<"coming" | "here" | "failed">(here === null ? "coming" : "here");
    // biome-ignore lint/correctness/useExhaustiveDependencies: asked anew when the user says so
    useEffect(() => {
      if (here !== null) return;
      let gone = false;
      (waits ? idle().then(fetchPart) : fetchPart()).then(
        () => gone || setState("here"),
        () => gone || setState("failed"),
      );
      return () => {
        gone = true;
      };
    }, [asked]);
    const again = (): void => {
      setState("coming");
      setAsked(asked + 1);
    };
    return { Here: here, failed: here === null && state === "failed", again };
  };
};

/** Says that a part could not be fetched, and asks again. */
export const NotFetched = ({ again }: { again: () => void }) => (
  <p role="alert" className="m-0 text-line text-short-figure">
    This part of the page could not be fetched.{" "}
    <button type="button" className="press text-line text-ink" onClick={again}>
      Ask again
    </button>
  </p>
);

/**
 * A component whose code is fetched apart. When it cannot be fetched it says so where it would stand, and can be asked again.
 * @param meanwhile what stands there until it is here; where it is given the part waits until the page has nothing else to do.
 */
export const lazyPart = <P extends object>(
  load: () => Promise<ComponentType<P>>,
  meanwhile: ((props: P) => ReactNode) | null = null,
): ComponentType<P> => {
  const useCode = lazyCode(load, meanwhile !== null);
  // biome-ignore lint/correctness/noComponentHookFactories: made once for each part, at the top of a module.
  const Part = (props: P) => {
    const { Here, failed, again } = useCode();
    if (Here !== null) return <Here {...props} />;
    if (failed) return <NotFetched again={again} />;
    return meanwhile === null ? null : meanwhile(props);
  };
  return Part;
};

export interface Opened {
  readonly open: boolean;
  readonly onOpenChange: (open: boolean) => void;
}

/** A button with its dialog, whose code comes with the first press; what was typed in it stays while it is closed. */
export function Opens<P extends Opened>({
  part: Part,
  given,
  className,
  children,
  "data-testid": testId,
}: {
  part: ComponentType<P>;
  given: Omit<P, keyof Opened>;
  className: string;
  children: ReactNode;
  "data-testid"?: string;
}) {
  const [open, setOpen] = useState<boolean | null>(null);
  const button = useRef<HTMLButtonElement>(null);
  // Whatever had the keys when it opened may be gone: they come back to the button.
  useEffect(() => {
    if (open !== false) return;
    const timer = setTimeout(() => {
      if (document.activeElement === document.body) button.current?.focus();
    });
    return () => clearTimeout(timer);
  }, [open]);
  return (
    <>
      <button
        ref={button}
        type="button"
        className={className}
        aria-haspopup="dialog"
        aria-expanded={open === true}
        data-testid={testId}
        onClick={() => setOpen(true)}
      >
        {children}
      </button>
      {open !== null && <Part {...({ ...given, open, onOpenChange: setOpen } as unknown as P)} />}
    </>
  );
}
