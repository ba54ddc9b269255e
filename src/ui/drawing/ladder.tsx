import type { Direction } from "@/core/link";
import { figure, mbpsText, signed } from "../wording/numbers";

/** A margin beside the one that is wanted: never alike when one holds and the other does not. */
const marginText = (margin: number, wantedDb: number): string => {
  const [plain, against] = [signed(margin), signed(wantedDb)];
  return plain === against && margin < wantedDb ? signed(Math.floor(margin * 10) / 10, 1) : plain;
};

const MOST_RUNGS = 9;
const STATE_WORDS = {
  held: "held",
  holds: "holds",
  thin: "margin thin",
  below: "does not hold",
  "too-strong": "too strong for it",
} as const;

/** The receiver's modulation steps; the one that holds with the wanted margin is inverted. */
export const Ladder = ({
  direction: d,
  band,
  marginDb,
  levelId,
  toName,
}: {
  direction: Direction;
  band: { readonly lowDb: number; readonly highDb: number } | null;
  marginDb: number;
  levelId: string;
  /** The end that receives. */
  toName: string;
}) => {
  const lowDbm = band === null ? d.bandLowDbm : d.levelDbm + band.lowDb;
  const highDbm = band === null ? d.bandHighDbm : d.levelDbm + band.highDb;
  const all = [...d.ladder].reverse();
  const at = Math.max(
    0,
    all.findIndex((r) => r.state === "held"),
  );
  const start = Math.max(0, Math.min(all.length - MOST_RUNGS, at - 4));
  const rungs = all.slice(start, start + MOST_RUNGS);
  return (
    <div className="flex h-full min-w-0 flex-col px-3 pt-1.5">
      <div className="flex items-baseline justify-between">
        <span className="cap truncate">Expected at {toName}</span>
        <span className="cap flex-none">8 cases in 10</span>
      </div>
      <div className="flex items-baseline justify-between">
        <span id={levelId} data-testid="expected-level" className="text-level font-heading leading-8">
          {figure(d.levelDbm)} dBm
        </span>
        <span className="text-press">
          {figure(lowDbm)} to {figure(highDbm)}
        </span>
      </div>
      <table className="mt-1 w-full border-collapse font-mono text-note leading-[14px]">
        <thead>
          <tr className="text-right text-label text-ink-2 [&>th]:font-normal">
            <th scope="col" className="text-left font-sans">
              Modulation
            </th>
            <th scope="col" className="font-sans">
              needs
            </th>
            <th scope="col" className="font-sans">
              margin
            </th>
            <th scope="col" className="font-sans">
              air Mbps
            </th>
          </tr>
        </thead>
        <tbody>
          {rungs.map((r) => (
            <tr
              key={r.index}
              className={`text-right ${r.state === "held" ? "bg-ink text-paper" : r.state === "below" || r.state === "too-strong" ? "text-ink-2" : ""}`}
              title={STATE_WORDS[r.state]}
            >
              <td className="truncate pl-1 text-left">
                {r.modulation} {r.codeRate}
              </td>
              <td>{figure(r.needsDbm, Number.isInteger(r.needsDbm) ? 0 : 1)}</td>
              <td>{r.state === "too-strong" ? "hot" : marginText(r.marginDb, marginDb)}</td>
              <td className="pr-1">{figure(r.phyRateMbps)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="cap m-0 mt-auto pb-1" data-testid="rate">
        {d.held === null
          ? "No modulation holds."
          : `${d.heldWithMargin ? `Keeps the ${marginDb} dB margin` : "Holds without the margin"}: ${figure(d.held.phyRateMbps)} on the air, ${figure(d.airtime?.tcpMbps ?? 0)} usable, plan with ${mbpsText(d.plannedMbps)}${d.needMbps === null ? "" : ` for ${mbpsText(d.needMbps)}`}.`}
      </p>
    </div>
  );
};
