"use client";
import Papa from "papaparse";
import { useRef, useState } from "react";
import type { HardwareDto } from "@/contract";
import { type AntennaShape, type CutRow, cutsOfRows } from "@/core/antenna";
import type { Domain } from "@/core/radio";
import type { Opened } from "../../controls/lazy-part";
import { SheetDialog } from "../../controls/sheet-dialog";
import { useOpen } from "../../state/me";
import { bandText, euroText, supplyText } from "../../wording/gear";
import { figure } from "../../wording/numbers";
import { PatternPlot } from "./pattern-plot";
import { ruleRuns } from "./rule-check";

type RadioRow = HardwareDto["radios"][number];
type AntennaRow = HardwareDto["antennas"][number];
export type Shown = { readonly kind: "radio"; readonly row: RadioRow } | { readonly kind: "antenna"; readonly row: AntennaRow };

const DOMAINS: readonly Domain[] = ["cautious", "FCC-like", "ETSI-like"];
const MOST_CUT_BYTES = 2_000_000;

const rangeText = (r: { readonly low: number; readonly high: number } | undefined, unit: string): string =>
  r === undefined ? "not stated" : `${figure(r.low)} to ${figure(r.high)} ${unit}`;
const faceText = (s: { readonly width: number; readonly height: number } | undefined): string =>
  s === undefined ? "not stated" : `${figure(s.width)} × ${figure(s.height)} mm`;
const hangsText = (s: { readonly bracket?: string | undefined; readonly connectorPlace?: string | undefined }): string =>
  `${s.bracket ?? "not stated"}, ${s.connectorPlace ?? "not stated"}`;
const bandsText = (bands: RadioRow["bandsMhz"]): string =>
  bands.map((b) => `${figure(b.low, b.low % 1 === 0 ? 0 : 1)} to ${figure(b.high, b.high % 1 === 0 ? 0 : 1)}`).join(", ");

/** Figures of a sheet, each with its name. */
const radioFigures = (r: RadioRow): readonly (readonly [string, string])[] => [
  ["Band", `${bandText(r.bandKey as "5")}: ${bandsText(r.bandsMhz)} MHz`],
  ["Standard, family", `${r.standard}, ${r.family}`],
  ["Roles", r.roles.join(", ")],
  ["Widths", `${r.channelWidthsMhz.join(", ")} MHz`],
  ["Air shared by", r.duplex],
  ["Chains, streams", `${r.chains}, ${r.maxStreamsPerRemote} to one remote`],
  ["Polarisation", r.polarisation],
  [
    "Power, all chains",
    `${figure(r.minTxPowerDbm)} to ${figure(r.modulations[0]?.maxTxPowerDbm ?? 0)} dBm in steps of ${figure(r.txPowerStepDb, 1)}`,
  ],
  [
    "Gain, beam",
    r.antenna.gainDbi === undefined
      ? "the antenna's"
      : `${figure(r.antenna.gainDbi, 1)} dBi, ${figure(r.antenna.azimuthBeamwidthDeg ?? 0, 1)}° by ${figure(r.antenna.elevationBeamwidthDeg ?? 0, 1)}°`,
  ],
  ["Noise figure", `${figure(r.noiseFigureDb, 1)} dB`],
  ["Hottest input", `${figure(r.maxOperatingInputDbm)} dBm a chain; damage at ${figure(r.damageInputDbm)}`],
  ["Ports", r.ethernetPorts.map((p) => `${figure(p.speedMbps)} Mbps${p.powerIn === true ? ", powered" : ""}`).join("; ")],
  ["Supply", r.powerKinds === undefined ? "not stated" : supplyText(r.powerKinds.join(" or "))],
  ["Face", faceText(r.sizeMm)],
  ["Pole", rangeText(r.poleDiameterMm, "mm")],
  ["Bracket, connectors", hangsText(r)],
  ["Weather", rangeText(r.temperatureC, "°C")],
  ["Range it is made for", `${figure(r.maxLinkKm, r.maxLinkKm < 1 ? 1 : 0)} km`],
  ["Radar detection", r.radarDetection ? "yes" : "no"],
  [PRICE, euroText(r.priceEur ?? null)],
];
const antennaFigures = (a: AntennaRow): readonly (readonly [string, string])[] => [
  ["Form", a.form],
  ["Bands", `${bandsText(a.bandsMhz)} MHz`],
  ["Gain, beam", `${figure(a.gainDbi, 1)} dBi, ${figure(a.azimuthBeamwidthDeg, 1)}° by ${figure(a.elevationBeamwidthDeg, 1)}°`],
  ["Polarisation", a.polarisation ?? "not stated"],
  ["Connector", a.connector === undefined ? "not stated" : `${a.connectorCount ?? ""} ${a.connector}`],
  ["Face", faceText(a.sizeMm)],
  ["Pole", rangeText(a.poleDiameterMm, "mm")],
  ["Bracket, connectors", hangsText(a)],
  [PRICE, euroText(a.priceEur ?? null)],
];

