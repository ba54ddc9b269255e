"use client";
import { Dialog } from "radix-ui";
import type { SectionSketch } from "@/core/link";
import { type Candidate, keptMultipleOf, type Planned, serves } from "@/core/rack";
import { poweredPort } from "@/core/radio";
import { usePriceText } from "../../../controls/euro";
import type { Opened } from "../../../controls/lazy-part";
import { SheetDialog } from "../../../controls/sheet-dialog";
import { Sketch } from "../../../drawing/section-sketch";
import { useOpen } from "../../../state/me";
import { bandText, euroText, pairName, rateText, spareText, supplyText } from "../../../wording/gear";
import { dbmText, figure, lengthText, mbpsText, type Units } from "../../../wording/numbers";
import { VERDICT_WORD } from "../../../wording/verdicts";
import { faceText } from "./face-text";

/** Most that stand side by side. */
export const MOST_COMPARED = 4;

interface Row {
  readonly what: string;
  readonly of: (c: Candidate) => string;
}

const both = (near: string, far: string): string => (near === far ? near : `${near}, ${far}`);

const PRICE = "Price, both ends";
const rowsFor = (needMbps: number, units: Units): readonly Row[] => [
  { what: "Rate", of: (c) => spareText(keptMultipleOf(c) * needMbps - needMbps) },
  { what: "Kept, nine cases in ten", of: (c) => mbpsText(keptMultipleOf(c) * needMbps) },
  {
    what: "Half the cases, one in ten",
    of: (c) => (c.drawn === null ? "not drawn" : `${rateText(c.drawn.p50 * needMbps)}, ${rateText(c.drawn.p90 * needMbps)} Mbps`),
  },
  { what: "Serves", of: (c) => (c.drawn === null ? (serves(c) ? "yes" : "no") : `${figure(c.drawn.serves * 100)} cases in 100`) },
  { what: PRICE, of: (c) => euroText(c.priceEur) },
  { what: "Larger face", of: (c) => faceText(c.faceCm, units) },
  { what: "Band", of: (c) => bandText(c.band) },
  { what: "Channel", of: (c) => `${figure(c.option!.centreMhz)}, ${figure(c.widthMhz)} MHz` },
  { what: "Radar duty", of: (c) => (c.option!.radar ? "yes" : "no") },
  { what: "Power", of: (c) => `${both(figure(c.option!.toFar.powerDbm), figure(c.option!.toNear.powerDbm))} dBm` },
  { what: "Level", of: (c) => both(dbmText(c.option!.toFar.levelDbm), dbmText(c.option!.toNear.levelDbm)) },
  { what: "Modulation", of: (c) => both(c.option!.toFar.modulation ?? "none", c.option!.toNear.modulation ?? "none") },
  {
    what: "Path in its band",
    of: (c) =>
      c.clearance === null
        ? "not known"
        : `${VERDICT_WORD[c.clearance.verdict]}${c.clearance.missM === null ? "" : c.clearance.missM > 0 ? `, ${lengthText(units, c.clearance.missM)} short` : `, ${lengthText(units, -c.clearance.missM)} spare`}`,
  },
  {
    what: "Port",
    of: ({ pair: { near, far } }) =>
      both(...([near, far].map(({ radio: r }) => mbpsText(r.ethernetPorts[poweredPort(r)]?.speedMbps ?? 0)) as [string, string])),
  },
  {
    what: "Supply",
    of: ({ pair: { near, far } }) =>
      both(...([near, far].map(({ radio: r }) => supplyText((r.powerKinds ?? ["not stated"]).join(" or "))) as [string, string])),
  },
  {
    what: "Pole",
    of: ({ pair: { near, far } }) =>
      both(...([near, far].map((u) => (u.poleMm === null ? "not stated" : `${u.poleMm.low} to ${u.poleMm.high} mm`)) as [string, string])),
  },
  {
    what: "Bracket",
    of: ({ pair: { near, far } }) => both(...([near, far].map((u) => (u.antenna ?? u.radio).bracket ?? "not stated") as [string, string])),
  },
  {
    what: "Connectors",
    of: ({ pair: { near, far } }) =>
      both(...([near, far].map((u) => (u.antenna ?? u.radio).connectorPlace ?? "not stated") as [string, string])),
  },
  {
    what: "Weather",
    of: ({ pair: { near, far } }) =>
      both(
        ...([near, far].map(({ radio: r }) =>
          r.temperatureC === undefined ? "not stated" : `${figure(r.temperatureC.low)} to ${figure(r.temperatureC.high)} °C`,
        ) as [string, string]),
      ),
  },
];

