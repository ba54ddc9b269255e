"use client";
import type { ReactNode } from "react";
import type { KindName } from "@/contract";
import type { Verdict } from "@/core/link";
import { ClashNotice } from "../controls/clash-notice";
import { VerdictMark } from "../marks/verdict-mark";
import type { OpenRecord } from "../state/open-record";
import type { SaveStatus } from "../state/record";
import { errorSentence } from "../wording/errors";
import type { Units } from "../wording/numbers";
import { VERDICT_WORD } from "../wording/verdicts";

/** The verdict of a sheet in its largest word, and beside it what it is of. */
export const SheetHead = ({
  verdict,
  word = VERDICT_WORD[verdict],
  narrow,
  children,
}: {
  verdict: Verdict;
  /** Instead of the verdict's own, while there is nothing to judge. */
  word?: string;
  narrow: boolean;
  children: ReactNode;
}) => (
  <header className={`flex min-h-[84px] flex-none items-start gap-x-4 px-4 pt-2 ${narrow ? "flex-wrap pb-1.5" : ""}`}>
    <VerdictMark verdict={verdict} a={30} />
    <div className={`text-verdict font-verdict leading-[58px] tracking-[-0.5px] v-${verdict}`} data-testid="verdict" aria-live="polite">
      {word}
    </div>
    <div className={narrow ? "basis-full" : "min-w-0 flex-1 border-l border-hair pl-4"}>{children}</div>
  </header>
);

/** What is to be told of the edits of a sheet's record: a clash, a refusal, or what was said last. */
export const EditNotices = <F,>({
  kind,
  record,
  status,
  setAside,
  units,
  said,
}: {
  kind: KindName;
  record: Pick<OpenRecord<F>, "resolve" | "recall">;
  status: SaveStatus<F>;
  setAside: Partial<F> | null;
  units: Units;
  said: string | null;
}) => (
  <>
    <ClashNotice kind={kind} status={status} setAside={setAside} units={units} resolve={record.resolve} recall={record.recall} />
    {(said !== null || status.kind === "refused") && (
      <p role="status" className="m-0 border-t border-rule px-4 py-1.5 text-body" data-testid="said">
        {status.kind === "refused" ? errorSentence(status.reason, units) : said}
      </p>
    )}
  </>
);
