"use client";
import { useState } from "react";
import type { KindName } from "@/contract";
import { bodyOf } from "../api/client";
import { FormClash } from "../state/form-edit";
import { errorSentence } from "../wording/errors";
import type { Units } from "../wording/numbers";
import { ClashNotice } from "./clash-notice";

export interface Submit {
  readonly busy: boolean;
  readonly fault: string | null;
  /** The field that the server's fault is of, where it names one. */
  readonly at: string | null;
  /** Says what is wrong before anything is sent; null says nothing. */
  readonly say: (fault: string | null) => void;
  /** Does the work of a form, and says what came of it when it failed. */
  readonly run: (work: () => Promise<void>) => Promise<void>;
  readonly clash: FormClash | null;
  readonly settle: (clash: FormClash | null) => void;
}

/** What every form does when it is sent: once at a time, its fault in words, a clash with both sides. */
export const useSubmit = (units?: Units): Submit => {
  const [busy, setBusy] = useState(false);
  const [fault, say] = useState<string | null>(null);
  const [at, setAt] = useState<string | null>(null);
  const [clash, settle] = useState<FormClash | null>(null);
  const run = async (work: () => Promise<void>): Promise<void> => {
    say(null);
    setAt(null);
    setBusy(true);
    try {
      await work();
      settle(null);
    } catch (error) {
      if (error instanceof FormClash) settle(error);
      else {
        setAt(bodyOf(error).path ?? null);
        say(errorSentence(bodyOf(error), units));
      }
    } finally {
      setBusy(false);
    }
  };
  return { busy, fault, at, say, run, clash, settle };
};

/** A sentence of a schema as a sentence of a page. */
export const sentence = (message: string | undefined): string =>
  message === undefined || message === "" ? "" : `${message.charAt(0).toUpperCase()}${message.slice(1)}.`;

/** What a schema says of each field of a form; nothing where it was read. */
export const faultsOf = (read: {
  readonly error?: { readonly issues: readonly { readonly path: readonly PropertyKey[]; readonly message: string }[] } | undefined;
}): Readonly<Record<string, string>> => Object.fromEntries((read.error?.issues ?? []).map((i) => [String(i.path[0]), sentence(i.message)]));

/** What stands against a form, above its buttons. */
export const FormTrouble = ({
  of,
  kind,
  units,
  take,
  kept,
}: {
  of: Submit;
  kind?: KindName;
  units?: Units;
  /** Puts what somebody else made of the row into the form. */
  take?: (theirs: Readonly<Record<string, unknown>>) => void;
  /** One's own was chosen and stands: the form is done. */
  kept?: () => void;
}) => (
  <>
    {of.clash !== null && kind !== undefined && units !== undefined && (
      <ClashNotice
        kind={kind}
        status={{ kind: "clash", mine: of.clash.mine, theirs: of.clash.theirs }}
        setAside={null}
        units={units}
        resolve={(keep) => {
          const { clash } = of;
          if (clash === null) return;
          if (keep === "mine")
            void of.run(async () => {
              await clash.keepMine();
              kept?.();
            });
          else {
            take?.(clash.theirs);
            of.settle(null);
          }
        }}
        recall={() => undefined}
      />
    )}
    {of.fault !== null && (
      <p role="alert" className="col-span-full m-0 text-short-figure">
        {of.fault}
      </p>
    )}
  </>
);
