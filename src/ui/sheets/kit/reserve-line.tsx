"use client";
import type { KitRow } from "@/contract";

const lines = (count: number): string => (count === 1 ? "1 line" : `${count} lines`);

/** What of the kit is kept in the firm's store for this job: no other job gets it. */
export const ReserveLine = ({
  rows,
  busy,
  reserve,
}: {
  rows: readonly KitRow[];
  busy: boolean;
  reserve: (rows: readonly KitRow[], isAway: boolean) => void;
}) => {
  const open = rows.filter((r) => r.state === "open" && !r.isBegun && r.stock !== null && r.part !== null);
  const held = rows.filter((r) => r.state === "reserved");
  if (open.length === 0 && held.length === 0) return null;
  return (
    <p className="no-print m-0 flex flex-wrap items-baseline gap-x-4 gap-y-1 pt-1" data-testid="reserve">
      {held.length > 0 && (
        <span>
          {lines(held.length)} {held.length === 1 ? "is" : "are"} reserved: no other job gets them.{" "}
          <button type="button" className="press min-h-6 text-line" disabled={busy} onClick={() => reserve(held, true)}>
            Reserve them no longer
          </button>
        </span>
      )}
      {open.length > 0 && (
        <button type="button" className="press min-h-6 text-line" disabled={busy} onClick={() => reserve(open, false)}>
          Reserve {lines(open.length)} in stock for this job
        </button>
      )}
    </p>
  );
};
