import type { ReactNode } from "react";
import type { Verdict } from "@/core/link";
import { VerdictMark } from "../../marks/verdict-mark";
import { cutMiddle } from "../../wording/names";
import { VERDICT_WORD } from "../../wording/verdicts";

/** The verdict of a link in the largest word of the sheet, and between which ends it is. */
export const Headline = ({
  verdict,
  nearName,
  farName,
  label,
  narrow,
  beside = null,
  children,
}: {
  /** Null while it is being worked out. */
  verdict: Verdict | null;
  nearName: string;
  farName: string;
  label: string;
  narrow: boolean;
  /** At the right edge. */
  beside?: ReactNode;
  /** Lines under the names. */
  children: ReactNode;
}) => (
  <header
    className={
      narrow
        ? "grid h-[164px] grid-cols-[auto_minmax(0,1fr)] content-start items-start gap-x-4 px-4 pt-2"
        : "relative flex h-[76px] items-start gap-4 pl-4 pr-[182px] pt-2"
    }
  >
    {verdict !== null && (
      <>
        <VerdictMark verdict={verdict} a={30} />
        <div className={`text-verdict font-verdict leading-[58px] tracking-[-0.5px] v-${verdict}`} data-testid="verdict" aria-live="polite">
          {VERDICT_WORD[verdict]}
        </div>
      </>
    )}
    <div className={narrow ? "col-span-2 min-w-0 pt-1" : "min-w-0 flex-1 border-l border-hair pl-4"}>
      <h1 className="m-0 truncate text-head font-bold leading-6">
        <span className="text-near" title={nearName}>
          {cutMiddle(nearName, 24)}
        </span>{" "}
        to{" "}
        <span className="text-far" title={farName}>
          {cutMiddle(farName, 24)}
        </span>
        {label !== "" && <span className="text-press font-said">, {label}</span>}
      </h1>
      {children}
    </div>
    {beside}
  </header>
);
