"use client";
import { type Reading, readAt } from "@/core/solve";
import { keepFile } from "../../api/keep-file";
import { ScrollRegion } from "../../controls/scroll-region";
import type { Units } from "../../wording/numbers";
import { summaryText } from "../../wording/reading";
import { PathTable } from "./path-table";
import type { Evaluation } from "./use-evaluation";

const csvOf = (rows: readonly Reading[]): string =>
  [
    "distanceM,groundAmslM,topAmslM,top,rayAmslM,f1M,clearanceM,shareOfF1,beside,besideAcrossM",
    ...rows.map((r) =>
      [
        r.atM.toFixed(2),
        r.groundAmslM?.toFixed(3) ?? "",
        r.top?.amslM.toFixed(3) ?? "",
        quoted(r.top?.name ?? ""),
        r.rayAmslM.toFixed(3),
        r.f1M.toFixed(3),
        r.clearM?.toFixed(3) ?? "",
        r.share?.toFixed(3) ?? "",
        quoted(r.beside?.name ?? ""),
        r.beside?.acrossM.toFixed(2) ?? "",
      ].join(","),
    ),
  ].join("\n");

/** A name must not become a formula in somebody's sheet. */
const quoted = (text: string): string => (text === "" ? "" : `"${(/^[=+\-@\t\r]/.test(text) ? `'${text}` : text).replace(/"/g, '""')}"`);

/** The drawing in words and figures. */
export const TablePanel = ({ evaluation, year, units }: { evaluation: Evaluation; year: number; units: Units }) => {
  const { plan, path, ray } = evaluation;
  const whole = (): void =>
    keepFile(
      new Blob([csvOf(Array.from(path.profile.distanceM, (x) => readAt(plan, path, ray, x, year)))], { type: "text/csv;charset=utf-8" }),
      "profile.csv",
    );
  return (
    <div className="flex h-full min-h-0 flex-col px-5 pb-2">
      <div className="flex gap-4">
        <p className="m-0 flex-1 text-line" data-testid="in-words">
          {summaryText(evaluation, units)}
        </p>
        <button type="button" className="press self-start text-line" onClick={whole}>
          All points as CSV
        </button>
      </div>
      <ScrollRegion label="Table of the path" className="flex-1">
        <PathTable evaluation={evaluation} year={year} units={units} />
      </ScrollRegion>
    </div>
  );
};
