/*
 * Own radios and antennas as a table: one row a device, one column a figure. A radio takes its table of modulations from
 * one that is known ("like"), moved by a difference of sensitivity and an own highest power; every other figure left empty
 * is that one's too, but for what it is bought and hung by: that is stated or not known.
 */
import Papa from "papaparse";
import { movedModulations, ownSheetId, type Radio } from "../core/radio";
import { isCleanText } from "./clean-text";
import { antennaSchema, type HardwareFile, type RowFault, radioSchema } from "./hardware";

type Sheet = Record<string, unknown>;
/** Radios whose tables of modulations may be taken. */
export interface KnownHardware {
  readonly radios: readonly Radio[];
}

const MOST_ROWS = 500;
const MOST_FAULTS = 20;

type Read = (text: string) => unknown;
const FAULT = Symbol("fault");
const number: Read = (text) => {
  const n = Number(text.replace("\u2212", "-").replace(",", "."));
  return Number.isFinite(n) ? n : FAULT;
};
const list: Read = (text) => text.split(/[\s;]+/).filter((w) => w !== "");
const numbers: Read = (text) => {
  const all = (list(text) as string[]).map((w) => number(w));
  return all.includes(FAULT) ? FAULT : all;
};
const yesNo: Read = (text) => (/^(yes|y|true|1)$/i.test(text) ? true : /^(no|n|false|0)$/i.test(text) ? false : FAULT);
const words: Read = (text) => text;

/** Every column with how it is read and what it must be. */
export const HARDWARE_COLUMNS = {
  kind: [words, "radio or antenna"],
  name: [words, "a name"],
  id: [words, "small letters, digits and hyphens"],
  like: [words, "the name or id of a radio that is known"],
  family: [words, "a family"],
  form: [words, "panel, dish, horn, sector or omni"],
  low_mhz: [number, "a number in MHz"],
  high_mhz: [number, "a number in MHz"],
  widths_mhz: [numbers, "numbers in MHz with spaces between"],
  gain_dbi: [number, "a number in dBi"],
  beam_azimuth_deg: [number, "a number of degrees"],
  beam_elevation_deg: [number, "a number of degrees"],
  polarisation: [words, "as in a data sheet"],
  chains: [number, "a whole number"],
  min_power_dbm: [number, "a number in dBm, all chains together"],
  max_power_dbm: [number, "a number in dBm, all chains together"],
  noise_figure_db: [number, "a number in dB"],
  sensitivity_shift_db: [number, "a number in dB"],
  hottest_input_dbm: [number, "a number in dBm a chain"],
  port_mbps: [number, "a number in Mbps"],
  radar_detection: [yesNo, "yes or no"],
  range_km: [number, "a number in km"],
  supplies: [list, "kinds of supply with spaces between"],
  connector: [words, "as in a data sheet"],
  pole_low_mm: [number, "a number in mm"],
  pole_high_mm: [number, "a number in mm"],
  bracket: [words, "the name of a bracket"],
  connector_place: [words, "below, behind, above or side"],
  width_mm: [number, "a number in mm"],
  height_mm: [number, "a number in mm"],
  coldest_c: [number, "a number of degrees Celsius"],
  hottest_c: [number, "a number of degrees Celsius"],
  price_eur: [number, "a number"],
  stock: [number, "a whole number"],
} as const satisfies Record<string, readonly [Read, string]>;

type Column = keyof typeof HARDWARE_COLUMNS;
type Row = Partial<Record<Column, unknown>>;

