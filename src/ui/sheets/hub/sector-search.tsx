"use client";
import { useState } from "react";
import { countText } from "../../wording/gear";
import { dbText, figure } from "../../wording/numbers";
import type { Proposal } from "./hub-judge";
import type { OpenHub } from "./use-open-hub";

/** Looks for the fewest sectors that take in all remotes, from what the catalogue has for the hub's family. */
export const SectorSearch = ({ open }: { open: OpenHub }) => {
  const [found, setFound] = useState<{ readonly of: unknown; readonly proposal: Proposal | null } | null>(null);
  const [busy, setBusy] = useState(false);
  const look = (): void => {
    setBusy(true);
    // The button says that it is at work before the work begins.
    setTimeout(() => {
      setFound({ of: open.fields, proposal: open.propose() });
      setBusy(false);
    }, 30);
  };
  const proposal = found?.of === open.fields ? found.proposal : undefined;
  return (
    <div className="mt-3 border-t border-rule pt-2" data-testid="sector-search">
      <button type="button" className="press text-body" disabled={busy} onClick={look}>
        {busy ? "Looking over every axis and tilt" : "Look for the fewest sectors"}
      </button>
      {proposal === null && <p className="cap m-0 mt-1">The catalogue has nothing for this hub's family that could be a sector.</p>}
      {proposal !== undefined && proposal !== null && proposal.sectors.length === 0 && (
        <p className="cap m-0 mt-1">No sector of {countText(proposal.choices, "unit", "units")} tried serves any of these remotes.</p>
      )}
      {proposal !== undefined && proposal !== null && proposal.sectors.length > 0 && (
        <>
          <ul className="m-0 mt-1 list-none p-0">
            {proposal.sectors.map((s, i) => (
              <li key={s.id}>
                {proposal.names[i]} at {figure(s.azimuthDeg ?? 0)}°, tilt {figure(s.tiltDeg ?? 0, 1)}°:{" "}
                {countText(proposal.remotes.filter((r) => r.sectorId === s.id).length, "remote", "remotes")}
              </li>
            ))}
          </ul>
          <p className="cap m-0 mt-1">
            Of {countText(proposal.choices, "unit", "units")} of its family, the worst remote {dbText(proposal.worstDb, 1)} above what its
            need takes
            {proposal.leftOver.length === 0 ? "" : `. Left over: ${proposal.leftOver.join(", ")}, for a pair of their own`}. Which channels
            are free is not judged here.
          </p>
          <button
            type="button"
            className="press mt-1 text-body"
            onClick={() => open.change({ sectors: proposal.sectors, remotes: proposal.remotes })}
          >
            Plan {countText(proposal.sectors.length, "sector", "sectors")}
          </button>
        </>
      )}
    </div>
  );
};