const PRICE = "Price of one";
const figuresOf = (of: Shown, prices: boolean): readonly (readonly [string, string])[] =>
  (of.kind === "radio" ? radioFigures(of.row) : antennaFigures(of.row)).filter(([what]) => prices || what !== PRICE);

/** Every modulation with what it asks and carries at each width. */
const Ladder = ({ radio }: { radio: RadioRow }) => (
  <table className="w-full border-collapse text-note" data-testid="ladder">
    <thead>
      <tr className="border-b border-ink text-right text-ink-2 [&>th]:pl-3 [&>th]:font-normal">
        <th scope="col" className="!pl-0 text-left">
          Modulation
        </th>
        <th scope="col">to, dBm</th>
        {radio.channelWidthsMhz.map((w) => (
          <th key={w} scope="col">
            {figure(w)} MHz
          </th>
        ))}
      </tr>
    </thead>
    <tbody>
      {radio.modulations.map((m) => (
        <tr key={m.index} className="border-b border-rule text-right [&>td]:pl-3">
          <th scope="row" className="text-left font-normal">
            {m.modulation} {m.codeRate}
          </th>
          <td className="font-mono">{figure(m.maxTxPowerDbm, Number.isInteger(m.maxTxPowerDbm) ? 0 : 1)}</td>
          {radio.channelWidthsMhz.map((w) => {
            const [rate, needs] = [m.phyRateMbps[String(w)], m.sensitivityDbm[String(w)]];
            return (
              <td key={w} className="font-mono">
                {rate === undefined || needs === undefined ? "" : `${figure(rate)} at ${figure(needs)}`}
              </td>
            );
          })}
        </tr>
      ))}
    </tbody>
    <caption className="cap caption-bottom pt-1 text-left">
      Air rate in Mbps at the level per chain that it needs, dBm; before the job's margin.
    </caption>
  </table>
);

const Rules = ({ radio }: { radio: RadioRow }) => {
  const [widthMhz, setWidth] = useState(radio.channelWidthsMhz[0]!);
  return (
    <section aria-label="Rules" className="mt-3">
      <h3 className="m-0 flex items-baseline justify-between text-body font-bold">
        What the rules leave it as a pair
        <select
          aria-label="Width"
          className="border-b border-ink bg-paper text-line font-said"
          value={widthMhz}
          onChange={(e) => setWidth(Number(e.target.value))}
        >
          {radio.channelWidthsMhz.map((w) => (
            <option key={w} value={w}>
              {w} MHz
            </option>
          ))}
        </select>
      </h3>
      {DOMAINS.map((domain) => {
        const runs = ruleRuns(radio, domain, widthMhz);
        return (
          <div key={domain} className="mt-1.5" data-domain={domain}>
            <div className="text-line font-figure">{domain}</div>
            {runs.length === 0 && <div className="cap">no channel of that width</div>}
            {runs.map((r) => (
              <div key={r.lowMhz} className="flex justify-between gap-3 border-t border-rule text-note">
                <span className="font-mono">
                  {figure(r.lowMhz)} to {figure(r.highMhz)}
                </span>
                <span className="text-right">
                  {r.maxConductedDbm === null ? "not allowed" : `${figure(r.maxConductedDbm, 1)} dBm, EIRP ${figure(r.maxEirpDbm ?? 0, 1)}`}
                  {r.duties.length > 0 && <span className="text-ink-2">; {r.duties.join("; ")}</span>}
                </span>
              </div>
            ))}
          </div>
        );
      })}
      <p className="cap m-0 mt-1">A planning aid: the local regulator decides.</p>
    </section>
  );
};

const rowsOfCsv = (text: string): CutRow[] | string => {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ""), {
    header: true,
    skipEmptyLines: "greedy",
    transformHeader: (h) => h.trim().toLowerCase(),
  });
  const missing = ["plane", "angle", "gain"].filter((c) => !(meta.fields ?? []).includes(c));
  if (missing.length > 0) return `The first row names no column ${missing.join(", ")}: plane, angle and gain are asked for.`;
  return data.map((r, i) => ({ line: i + 2, plane: r.plane ?? "", angle: r.angle ?? "", gain: r.gain ?? "" }));
};