/** Columns that a field of a sheet is read from, to name the column in a fault. */
const COLUMN_OF: readonly (readonly [RegExp, Column])[] = [
  [/^antenna\.gainDbi|^gainDbi/, "gain_dbi"],
  [/azimuthBeamwidthDeg/, "beam_azimuth_deg"],
  [/elevationBeamwidthDeg/, "beam_elevation_deg"],
  [/^bandsMhz/, "low_mhz"],
  [/^channelWidthsMhz/, "widths_mhz"],
  [/^minTxPowerDbm/, "min_power_dbm"],
  [/^modulations.*maxTxPowerDbm/, "max_power_dbm"],
  [/^modulations.*sensitivityDbm/, "sensitivity_shift_db"],
  [/^noiseFigureDb/, "noise_figure_db"],
  [/^maxOperatingInputDbm/, "hottest_input_dbm"],
  [/^ethernetPorts/, "port_mbps"],
  [/^maxLinkKm/, "range_km"],
  [/^poleDiameterMm/, "pole_low_mm"],
  [/^connectorPlace/, "connector_place"],
  [/^sizeMm\.width/, "width_mm"],
  [/^sizeMm/, "height_mm"],
  [/^temperatureC/, "coldest_c"],
  [/^priceEur/, "price_eur"],
  [/^powerKinds/, "supplies"],
];
const columnOf = (path: string): string => COLUMN_OF.find(([p]) => p.test(path))?.[1] ?? path;

const given = <T>(value: unknown, otherwise: T): T => (value === undefined ? otherwise : (value as T));
const range = (low: unknown, high: unknown): Sheet | undefined => (low === undefined || high === undefined ? undefined : { low, high });

/** What a unit is bought and hung by: stated in the row, or not known. */
const bought = (r: Row): Sheet => ({
  priceEur: r.price_eur,
  sizeMm: r.width_mm === undefined || r.height_mm === undefined ? undefined : { width: r.width_mm, height: r.height_mm },
  poleDiameterMm: range(r.pole_low_mm, r.pole_high_mm),
  bracket: r.bracket,
  connectorPlace: typeof r.connector_place === "string" ? r.connector_place.toLowerCase() : undefined,
  stock: r.stock,
});

const radioOf = (r: Row, like: Radio): Sheet => {
  const { source: _s, ...base } = like as unknown as Sheet & { source?: string };
  const band = range(r.low_mhz, r.high_mhz);
  return {
    ...base,
    id: given(r.id, ownSheetId(String(r.name))),
    name: r.name,
    family: given(r.family, like.family),
    ...(band === undefined ? {} : { bandsMhz: [band] }),
    channelWidthsMhz: given(r.widths_mhz, like.channelWidthsMhz),
    polarisation: given(r.polarisation, like.polarisation),
    chains: given(r.chains, like.chains),
    minTxPowerDbm: given(r.min_power_dbm, like.minTxPowerDbm),
    noiseFigureDb: given(r.noise_figure_db, like.noiseFigureDb),
    maxOperatingInputDbm: given(r.hottest_input_dbm, like.maxOperatingInputDbm),
    radarDetection: given(r.radar_detection, like.radarDetection),
    maxLinkKm: given(r.range_km, like.maxLinkKm),
    antenna: {
      ...(like.antenna.kind === "integrated" ? { ...like.antenna, cuts: undefined, diameterMm: undefined } : like.antenna),
      form: given(r.form, like.antenna.form),
      gainDbi: given(r.gain_dbi, like.antenna.gainDbi),
      azimuthBeamwidthDeg: given(r.beam_azimuth_deg, like.antenna.azimuthBeamwidthDeg),
      elevationBeamwidthDeg: given(r.beam_elevation_deg, given(r.beam_azimuth_deg, like.antenna.elevationBeamwidthDeg)),
      ...(r.connector === undefined ? {} : { connector: r.connector }),
    },
    ethernetPorts: r.port_mbps === undefined ? like.ethernetPorts : [{ port: 1, medium: "copper", speedMbps: r.port_mbps, powerIn: true }],
    powerKinds: r.supplies,
    temperatureC: range(r.coldest_c, r.hottest_c),
    modulations: movedModulations(like.modulations, given(r.max_power_dbm, null), given(r.sensitivity_shift_db, 0)),
    ...bought(r),
  };
};

const antennaOf = (r: Row): Sheet => ({
  id: given(r.id, ownSheetId(String(r.name))),
  name: r.name,
  form: given(r.form, "dish"),
  bandsMhz: [{ low: r.low_mhz, high: r.high_mhz }],
  gainDbi: r.gain_dbi,
  azimuthBeamwidthDeg: r.beam_azimuth_deg,
  elevationBeamwidthDeg: given(r.beam_elevation_deg, r.beam_azimuth_deg),
  ...(r.polarisation === undefined ? {} : { polarisation: r.polarisation }),
  ...(r.connector === undefined ? {} : { connector: r.connector }),
  ...bought(r),
});

