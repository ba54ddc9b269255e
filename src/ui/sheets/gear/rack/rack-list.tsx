"use client";
import Link from "next/link";
import { type KeyboardEvent, useId, useState } from "react";
import type { DesignFields } from "@/contract";
import { type Candidate, keptMultipleOf, type Planned, type Rack } from "@/core/rack";
import { useSize } from "../../../drawing/use-size";
import { rateText } from "../../../wording/gear";
import type { Units } from "../../../wording/numbers";
import { onAxis, rateAxis } from "./axis";
import { NeedHandle } from "./need-handle";
import { PlannedRow } from "./planned-row";
import { BAR_CELL, FACE_CELL, RACK_COLUMNS, RackRowLine, type RowParts } from "./rack-row";
import { isTaken } from "./settings";

const ROWS_AT_FIRST = 5;
/** Right of the axis: the true figure of a bar that is longer. */
const AXIS_MARGIN_PX = 48;
const LEFT_PX = 16;
const NARROW_PX = 420;

/** The rack: the design as planned, then every candidate that is left, best first, each as a bar of what it keeps against the need. */
export const RackList = ({
  rack,
  planned,
  design,
  why,
  units,
  chosenId,
  ticked,
  choose,
  tick,
  take,
  compare,
  alike,
  ask,
  sectionHref,
}: {
  rack: Rack;
  planned: Planned;
  design: DesignFields;
  why: string;
  units: Units;
  chosenId: string | null;
  ticked: readonly string[];
  choose: (id: string) => void;
  tick: (id: string) => void;
  take: (c: Candidate) => void;
  compare: () => void;
  alike: () => void;
  /** What if it had to carry so much, both ways together. */
  ask: (mbps: number) => void;
  sectionHref: string;
}) => {
  const hatch = useId();
  const [ref, cell] = useSize<HTMLDivElement>();
  const [all, setAll] = useState(false);
  const rows = all ? rack.rows : rack.rows.slice(0, ROWS_AT_FIRST);
  const left = cell.width < NARROW_PX ? 0 : LEFT_PX;
  const px = Math.max(120, cell.width - left - AXIS_MARGIN_PX);
  const rates = rows
    .flatMap((r) => [r.best, ...r.widths].flatMap((c) => [keptMultipleOf(c), c.drawn?.p90 ?? 0]))
    .map((m) => m * rack.needMbps);
  const axis = rateAxis(rack.needMbps, [...rates, (planned.drawn?.p90 ?? planned.multiple) * rack.needMbps]);
  const parts: RowParts = {
    needMbps: rack.needMbps,
    needToFarMbps: design.needToFarMbps ?? 0,
    needToNearMbps: design.needToNearMbps ?? 0,
    axis,
    px,
    units,
    hatch,
  };
  const at = rows.findIndex((r) => r.best.id === chosenId);
  const onKey = (event: KeyboardEvent): void => {
    const go = (to: number): void => {
      const row = rows[Math.max(0, Math.min(rows.length - 1, to))];
      if (row === undefined) return;
      choose(row.best.id);
      document.getElementById(`rack-${row.best.id}`)?.scrollIntoView({ block: "nearest" });
    };
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const row = rows[at];
    switch (event.key) {
      case "ArrowDown":
        go(at + 1);
        break;
      case "ArrowUp":
        go(at - 1);
        break;
      case "Home":
        go(0);
        break;
      case "End":
        go(rows.length - 1);
        break;
      case " ":
        if (row !== undefined) tick(row.best.id);
        break;
      case "Enter":
        if (row !== undefined) take(row.best);
        break;
      case "c":
        compare();
        break;
      case "l":
        alike();
        break;
      default:
        return;
    }
    event.preventDefault();
  };
  const need = onAxis(axis, rack.needMbps, px);
  const pathIsWhy =
    rack.rows.length > 0
      ? rack.rows.every((r) => r.best.clearance?.verdict === "short")
      : planned.found.some((o) => o.about === "clearance" && o.verdict === "short");
  return (
    <section aria-label="Rack" className="border-t border-ink">
      <svg width={0} height={0} className="absolute" aria-hidden="true">
        <defs>
          <pattern id={hatch} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <path d="M0 0V6" stroke="var(--short)" strokeWidth="1.4" />
          </pattern>
        </defs>
      </svg>
      <div className={`grid ${RACK_COLUMNS} items-end py-1 pl-4 pr-3.5`}>
        <h2 className="col-span-2 m-0 text-body font-bold">Planned, then best first</h2>
        <span className={`${FACE_CELL} cap`}>Face</span>
        <div ref={ref} className={BAR_CELL}>
          <svg width={px + AXIS_MARGIN_PX} height={18} className="block overflow-visible">
            <title>Rates both ways together, Mbps</title>
            {axis.ticksMbps.map((t) => {
              const { x } = onAxis(axis, t, px);
              const last = t === axis.mostMbps;
              // The last one has its unit beside it, and the need is written in full.
              return Math.abs(x - need.x) < (last ? 92 : 46) || (!last && px - x < 84) ? null : (
                <text
                  key={t}
                  x={x}
                  y={13}
                  fontSize={12}
                  textAnchor={last ? "end" : t === 0 ? "start" : "middle"}
                  style={{ fill: "var(--ink-2)" }}
                >
                  {rateText(t)}
                  {last ? " Mbps" : ""}
                </text>
              );
            })}
            <NeedHandle axis={axis} px={px} needMbps={(design.needToFarMbps ?? 0) + (design.needToNearMbps ?? 0)} ask={ask} />
          </svg>
        </div>
        <span className="cap text-right">Both ends</span>
      </div>
      <PlannedRow
        planned={planned}
        widthMhz={design.widthMhz}
        centreMhz={design.centreMhz}
        powers={[design.nearPowerDbm, design.farPowerDbm]}
        why={why}
        parts={parts}
      />
      {pathIsWhy && (
        <p className="m-0 border-b border-rule px-5 py-1.5 text-body" data-testid="path-is-why">
          <strong className="v-short">The path is the reason:</strong>{" "}
          {rack.rows.length > 0 ? "it is short in every band that is left" : "it is short, and what it loses leaves too little"}. No radio
          mends that.{" "}
          <Link prefetch={false} href={sectionHref} className="press text-ink no-underline">
            See the section
          </Link>
        </p>
      )}
      {rack.rows.length === 0 ? (
        <p className="m-0 px-5 py-4 text-body">
          Nothing is left within these limits. Below, each reason has its figure, and what one press would let in.
        </p>
      ) : (
        <div
          role="listbox"
          aria-label="Candidates, best first"
          tabIndex={0}
          aria-activedescendant={at < 0 ? undefined : `rack-${chosenId}`}
          onKeyDown={onKey}
          className="focus-visible:outline-offset-[-2px]"
          data-testid="rack"
        >
          {rows.map((row, i) => (
            <RackRowLine
              key={row.best.id}
              row={row}
              first={i === 0}
              selected={row.best.id === chosenId}
              ticked={ticked.includes(row.best.id)}
              taken={row.best.option?.settings !== undefined && isTaken(design, row.best.option.settings)}
              parts={parts}
              onSelect={() => choose(row.best.id)}
              onTick={() => tick(row.best.id)}
            />
          ))}
        </div>
      )}
      {rack.rows.length > ROWS_AT_FIRST && (
        <button type="button" className="press mx-5 my-2 text-body" onClick={() => setAll(!all)}>
          {all ? "Only the first" : `${rack.rows.length - ROWS_AT_FIRST} more`}
        </button>
      )}
    </section>
  );
};
