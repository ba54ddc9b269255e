import type { Candidate, LimitCode, PowerSchool, Rack, Refusal, Unit } from "@/core/rack";
import type { BandKey } from "@/core/radio";
import { dbText, figure, lengthText, mbpsText, shareText, type Units } from "./numbers";

const SPACE = "\u00a0";

export const bandText = (band: BandKey): string => `${band === "80" ? "70/80" : band}${SPACE}GHz`;
export const euroText = (price: number | null): string => (price === null ? "price not stated" : `€${SPACE}${thousands(price)}`);
const thousands = (n: number): string => figure(n).replace(/(\d)(?=(\d{3})+$)/g, "$1,");
export const countText = (n: number, one: string, many: string): string => `${thousands(n)} ${n === 1 ? one : many}`;
/** A rate with what carries it: tenths below ten. */
export const rateText = (mbps: number): string => figure(mbps, mbps < 9.95 && Math.abs(mbps - Math.round(mbps)) > 0.05 ? 1 : 0);

/** What is to spare beyond the need, or short of it. */
export const spareText = (mbps: number): string => (mbps < 0 ? `${rateText(-mbps)} Mbps short` : `${rateText(mbps)} Mbps to spare`);

export const pairName = ({ near, far }: { readonly near: Unit; readonly far: Unit }): string =>
  near.key === far.key ? near.name : `${near.name} to ${far.name}`;

export const REFUSAL_WORDS: Readonly<Record<Refusal["code"], string>> = {
  hot: "Too strong at lowest power",
  weak: "Too weak",
  "rule-cuts": "The rules cut the power",
  rain: "Rain takes it",
  slow: "Too slow",
  port: "Port too slow for the need",
  wind: "Turned out of its beam by wind",
  rule: "No channel under these rules",
  "rule-minimum": "Lowest power above the rules",
  "radar-missing": "No radar detection",
  permission: "Permission open",
  face: "Face too large",
  price: "Over the price",
  "port-speed": "Port under the limit",
  pole: "Does not fit the pole",
  supply: "Other supply",
  cold: "Not made for the cold",
  heat: "Not made for the heat",
  radar: "Radar channels only",
  stock: "Not in stock",
  like: "Not like for like",
  "kept-end": "Another unit at the end that stays",
  band: "Other bands",
  family: "Other families",
  "one-type": "Not the one type of the job",
  unlike: "Unlike at both ends",
};

const RULE_WORDS: Readonly<Record<Extract<Refusal, { code: "rule" }>["reason"], string>> = {
  "no-channel": "no channel",
  "gain-too-low": "gain too low for its rule",
  "beam-too-wide": "beam too wide for its rule",
  "indoor-only": "indoor only",
};

/** How long a year, in the unit that one would say. */
export const hoursText = (hours: number | null): string =>
  hours === null ? "more than 88 hours a year" : hours < 1.5 ? `${figure(hours * 60)} minutes a year` : `${figure(hours)} hours a year`;

/** The figure that decides, in a few words. */
export const refusalFigure = (r: Refusal): string => {
  switch (r.code) {
    case "hot":
      return dbText(r.overDb, r.overDb < 9.95 ? 1 : 0);
    case "weak":
      return Number.isFinite(r.lacksDb) ? `${dbText(r.lacksDb, r.lacksDb < 9.95 ? 1 : 0)} short` : "no modulation";
    case "rule-cuts":
      return `cut to ${figure(r.limitDbm, Number.isInteger(r.limitDbm) ? 0 : 1)}${SPACE}dBm, ${dbText(r.lacksDb)} short`;
    case "rain":
      return hoursText(r.hoursAYear);
    case "slow":
      return `keeps ${rateText(r.keptMbps)}: ${rateText(r.shortMbps)} short`;
    case "port":
      return mbpsText(r.portMbps);
    case "wind":
      return r.twistDeg === null ? "on a tree" : `a beam of ${figure(r.beamDeg ?? 0, 1)}°`;
    case "rule":
      return RULE_WORDS[r.reason];
    case "rule-minimum":
      return dbText(r.overDb);
    case "radar-missing":
      return "cannot hear radar";
    case "permission":
      return r.asks;
    case "price":
      return euroText(Number(r.figure));
    case "face":
      return `${figure(Number(r.figure))}${SPACE}cm`;
    case "port-speed":
      return mbpsText(Number(r.figure));
    case "pole":
      return `${r.figure}${SPACE}mm`;
    case "cold":
      return `to ${figure(Number(r.figure))}${SPACE}°C`;
    case "heat":
      return `to ${figure(Number(r.figure))}${SPACE}°C`;
    case "supply":
      return supplyText(String(r.figure));
    case "kept-end":
    case "stock":
    case "radar":
    case "unlike":
    case "one-type":
      return "";
    default:
      return String(r.figure ?? "");
  }
};

const SUPPLY_WORDS: Readonly<Record<string, string>> = {
  "passive24-2pair": "24 V passive, 2 pairs",
  "passive24-4pair": "24 V passive, 4 pairs",
  passive48: "48 V passive",
  dc12: "12 V DC",
  dc24: "24 V DC",
};
export const supplyText = (kinds: string): string =>
  kinds
    .split(" or ")
    .map((k) => SUPPLY_WORDS[k] ?? k)
    .join(" or ");