const plain = (sheet: Sheet): Sheet => JSON.parse(JSON.stringify(sheet)) as Sheet;

/** Reads a table of own hardware, all of it or nothing; faults name the row, its name, and the column. */
export const readHardwareCsv = (text: string, known: KnownHardware): { file: HardwareFile } | { faults: RowFault[] } => {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ""), {
    header: true,
    skipEmptyLines: "greedy",
    transformHeader: (h) => h.trim().toLowerCase().replaceAll(/\s+/g, "_"),
  });
  const columns = meta.fields ?? [];
  const strange = columns.filter((c) => !Object.hasOwn(HARDWARE_COLUMNS, c));
  if (!columns.includes("name")) return { faults: [{ where: "the first row", reason: 'names no column "name"' }] };
  if (strange.length > 0)
    return {
      faults: strange
        .slice(0, MOST_FAULTS)
        .map((c) => ({ where: `column "${c}"`, reason: `is none of: ${Object.keys(HARDWARE_COLUMNS).join(", ")}` })),
    };
  if (data.length === 0) return { faults: [{ where: "the file", reason: "holds no rows" }] };
  if (data.length > MOST_ROWS)
    return { faults: [{ where: "the file", reason: `has ${data.length} rows; at most ${MOST_ROWS} are taken` }] };
  const faults: RowFault[] = [];
  const out: Pick<HardwareFile, "radios" | "antennas" | "parts"> = { radios: [], antennas: [], parts: [] };
  const ids = new Map<string, number>();
  data.forEach((cells, i) => {
    const at = `row ${i + 2}${cells.name === undefined || cells.name.trim() === "" ? "" : ` ${cells.name.trim()}`}`;
    const say = (column: string, reason: string): void => void faults.push({ where: `${at}: ${column}`, reason });
    const before = faults.length;
    const row: Row = {};
    for (const [name, [read, must]] of Object.entries(HARDWARE_COLUMNS)) {
      const cell = (cells[name] ?? "").trim();
      if (cell === "") continue;
      if (!isCleanText(cell)) say(name, "holds characters that no text has");
      const value = read(cell);
      if (value === FAULT) say(name, `"${cell.slice(0, 30)}" is not ${must}`);
      else row[name as Column] = value;
    }
    if (row.name === undefined) say("name", "is empty");
    const isAntenna = /^antenna$/i.test(String(row.kind ?? "radio"));
    if (!isAntenna && !/^radio$/i.test(String(row.kind ?? "radio")))
      say("kind", `"${String(row.kind)}" is not ${HARDWARE_COLUMNS.kind[1]}`);
    const like = known.radios.find((r) => r.id === row.like || r.name.toLowerCase() === String(row.like ?? "").toLowerCase());
    if (!isAntenna && like === undefined)
      say(
        "like",
        row.like === undefined
          ? `is empty: ${HARDWARE_COLUMNS.like[1]} is needed for its modulations`
          : `"${String(row.like)}" is no radio that is known`,
      );
    if (faults.length > before) return;
    const checked = isAntenna ? antennaSchema.safeParse(plain(antennaOf(row))) : radioSchema.safeParse(plain(radioOf(row, like!)));
    if (!checked.success) {
      for (const issue of checked.error.issues) say(columnOf(issue.path.join(".")), issue.message);
      return;
    }
    const twin = ids.get(checked.data.id);
    if (twin !== undefined) {
      say("id", `"${checked.data.id}" is that of row ${twin}, too`);
      return;
    }
    ids.set(checked.data.id, i + 2);
    if (isAntenna) out.antennas.push(checked.data as HardwareFile["antennas"][number]);
    else out.radios.push(checked.data as HardwareFile["radios"][number]);
  });
  return faults.length > 0 ? { faults: faults.slice(0, MOST_FAULTS) } : { file: out };
};
