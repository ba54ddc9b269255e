"use client";
import { useState } from "react";
import type { Candidate, Rack, RejectedGroup } from "@/core/rack";
import { Euro } from "../../../controls/euro";
import { countText, euroText, letInText, NOT_LOOKED_AT, pairName, REFUSAL_WORDS, refusalFigure } from "../../../wording/gear";
import { figure } from "../../../wording/numbers";

const SHOWN_NAMES = 3;
const MOST_LISTED = 60;

/** The first few of a group, each pair once, with the figure that decides. */
const firstFew = (group: RejectedGroup): { name: string; figure: string }[] => {
  const seen = new Set<string>();
  const out: { name: string; figure: string }[] = [];
  for (const c of group.candidates) {
    const name = pairName(c.pair);
    if (seen.has(name)) continue;
    seen.add(name);
    out.push({ name, figure: refusalFigure(c.refusal!) });
    if (out.length === SHOWN_NAMES) break;
  }
  return out;
};

const cheapest = (group: RejectedGroup): number | null =>
  group.candidates.reduce<number | null>(
    (least, c) => (c.priceEur !== null && (least === null || c.priceEur < least) ? c.priceEur : least),
    null,
  );

const Group = ({
  group,
  open,
  toggle,
  letIn,
}: {
  group: RejectedGroup;
  open: boolean;
  toggle: () => void;
  letIn: (c: Candidate) => void;
}) => {
  const few = firstFew(group);
  const unlooked = NOT_LOOKED_AT.includes(group.code);
  const alone = group.candidates.find((c) => letInText(c) !== null);
  return (
    <li className="border-b border-rule" data-reason={group.code}>
      <div className="flex items-baseline gap-2 px-4 py-1 text-line">
        <button
          type="button"
          aria-expanded={open}
          className="flex min-h-6 w-[240px] flex-none justify-between text-left font-figure"
          onClick={toggle}
        >
          <span>{REFUSAL_WORDS[group.code]}</span>
          <span className="figure font-said">{figure(group.candidates.length)}</span>
        </button>
        <span className="min-w-0 flex-1 truncate pl-4 text-ink-2">
          {unlooked
            ? "not looked at"
            : few.map((f, i) => (
                <span key={f.name}>
                  {i > 0 && ", "}
                  {f.name} {f.figure !== "" && <strong className="text-ink">{f.figure}</strong>}
                </span>
              ))}
        </span>
        {alone !== undefined && (
          <button type="button" className="press flex-none text-line" onClick={() => letIn(alone)}>
            {letInText(alone)}
          </button>
        )}
        <span className="figure w-[76px] flex-none text-right font-said">{!unlooked && <Euro of={cheapest(group)} />}</span>
      </div>
      {open && (
        <ul className="m-0 list-none px-4 pb-2 text-line">
          {group.candidates.slice(0, MOST_LISTED).map((c) => (
            <li key={c.id} className="flex justify-between gap-3 border-t border-rule py-0.5">
              <span className="min-w-0 truncate">
                {pairName(c.pair)}, {figure(c.widthMhz)} MHz
                {c.option === null ? "" : ` on ${figure(c.option.centreMhz, 0)}`}
              </span>
              <span className="flex-none text-ink-2">
                {refusalFigure(c.refusal!)} {c.priceEur === null ? "" : `· ${euroText(c.priceEur)}`}
              </span>
            </li>
          ))}
          {group.candidates.length > MOST_LISTED && (
            <li className="cap pt-1">and {figure(group.candidates.length - MOST_LISTED)} more: the CSV has all.</li>
          )}
        </ul>
      )}
    </li>
  );
};

/** Everything that is not in the rack, by what decides, each with its figure. */
export const RejectedList = ({ rack, letIn }: { rack: Rack; letIn: (c: Candidate) => void }) => {
  const [open, setOpen] = useState<RejectedGroup["code"] | null>(null);
  return (
    <section aria-label="Rejected" className="border-t border-ink">
      <h2 className="m-0 flex justify-between px-4 pb-0.5 pt-2 text-body font-bold">
        <span>Rejected, by what decides</span>
        <span className="cap font-said">the figure of each · from</span>
      </h2>
      <ul className="m-0 list-none p-0">
        {rack.rejected.map((g) => (
          <Group key={g.code} group={g} open={open === g.code} toggle={() => setOpen(open === g.code ? null : g.code)} letIn={letIn} />
        ))}
      </ul>
      {rack.alone.length > 0 && (
        <p className="cap m-0 px-4 pt-1">
          {countText(rack.alone.length, "unit makes", "units make")} no link with any other: {rack.alone.map((u) => u.name).join(", ")}.
        </p>
      )}
    </section>
  );
};
