/* A scan as a table: frequency, width, level; name, key and busy share where there are some. */
import Papa from "papaparse";
import { isCleanText } from "../clean-text";
import { csvText } from "../csv-write";
import { addressKey, faultList, hashedName, MOST_ROWS, rowFault, type ScanText, type ScanTextRow } from "./rows";

const COLUMNS = {
  mhz: /^(centre_?mhz|center_?mhz|frequency(_?mhz)?|freq(_?mhz)?|mhz)$/i,
  width: /^(width(_?mhz)?|bandwidth(_?mhz)?)$/i,
  level: /^(level(_?dbm)?|signal(_?dbm)?|rssi(_?dbm)?|dbm)$/i,
  name: /^(name|ssid)$/i,
  key: /^(key|address|bssid|mac)$/i,
  busy: /^(busy(_?(share|percent))?|utili[sz]ation|occupied)$/i,
} as const;

const number = (text: string | undefined): number => {
  const clean = (text ?? "")
    .trim()
    .replace("−", "-")
    .replace(/\s*(mhz|dbm|%)$/i, "");
  return clean === "" ? Number.NaN : Number(/^-?\d+,\d+$/.test(clean) ? clean.replace(",", ".") : clean);
};

/** @param withoutNames leaves strangers' names out. */
export const readScanCsv = (text: string, withoutNames: boolean): ScanText => {
  const faults = faultList();
  const parsed = Papa.parse<string[]>(text.replace(/^﻿/, ""), { skipEmptyLines: "greedy" });
  const [head, ...body] = parsed.data;
  const at = Object.fromEntries(
    Object.entries(COLUMNS).map(([k, pattern]) => [k, head?.findIndex((c) => pattern.test(c.trim())) ?? -1]),
  ) as Record<keyof typeof COLUMNS, number>;
  if (at.mhz < 0 || at.level < 0) {
    faults.add(1, "the first line must name a column for the frequency (mhz) and one for the level (dbm)");
    return { form: "csv", rows: [], faults: faults.list };
  }
  const rows: ScanTextRow[] = [];
  body.forEach((cells, i) => {
    const line = i + 2;
    const cell = (k: keyof typeof COLUMNS): string => (at[k] < 0 ? "" : (cells[at[k]] ?? "").trim());
    const busyText = cell("busy");
    const busy = busyText === "" ? null : number(busyText);
    const name = isCleanText(cell("name")) ? cell("name").slice(0, 64) : "";
    const key = cell("key");
    const row: ScanTextRow = {
      key: key === "" ? "" : /^[0-9a-f]{10}$/.test(key) ? key : addressKey(key),
      name: withoutNames ? "" : name,
      centreMhz: number(cell("mhz")),
      widthMhz: cell("width") === "" ? 20 : number(cell("width")),
      levelDbm: number(cell("level")),
      busyShare: busy === null ? null : busy > 1 ? busy / 100 : busy,
      isNoise: false,
    };
    const fault = rowFault(row);
    if (fault !== null) faults.add(line, fault);
    else if (rows.length >= MOST_ROWS) faults.add(line, `only the first ${MOST_ROWS} are taken`);
    else rows.push(row);
  });
  if (rows.length === 0 && faults.list.length === 0) faults.add(1, "the table has no row");
  return { form: "csv", rows, faults: faults.list };
};

/** A scan as it leaves the job: strangers' names hashed. */
export const scanCsv = (rows: readonly ScanTextRow[]): string =>
  csvText(
    rows
      .filter((r) => !r.isNoise)
      .map((r) => ({
        mhz: r.centreMhz,
        width_mhz: r.widthMhz,
        level_dbm: r.levelDbm,
        busy_share: r.busyShare ?? "",
        key: r.key,
        name: hashedName(r.name),
      })),
  );