/** Up to four candidates in columns; what differs is marked. */
export const CompareDialog = ({
  candidates,
  planned,
  needMbps,
  units,
  take,
  sketch,
  lay,
  ...opened
}: Opened & {
  candidates: readonly Candidate[];
  planned: Planned;
  needMbps: number;
  units: Units;
  take: (c: Candidate) => void;
  /** The path with the first zone of a candidate's channel; null where it cannot be drawn. */
  sketch: (c: Candidate) => SectionSketch | null;
  /** Lays all of them over the section of the link. */
  lay: () => void;
}) => {
  const { prices } = useOpen();
  const price = usePriceText()(planned.priceEur);
  return (
    <SheetDialog
      {...opened}
      title="Side by side"
      note={`Planned now: ${[pairName(planned.pair), price].filter(Boolean).join(", ")}.`}
      width="wide"
    >
      <table className="w-full table-fixed border-collapse text-line" data-testid="side-by-side">
        <thead>
          <tr className="border-b border-ink text-left align-bottom">
            <th scope="col" className="w-[170px]">
              <span className="sr-only">What</span>
            </th>
            {candidates.map((c) => (
              <th key={c.id} scope="col" className="px-2 pb-1 text-body font-figure">
                {pairName(c.pair)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr className="border-b border-rule align-top">
            <th scope="row" className="py-1 text-left font-normal">
              First zone over the path
            </th>
            {candidates.map((c) => {
              const drawn = sketch(c);
              return (
                <td key={c.id} className="px-2 py-1">
                  {drawn === null ? (
                    "not drawn"
                  ) : (
                    <Sketch
                      sketch={drawn}
                      name={`The path at ${bandText(c.band)}`}
                      width={170}
                      height={72}
                      short={c.clearance?.verdict === "short"}
                    />
                  )}
                </td>
              );
            })}
          </tr>
          {rowsFor(needMbps, units)
            .filter((r) => prices || r.what !== PRICE)
            .map((r) => {
              const cells = candidates.map(r.of);
              const differs = new Set(cells).size > 1;
              return (
                <tr key={r.what} className={`border-b border-rule align-top ${differs ? "" : "text-ink-2"}`} data-differs={differs}>
                  <th scope="row" className="py-1 text-left font-normal">
                    {differs && <span aria-hidden="true">≠ </span>}
                    {r.what}
                  </th>
                  {cells.map((text, i) => (
                    <td key={candidates[i]!.id} className={`px-2 py-1 ${differs ? "font-figure" : ""}`}>
                      {text}
                    </td>
                  ))}
                </tr>
              );
            })}
          <tr>
            <td />
            {candidates.map((c) => (
              <td key={c.id} className="px-2 pt-3">
                <Dialog.Close asChild>
                  <button type="button" className="press text-body" onClick={() => take(c)}>
                    Take {pairName(c.pair)}
                  </button>
                </Dialog.Close>
              </td>
            ))}
          </tr>
        </tbody>
      </table>
      <p className="m-0 mt-4">
        <button type="button" className="press text-body" onClick={lay}>
          Lay all over the section
        </button>
      </p>
    </SheetDialog>
  );
};
