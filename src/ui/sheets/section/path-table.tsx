"use client";
import { useMemo } from "react";
import { readAt, tableDistances } from "@/core/solve";
import { alongText, figure, lengthText, type Units } from "../../wording/numbers";
import type { Evaluation } from "./use-evaluation";

/** The path at telling distances: ground, what stands on it, ray, zone and room. */
export const PathTable = ({ evaluation, year, units }: { evaluation: Evaluation; year: number; units: Units }) => {
  const { plan, path, ray, result } = evaluation;
  const rows = useMemo(
    () => tableDistances(path, result.clearance.worst?.atM ?? null).map((x) => readAt(plan, path, ray, x, year)),
    [plan, path, ray, result, year],
  );
  return (
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
  );
};
