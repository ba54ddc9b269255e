"use client";
import { useMemo } from "react";
import { type Reading, readAt, tableDistances } from "@/core/solve";
import { keepFile } from "../../api/keep-file";
import { ScrollRegion } from "../../controls/scroll-region";
import { alongText, figure, lengthText, type Units } from "../../wording/numbers";
import { summaryText } from "../../wording/reading";
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
  const { plan, path, ray, result } = evaluation;
  const rows = useMemo(
    () => tableDistances(path, result.clearance.worst?.atM ?? null).map((x) => readAt(plan, path, ray, x, year)),
    [plan, path, ray, result, year],
  );
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
        <table className="w-full border-collapse text-line">
          <thead className="sticky top-0 bg-paper">
            <tr className="text-right text-label text-ink-2 [&>th]:font-normal">
              <th scope="col">Distance</th>
              <th scope="col">Ground</th>
              <th scope="col">Top</th>
              <th scope="col">Ray</th>
              <th scope="col">F1</th>
              <th scope="col">Room</th>
              <th scope="col">Share</th>
              <th scope="col" className="!text-left pl-4">
                There
              </th>
            </tr>
          </thead>
          <tbody className="font-mono text-note">
            {rows.map((r) => (
              <tr
                key={r.atM}
                className={`border-t border-rule text-right ${(r.share ?? 1) < result.clearance.policyShare && r.f1M > 0 ? "text-short-figure" : ""}`}
              >
                <td>{alongText(units, r.atM)}</td>
                <td>{r.groundAmslM === null ? "unknown" : lengthText(units, r.groundAmslM)}</td>
                <td>{r.top === null ? "" : lengthText(units, r.top.amslM)}</td>
                <td>{lengthText(units, r.rayAmslM)}</td>
                <td>{lengthText(units, r.f1M)}</td>
                <td>{r.clearM === null ? "" : lengthText(units, r.clearM)}</td>
                <td>{r.share === null ? "" : figure(r.share, 2)}</td>
                <td className="pl-4 text-left font-sans">
                  {[r.top?.name, r.beside === null ? undefined : `beside: ${r.beside.name}`].filter(Boolean).join(", ")}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </ScrollRegion>
    </div>
  );
};