/** What one press would let in, in words; null where there is none. */
export const letInText = (c: Candidate): string | null => {
  if (!c.onlyThat || c.refusal === null) return null;
  return LET_IN[c.refusal.code as LimitCode | "permission"] ?? null;
};
const LET_IN: Partial<Readonly<Record<LimitCode | "permission", string>>> = {
  face: "Any face",
  price: "Any price",
  "port-speed": "Any port",
  pole: "Any pole",
  supply: "Any supply",
  cold: "Any cold",
  heat: "Any heat",
  radar: "Radar channels too",
  stock: "To order too",
  like: "Unlike too",
  "kept-end": "Exchange both",
  band: "All bands",
  family: "All families",
  "one-type": "Any type",
  unlike: "Unlike ends too",
  permission: "Record it",
};

export const SCHOOL_WORDS: Readonly<Record<PowerSchool, string>> = {
  enough: "just enough",
  target: "to a level",
  highest: "highest",
};

/** One sentence about a band: its best candidate, or why none. */
export const bandSentence = (
  c: Candidate,
  serves: boolean,
  needMbps: number,
  keptMbps: number,
  yearPercent: number,
  units: Units,
): string => {
  const name = pairName(c.pair);
  const from = c.priceEur === null ? "" : `, ${euroText(c.priceEur)}`;
  if (c.refusal === null) {
    const path = c.clearance?.verdict === "short" ? `; the path is ${lengthText(units, c.clearance.missM ?? 0)} short in this band` : "";
    const radar = c.option?.radar === true ? ", on a channel with radar duty" : "";
    if (serves) return `${name} keeps ${rateText(keptMbps)} Mbps${radar}${from}${path}.`;
    return `${name} would carry it, not surely: ${rateText(keptMbps)} of ${rateText(needMbps)} Mbps in nine cases of ten${from}${path}.`;
  }
  return `${REFUSED[c.refusal.code]?.(c.refusal as never, name, yearPercent) ?? `${name}: ${REFUSAL_WORDS[c.refusal.code].toLowerCase()}.`}`;
};

type Refused<K extends Refusal["code"]> = K extends LimitCode ? Extract<Refusal, { code: LimitCode }> : Extract<Refusal, { code: K }>;
const REFUSED: { readonly [K in Refusal["code"]]?: (r: Refused<K>, name: string, yearPercent: number) => string } = {
  hot: (r, name) => `too strong: ${name} is ${dbText(r.overDb)} over its ceiling at its lowest power.`,
  weak: (r, name) => (Number.isFinite(r.lacksDb) ? `too weak: ${name} lacks ${dbText(r.lacksDb)}.` : `nothing holds over this path.`),
  "rule-cuts": (r, name) => `the rules leave ${name} ${figure(r.limitDbm)}${SPACE}dBm: ${dbText(r.lacksDb)} too little.`,
  rain: (r, name, year) =>
    `${name} would carry it in clear air, but rain and fading take it for ${hoursText(r.hoursAYear)}; ${shareText(year)} of the year is asked.`,
  slow: (r, name) => `${name} keeps ${rateText(r.keptMbps)} Mbps, ${rateText(r.shortMbps)} short.`,
  port: (r, name) => `${name} has a port for ${mbpsText(r.portMbps)}.`,
  wind: (r, name) =>
    r.twistDeg === null
      ? "nothing stays pointed on a tree."
      : `${name} has a beam of ${figure(r.beamDeg ?? 0, 1)}°, and wind turns the mount by ${figure(r.twistDeg, 1)}°.`,
  permission: (r, name) => `closed until recorded: ${r.asks}. ${name} would do.`,
  "radar-missing": (_r, name) => `${name} cannot hear radar where it must.`,
  "rule-minimum": (r, name) => `the lowest power of ${name} is ${dbText(r.overDb)} above the rules.`,
  rule: (r, name) => `${name}: ${RULE_WORDS[r.reason]} under these rules.`,
  stock: (_r, name) => `${name} would do, but is not in stock.`,
  like: (r, name) => `${name} would do, but not like for like: ${String(r.figure)}.`,
  "kept-end": (r) => `nothing pairs with the ${String(r.limit)} that stays.`,
  unlike: () => "only with unlike radios at both ends.",
  band: () => "not looked at.",
  face: (r, name) => `${name} would do, but its face is ${figure(Number(r.figure))}${SPACE}cm.`,
  price: (r, name) => `${name} would do, for ${euroText(Number(r.figure))}.`,
  "port-speed": (r, name) => `${name} would do, on a port of ${mbpsText(Number(r.figure))}.`,
};

/** Refusals of what was never weighed: it lies outside the search. */
export const NOT_LOOKED_AT: readonly Refusal["code"][] = ["unlike", "band", "family", "one-type", "kept-end"];

/** What was tried, and where all of it is. */
export const triedText = ({ counts, rejected }: Pick<Rack, "counts" | "rejected">): string => {
  const left = rejected.filter((g) => NOT_LOOKED_AT.includes(g.code)).reduce((n, g) => n + g.candidates.length, 0);
  return `${countText(counts.tried - left, "pair and width", "pairs and widths")} on ${countText(counts.channels, "channel", "channels")} with ${countText(counts.settings, "setting", "settings")}: ${countText(counts.rows, "row", "rows")}, ${thousands(counts.folded)} beneath them, ${thousands(counts.rejected - left)} rejected.${left === 0 ? "" : ` ${thousands(left)} outside the limits were not looked at.`}`;
};

/** How many pairs are at hand. */
export const stockText = (pairs: number): string =>
  pairs === 0 ? "to order" : pairs === 1 ? "1 pair in stock" : `${pairs} pairs in stock`;