/** A data sheet whole: figures, ladder, pattern, rules; an own one takes measured cuts, a shipped one can be copied. */
export const DataSheetDialog = ({
  shown,
  take,
  retire,
  ...opened
}: Opened & {
  shown: Shown;
  /** Takes sheets as a hardware file does. */
  take: (text: string) => Promise<boolean>;
  retire: (retired: boolean) => void;
}) => {
  const { row } = shown;
  const { prices } = useOpen();
  const file = useRef<HTMLInputElement>(null);
  const [said, setSaid] = useState<readonly string[]>([]);
  const shape: AntennaShape | null =
    shown.kind === "antenna" ? shown.row : shown.row.antenna.gainDbi === undefined ? null : (shown.row.antenna as AntennaShape);
  const frequencyGhz = (row.bandsMhz[0]!.low + row.bandsMhz[row.bandsMhz.length - 1]!.high) / 2000;
  const own = row.source === "own";
  const save = async (sheet: object): Promise<void> => {
    const { source: _s, ...plain } = sheet as { source?: string };
    if (await take(JSON.stringify(shown.kind === "radio" ? { radios: [plain] } : { antennas: [plain] }))) opened.onOpenChange(false);
    else setSaid(["It was not taken: the catalogue says why."]);
  };
  const takeCuts = async (chosen: File): Promise<void> => {
    if (chosen.size > MOST_CUT_BYTES) {
      setSaid([`The file is larger than ${MOST_CUT_BYTES / 1e6} MB.`]);
      return;
    }
    const rows = rowsOfCsv(await chosen.text());
    if (typeof rows === "string") {
      setSaid([rows]);
      return;
    }
    const read = cutsOfRows(rows);
    if ("faults" in read) setSaid(read.faults.map((f) => `${f.line === 0 ? "The file" : `Row ${f.line}`}, ${f.column}: ${f.reason}.`));
    else if (shown.kind === "radio") await save({ ...shown.row, antenna: { ...shown.row.antenna, cuts: read.cuts } });
    else await save({ ...shown.row, cuts: read.cuts });
  };
  return (
    <SheetDialog {...opened} title={row.name} note={own ? "Your own data sheet." : "Shipped with the catalogue."} width="wide">
      <div className="grid gap-x-8 gap-y-4 min-[900px]:grid-cols-2">
        <div>
          <dl className="m-0 grid grid-cols-[150px_minmax(0,1fr)] text-line">
            {figuresOf(shown, prices).map(([what, is]) => (
              <div key={what} className="contents [&>*]:border-b [&>*]:border-rule [&>*]:py-[2px]">
                <dt className="text-ink-2">{what}</dt>
                <dd className="m-0">{is}</dd>
              </div>
            ))}
          </dl>
          {shown.kind === "radio" && <Rules radio={shown.row} />}
        </div>
        <div className="min-w-0">
          {shape === null ? (
            <p className="cap m-0">Its pattern is that of the antenna it is used with.</p>
          ) : (
            <PatternPlot shape={shape} frequencyGhz={frequencyGhz} />
          )}
          {shape !== null && own && (
            <p className="m-0 mt-1">
              <button type="button" className="press text-body" onClick={() => file.current?.click()}>
                Bring in measured cuts
              </button>
              <span className="cap"> CSV: plane, angle, gain</span>
              <input
                ref={file}
                type="file"
                accept=".csv,text/csv"
                className="sr-only"
                tabIndex={-1}
                aria-label="Measured cuts"
                onChange={(e) => {
                  const chosen = e.target.files?.[0];
                  e.target.value = "";
                  if (chosen !== undefined) void takeCuts(chosen);
                }}
              />
            </p>
          )}
          {!own && (
            <p className="m-0 mt-1">
              <button
                type="button"
                className="press text-body"
                onClick={() => void save({ ...row, id: `${row.id.slice(0, 58)}-own`, name: `${row.name.slice(0, 74)}, own` })}
              >
                Copy as own
              </button>
              <span className="cap"> to change it or to give it measured cuts</span>
            </p>
          )}
          <p className="m-0 mt-1">
            <button type="button" className="press text-body" onClick={() => retire(row.retired !== true)}>
              {row.retired === true ? "Take it again" : "Retire it"}
            </button>
            <span className="cap"> {row.retired === true ? "no rack proposes it" : "designs that have it keep it"}</span>
          </p>
          {said.length > 0 && (
            <ul role="alert" className="m-0 mt-2 list-none p-0 text-line text-short-figure">
              {said.map((w) => (
                <li key={w}>{w}</li>
              ))}
            </ul>
          )}
          {shown.kind === "radio" && (
            <div className="mt-3 overflow-x-auto">
              <Ladder radio={shown.row} />
            </div>
          )}
        </div>
      </div>
    </SheetDialog>
  );
};
