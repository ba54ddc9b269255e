import type { LinkVerdict } from "@/contract";
import type { Verdict } from "@/core/link";
import type { IndexRow } from "../frame/sheet";
import { VERDICT_ORDER, VERDICT_WORD } from "../wording/verdicts";

/** Rows of the sheet index for a job: each says whether it is settled, open or in trouble. */
export const jobIndex = (
  jobId: string,
  verdicts: readonly LinkVerdict[] | undefined,
  linkId: string | null,
  live?: Verdict,
): IndexRow[] => {
  const links = verdicts ?? [];
  const worst = VERDICT_ORDER.find((v) => links.some((l) => l.verdict === v));
  const count = links.filter((l) => l.verdict === worst).length;
  const chosen = linkId ?? links.find((l) => l.verdict === worst)?.linkId ?? null;
  const own = live ?? links.find((l) => l.linkId === chosen)?.clearanceVerdict;
  const ground: IndexRow["state"] =
    worst === undefined
      ? "open"
      : worst === "clear"
        ? "settled"
        : { verdict: worst, words: `${count} ${VERDICT_WORD[worst].toLowerCase()}` };
  const section: IndexRow["state"] =
    own === undefined ? "open" : own === "clear" ? "settled" : { verdict: own, words: VERDICT_WORD[own].toLowerCase() };
  return [
    { number: "02", name: "Ground", href: `/jobs/${jobId}/ground${linkId === null ? "" : `?link=${linkId}`}`, state: ground },
    ...(chosen === null ? [] : [{ number: "03", name: "Section", href: `/jobs/${jobId}/section/${chosen}`, state: section }]),
    { number: "04", name: "Gear", href: `/jobs/${jobId}/gear`, state: "open" as const },
  ];
};
