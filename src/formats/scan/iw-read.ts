/*
 * The text of `iw dev ... scan` and `iw dev ... survey dump`: one block a network, one block a channel. Only what is needed is read;
 * what is missing is left out, what cannot be is told with its line.
 */
import { isCleanText } from "../clean-text";
import { addressKey, faultList, MOST_ROWS, rowFault, type ScanText, type ScanTextRow } from "./rows";

const BLOCK = /^BSS ([0-9a-f]{2}(?::[0-9a-f]{2}){5})/i;
const SURVEY = /^Survey data from /;

interface Network {
  readonly line: number;
  readonly address: string;
  primaryMhz: number | null;
  levelDbm: number | null;
  name: string;
  busy: number | null;
  secondary: -1 | 0 | 1;
  widthCode: number | null;
  segments: [number, number];
}

interface Surveyed {
  readonly line: number;
  mhz: number | null;
  noiseDbm: number | null;
  activeMs: number | null;
  busyMs: number | null;
}

/** Centre of a channel by its number, in the band of a frequency. */
const centreOfNumber = (number: number, nearMhz: number): number | null => {
  if (number <= 0) return null;
  const mhz = nearMhz < 3000 ? 2407 + 5 * number : nearMhz < 5925 ? 5000 + 5 * number : 5950 + 5 * number;
  return Math.abs(mhz - nearMhz) <= 160 ? mhz : null;
};

/** The channel by what the network says of its operation: wide ones by their segments, 40 MHz by the second half. */
const channelOf = (n: Network, primaryMhz: number): { centreMhz: number; widthMhz: number } => {
  const [first, second] = n.segments;
  const one = centreOfNumber(first, primaryMhz);
  const two = centreOfNumber(second, primaryMhz);
  if (n.widthCode === 2 && one !== null) return { centreMhz: one, widthMhz: 160 };
  if (n.widthCode === 1 && one !== null) {
    // Both halves of 160 MHz are told by the second centre, eight numbers from the first.
    if (two !== null && Math.abs(second - first) === 8) return { centreMhz: two, widthMhz: 160 };
    return { centreMhz: one, widthMhz: 80 };
  }
  return n.secondary === 0 ? { centreMhz: primaryMhz, widthMhz: 20 } : { centreMhz: primaryMhz + 10 * n.secondary, widthMhz: 40 };
};

/** Hidden and broken names count as none; the escapes of the tool are what they stand for. */
const nameOf = (text: string): string => {
  const plain = text.replace(/\\x([0-9a-f]{2})/gi, (_, hex: string) => String.fromCharCode(Number.parseInt(hex, 16))).trim();
  return isCleanText(plain) ? plain.slice(0, 64) : "";
};

const figure = (text: string): number | null => {
  const m = /-?\d+(?:\.\d+)?/.exec(text);
  return m === null ? null : Number(m[0]);
};

/** @param withoutNames leaves strangers' names out. */
export const readIw = (text: string, withoutNames: boolean): ScanText => {
  const faults = faultList();
  const networks: Network[] = [];
  const surveys: Surveyed[] = [];
  let network: Network | null = null;
  let survey: Surveyed | null = null;
  text.split(/\r\n|\r|\n/).forEach((raw, i) => {
    const line = i + 1;
    const block = BLOCK.exec(raw);
    if (block !== null) {
      network = {
        line,
        address: block[1]!,
        primaryMhz: null,
        levelDbm: null,
        name: "",
        busy: null,
        secondary: 0,
        widthCode: null,
        segments: [0, 0],
      };
      networks.push(network);
      survey = null;
      return;
    }
    if (SURVEY.test(raw)) {
      survey = { line, mhz: null, noiseDbm: null, activeMs: null, busyMs: null };
      surveys.push(survey);
      network = null;
      return;
    }
    const at = raw.indexOf(":");
    if (at < 0) return;
    const what = raw
      .slice(0, at)
      .replace(/^[\s*]+/, "")
      .toLowerCase();
    const value = raw.slice(at + 1);
    if (network !== null) takeOfNetwork(network, what, value);
    else if (survey !== null) takeOfSurvey(survey, what, value);
  });
  const busy = new Map<number, number>();
  const rows: ScanTextRow[] = [];
  const add = (line: number, row: ScanTextRow): void => {
    const fault = rowFault(row);
    if (fault !== null) faults.add(line, fault);
    else if (rows.length >= MOST_ROWS) faults.add(line, `only the first ${MOST_ROWS} are taken`);
    else rows.push(row);
  };
  for (const s of surveys) {
    if (s.mhz === null) {
      faults.add(s.line, 'a channel without its line "frequency"');
      continue;
    }
    if (s.activeMs !== null && s.busyMs !== null && s.activeMs > 0) busy.set(s.mhz, Math.min(1, s.busyMs / s.activeMs));
    if (s.noiseDbm !== null)
      add(s.line, {
        key: `noise:${s.mhz}`,
        name: "",
        centreMhz: s.mhz,
        widthMhz: 20,
        levelDbm: s.noiseDbm,
        busyShare: null,
        isNoise: true,
      });
  }
  for (const n of networks) {
    if (n.primaryMhz === null) {
      faults.add(n.line, 'a network without its line "freq"');
      continue;
    }
    if (n.levelDbm === null) {
      faults.add(n.line, 'a network without its line "signal" in dBm');
      continue;
    }
    add(n.line, {
      key: addressKey(n.address),
      name: withoutNames ? "" : n.name,
      ...channelOf(n, n.primaryMhz),
      levelDbm: n.levelDbm,
      busyShare: n.busy ?? busy.get(n.primaryMhz) ?? null,
      isNoise: false,
    });
  }
  if (networks.length + surveys.length === 0)
    faults.add(1, 'neither a network ("BSS ...") nor a channel ("Survey data from ...") is in it');
  return { form: networks.length > 0 ? "scan" : "survey", rows, faults: faults.list };
};

const takeOfNetwork = (n: Network, what: string, value: string): void => {
  switch (what) {
    case "freq":
      n.primaryMhz ??= figure(value);
      break;
    case "signal":
      if (/dBm/i.test(value)) n.levelDbm ??= figure(value);
      break;
    case "ssid":
      if (n.name === "") n.name = nameOf(value);
      break;
    case "channel utilisation":
    case "channel utilization": {
      const m = /(\d+)\s*\/\s*255/.exec(value);
      if (m !== null) n.busy = Number(m[1]) / 255;
      break;
    }
    case "secondary channel offset":
      n.secondary = /above/.test(value) ? 1 : /below/.test(value) ? -1 : 0;
      break;
    case "channel width": {
      const code = figure(value);
      if (code !== null && n.widthCode === null) n.widthCode = code;
      break;
    }
    case "center freq segment 1":
      n.segments[0] = figure(value) ?? 0;
      break;
    case "center freq segment 2":
      n.segments[1] = figure(value) ?? 0;
      break;
  }
};

const takeOfSurvey = (s: Surveyed, what: string, value: string): void => {
  switch (what) {
    case "frequency":
      s.mhz ??= figure(value);
      break;
    case "noise":
      s.noiseDbm ??= figure(value);
      break;
    case "channel active time":
      s.activeMs ??= figure(value);
      break;
    case "channel busy time":
      s.busyMs ??= figure(value);
      break;
  }
};
