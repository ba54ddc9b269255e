/*
 * Where a figure comes from, in one place for the level line, the printed pack and the command line: a
 * plain sentence with {symbols} in it, the symbols with values and units, the formula and the clause.
 * The words are metric; whoever shows them may convert by the unit of each symbol.
 */
import type { Direction, LevelTerm, LinkPlan, LinkResult } from "./types";

export type ExplainedUnit =
  | "m"
  | "km"
  | "MHz"
  | "GHz"
  | "dB"
  | "dBm"
  | "dBi"
  | "dB/km"
  | "deg"
  | "C"
  | "hPa"
  | "g/m3"
  | "Mbps"
  | "us"
  | "percent"
  | "minutes"
  | "W/m2"
  | "mm/h"
  | "";

export interface ExplainedSymbol {
  /** The key that stands in braces in the sentence. */
  readonly key: string;
  readonly symbol: string;
  readonly meaning: string;
  readonly value: number | string;
  readonly unit: ExplainedUnit;
}

export interface Explanation {
  readonly id: string;
  readonly sentence: string;
  /** Empty when the figure is typed or read off a sheet. */
  readonly formula: string;
  readonly symbols: readonly ExplainedSymbol[];
  readonly clause: string;
  /** True when the rule is our own and not a recommendation's. */
  readonly ours: boolean;
  readonly inRange: boolean;
}

type Row = readonly [key: string, symbol: string, meaning: string, unit: ExplainedUnit];

const fromInputs = (t: Pick<LevelTerm, "inputs">, rows: readonly Row[]): ExplainedSymbol[] =>
  rows.flatMap(([key, symbol, meaning, unit]) => {
    const value = t.inputs[key];
    return value === undefined ? [] : [{ key, symbol, meaning, value, unit }];
  });

const symbol = (key: string, sign: string, meaning: string, value: number | string, unit: ExplainedUnit): ExplainedSymbol => ({
  key,
  symbol: sign,
  meaning,
  value,
  unit,
});

interface Words {
  readonly sentence: (t: LevelTerm) => string;
  readonly formula: string;
  readonly rows: readonly Row[];
}

const BARRIER: Words = {
  sentence: (t) =>
    t.valueDb === 0
      ? "Nothing stands between the unit and the open air."
      : t.inputs.material === "measured"
        ? "Wall or window before the unit, as measured."
        : t.inputs.material === "unknown"
          ? "Nothing is known of the wall: the loss of a random place inside a building, {leastDb} to {mostDb} in eight cases of ten. Measure it."
          : "Wall or window before the unit: {material} takes {leastDb} to {mostDb} by the table. Measure it.",
  formula: "",
  rows: [
    ["material", "material", "what stands before the unit", ""],
    ["leastDb", "L10", "least of the range", "dB"],
    ["mostDb", "L90", "most of the range", "dB"],
  ],
};

const AIM: Words = {
  sentence: (t) =>
    t.valueDb === 0
      ? "Pointed true at the other end."
      : "The antenna's axis does not point at the other end, {bearingDeg} and {tiltDeg} up from here.",
  formula: "G(az, el) - G(0, 0)",
  rows: [
    ["bearingDeg", "az", "true bearing of the other end", "deg"],
    ["tiltDeg", "el", "elevation of the other end", "deg"],
  ],
};

const ANTENNA: Words = {
  sentence: () => "Gain of {antenna} from its data sheet, {gainDbi}.",
  formula: "",
  rows: [
    ["antenna", "antenna", "antenna", ""],
    ["gainDbi", "G", "gain over an even radiator", "dBi"],
  ],
};

const TYPED = (what: string): Words => ({ sentence: () => `${what}, as typed.`, formula: "", rows: [] });

const WORDS: Readonly<Record<LevelTerm["id"], Words>> = {
  transmit: {
    sentence: (t) =>
      `Set to {setDbm} on {radio}${t.inputs.legalDbm === "none" ? "" : "; the rules allow {legalDbm}"}. Dense modulations send with less, by the data sheet.`,
    formula: "min(P set, P allowed, P of the modulation)",
    rows: [
      ["setDbm", "P set", "set power, total over chains", "dBm"],
      ["legalDbm", "P allowed", "highest conducted power the rules allow", "dBm"],
      ["radio", "radio", "radio", ""],
    ],
  },
  chains: {
    sentence: (t) =>
      t.inputs.chains === 1
        ? "One chain: all of the power."
        : "The total power is shared by {chains} chains; level and sensitivity are per receive chain.",
    formula: "-10 log10(N)",
    rows: [["chains", "N", "transmit chains", ""]],
  },
  "feeder-out": TYPED("Cable between radio and antenna"),
  "feeder-in": TYPED("Cable between antenna and radio"),
  "connectors-out": TYPED("Connectors and surge protector"),
  "connectors-in": TYPED("Connectors and surge protector"),
  "antenna-out": ANTENNA,
  "antenna-in": ANTENNA,
  "aim-out": AIM,
  "aim-in": AIM,
  "barrier-out": BARRIER,
  "barrier-in": BARRIER,
  "near-field": {
    sentence: (t) =>
      t.valueDb === 0
        ? "Far enough apart for the full gains (far field from {farFieldM})."
        : "Nearer than the far field ({farFieldM}): the gains of the sheets are not reached, and no more than the bound is counted.",
    formula: "flux <= 4 P / A",
    rows: [["farFieldM", "2 D2 / lambda", "start of the far field", "m"]],
  },
  "free-space": {
    sentence: () => "The wave thins out over {distanceM} at {frequencyGhz}, the channel's centre.",
    formula: "20 log10(4 pi d / lambda)",
    rows: [
      ["distanceM", "d", "length of the ray", "m"],
      ["frequencyGhz", "f", "channel centre", "GHz"],
    ],
  },
  gas: {
    sentence: () => "Oxygen and water vapour take {dbPerKm} at {temperatureC}, {pressureHpa} and {vapourGm3}.",
    formula: "gamma d, gamma = 0.182 f N''(f)",
    rows: [
      ["dbPerKm", "gamma", "specific attenuation", "dB/km"],
      ["distanceM", "d", "length of the ray", "m"],
      ["temperatureC", "T", "temperature", "C"],
      ["pressureHpa", "p", "total pressure", "hPa"],
      ["vapourGm3", "rho", "water vapour", "g/m3"],
    ],
  },
  diffraction: {
    sentence: (t) =>
      t.inputs.unknownGroundM !== undefined
        ? "Not counted: the ground is unknown for {unknownGroundM}."
        : t.inputs.over === "ground"
          ? t.valueDb === 0
            ? "The ground takes nothing: it stays well below the ray."
            : "Bent over the bare ground with k {kFactor}."
          : "{over} as one edge (v {v}, {edgeDb}) over the rest ({restDb}); the whole profile at once would give {wholeDb}.",
    formula: "L_bulla + max(L_sph - L_bulls, 0); with bodies min(L_all, J(v) + L_rest)",
    rows: [
      ["frequencyGhz", "f", "channel centre", "GHz"],
      ["kFactor", "k", "effective earth factor", ""],
      ["over", "edge", "the dominating obstacle", ""],
      ["v", "v", "its height in diffraction measure", ""],
      ["edgeDb", "J(v)", "its loss as one edge", "dB"],
      ["restDb", "L_rest", "the same path without it", "dB"],
      ["wholeDb", "L_all", "all of the profile at once", "dB"],
      ["unknownGroundM", "unknown", "length of unknown ground", "m"],
    ],
  },
  beside: {
    sentence: (t) =>
      t.valueDb === 0
        ? "Nothing solid stands beside the ray."
        : "Walls beside the ray cut the zone from the side: {leftDb} left, {rightDb} right.",
    formula: "J(-1.414 c), the worst on each side",
    rows: [
      ["leftDb", "left", "loss by the left side", "dB"],
      ["rightDb", "right", "loss by the right side", "dB"],
      ["over", "by", "the nearest body", ""],
    ],
  },
  "own-edge": {
    sentence: (t) =>
      t.valueDb === 0
        ? "No part of the ends' own buildings comes into 60 % of F1."
        : "{over}, a part of the end's own building, comes into 60 % of F1 and counts as one edge.",
    formula: "J(-1.414 c)",
    rows: [["over", "edge", "the part that stands in the zone", ""]],
  },
  vegetation: {
    sentence: (t) =>
      t.valueDb === 0
        ? "No leaves on the ray."
        : `Leaves, {depthM} deep, ${t.inputs.leaf === "in" ? "in leaf" : "out of leaf"}: over the top, round the sides and through, powers added; {leastDb} to {mostDb} over the seasons.`,
    formula: "0.2 f^0.3 d^0.6 in leaf (f MHz, d m); FITU-R out of leaf",
    rows: [
      ["frequencyGhz", "f", "channel centre", "GHz"],
      ["depthM", "d", "depth inside leaves", "m"],
      ["over", "crown", "the crown that takes most", ""],
      ["leastDb", "least", "out of leaf", "dB"],
      ["mostDb", "most", "in leaf", "dB"],
    ],
  },
  polarisation: {
    sentence: (t) =>
      t.valueDb === 0
        ? t.inputs.match === "by turning"
          ? "Turn both feeds to the same polarisation."
          : "Both ends answer each other's polarisation."
        : "The polarisations do not answer each other: {out} against {into}.",
    formula: "",
    rows: [
      ["out", "out", "polarisation sent", ""],
      ["into", "into", "polarisation received", ""],
    ],
  },
  radome: {
    sentence: (t) =>
      Number(t.inputs.wetDb) > 0
        ? "Dry covers take nothing; in rain both together take about {wetDb}, counted in the availability."
        : "Covers take nothing worth counting at this frequency.",
    formula: "",
    rows: [["wetDb", "wet", "both covers when wet", "dB"]],
  },
};

/** How one gain or loss of the level line came about. */
export const explainTerm = (t: LevelTerm): Explanation => {
  const words = WORDS[t.id];
  return {
    id: t.id,
    sentence: words.sentence(t),
    formula: words.formula,
    symbols: fromInputs(t, words.rows),
    clause: t.clause,
    ours: /ours/.test(t.clause) || (t.id === "diffraction" && t.inputs.v !== undefined) || t.id === "own-edge" || t.id === "beside",
    inRange: t.inRange,
  };
};

const row = (
  id: string,
  sentence: string,
  formula: string,
  symbols: readonly ExplainedSymbol[],
  clause: string,
  ours = false,
  inRange = true,
): Explanation => ({
  id,
  sentence,
  formula,
  symbols,
  clause,
  ours,
  inRange,
});

const ACCESS_WORDS = {
  contention: "Both ends listen before they send",
  scheduled: "The hub shares its frame by what is asked",
  "fixed-frame": "Each direction has half of a fixed frame",
  "full-duplex": "Both directions run at once",
} as const;

/** Noise, rate, availability and exposure of one direction. */
export const explainDirection = (d: Direction, plan: LinkPlan): Explanation[] => {
  const out: Explanation[] = [
    row(
      "noise",
      d.noiseRiseDb > 0.05
        ? "Thermal noise over {widthMhz} and the receiver's own, lifted {riseDb} by interference: {noiseDbm}; {snrDb} left."
        : "Thermal noise over {widthMhz} and the receiver's own: {noiseDbm}; {snrDb} left. No interference is counted.",
      "k T B F + I",
      [
        symbol("widthMhz", "B", "channel width", plan.widthMhz, "MHz"),
        symbol("noiseDbm", "N", "noise per chain", d.noiseDbm, "dBm"),
        symbol("riseDb", "rise", "rise by interference", d.noiseRiseDb, "dB"),
        symbol("snrDb", "SNR", "signal over noise", d.snrDb, "dB"),
      ],
      "290 K",
    ),
  ];
  if (d.held !== null && d.airtime !== null) {
    const a = d.airtime;
    out.push(
      row(
        "rate",
        `${ACCESS_WORDS[a.access]}. Of {burstUs} an exchange {dataUs} carry data; {packets} packets each, held by ${a.aggregateLimit === "window" ? "the block-ack window" : `the ${a.aggregateLimit} limit`}; {errorPercent} are sent again. TCP carries {tcpMbps}, UDP {udpMbps}${a.cappedByPort ? ", held by the Ethernet port" : ""}; planned with {plannedMbps}.`,
        "packets x payload x (1 - error) / time of an exchange",
        [
          symbol("airMbps", "R", "air rate", d.held.phyRateMbps, "Mbps"),
          symbol("burstUs", "T", "one exchange with TCP's answers", a.burstUs + a.parts.answersUs, "us"),
          symbol("dataUs", "T data", "of it data", a.parts.dataUs, "us"),
          symbol("preambleUs", "T preamble", "preamble", a.parts.preambleUs, "us"),
          symbol("gapUs", "T gap", "gaps and turn-round", a.parts.gapUs, "us"),
          symbol("ackUs", "T ack", "acknowledgement", a.parts.ackUs, "us"),
          symbol("contentionUs", "T wait", "contention, slots grown by distance", a.parts.contentionUs, "us"),
          symbol("travelUs", "T travel", "travel of the wave", a.parts.travelUs, "us"),
          symbol("frameUs", "T frame", "frame control and the other direction", a.parts.frameUs, "us"),
          symbol("answersUs", "T answers", "TCP's answers", a.parts.answersUs, "us"),
          symbol("packets", "n", "packets an exchange", a.packetsPerBurst, ""),
          symbol("errorPercent", "PER", "packets sent again", a.packetErrorShare * 100, "percent"),
          symbol("portMbps", "port", "slowest Ethernet port", a.portMbps, "Mbps"),
          symbol("tcpMbps", "TCP", "usable, TCP", a.tcpMbps, "Mbps"),
          symbol("udpMbps", "UDP", "usable, UDP", a.udpMbps, "Mbps"),
          symbol("plannedMbps", "planned", `by the school "${plan.policy.throughput}"`, d.plannedMbps, "Mbps"),
        ],
        "IEEE 802.11-2020 timing; aggregation depth, error share and frames are ours",
        true,
      ),
    );
  }
  const o = d.outage;
  if (o !== null) {
    out.push(
      row(
        "availability",
        o.marginDb <= 0
          ? "Nothing is left for fading: what is needed does not hold even in clear air."
          : "With {marginDb} of margin rain takes {rainPercent} of the year and clear-air fading {multipathPercent}: {minutes} a year below what is needed, {monthPercent} of the worst month.",
        "p = p_rain(A) + p_multipath(A)",
        [
          symbol("marginDb", "A", "margin of the slowest modulation that carries the need", o.marginDb, "dB"),
          symbol("rain001Db", "A0.01", "rain attenuation exceeded 0.01 % of the year", o.a001Db, "dB"),
          symbol("rainPercent", "p_rain", "share of the year", o.rainPercent, "percent"),
          symbol("multipathPercent", "p_mp", "share of the year", o.multipathPercent, "percent"),
          symbol("monthPercent", "p_w", "share of the worst month", o.worstMonthPercent, "percent"),
          symbol("minutes", "t", "minutes a year", o.minutesAYear, "minutes"),
        ],
        "P.530-17 §2.3, §2.4; P.838-3; P.841",
        false,
        o.inRange,
      ),
    );
  }
  if (d.exposure !== null) {
    const e = d.exposure;
    out.push(
      row(
        "exposure",
        e.distanceM === 0
          ? "Nowhere in front of this antenna does the flux pass {limit}: no distance is needed by this limit. Follow the maker's sheet and local rules."
          : "Keep people {distanceM} or more in front of this antenna: nearer the flux may pass {limit} for the public. Follow the maker's sheet and local rules.",
        "S = P G / (4 pi r2), at most 4 P / A near the antenna",
        [
          symbol("distanceM", "r", "distance in front", e.distanceM, "m"),
          symbol("limit", "S", "limit, whole body, general public", e.limitWm2, "W/m2"),
          symbol("nearW", "4 P / A", "highest flux near the antenna", e.nearFieldWm2, "W/m2"),
          symbol("eirpDbm", "EIRP", "power and gain", e.eirpDbm, "dBm"),
        ],
        "ICNIRP 2020 Table 5",
      ),
    );
  }
  return out;
};

/** Reflection and clearance of the whole link. */
export const explainPath = (r: LinkResult): Explanation[] => {
  const out: Explanation[] = [];
  const w = r.clearance.worst;
  if (w !== null) {
    out.push(
      row(
        "clearance",
        "The nearest place leaves {share} of F1 ({f1M} there) where {asked} is asked for with k {kFactor}.",
        "c = sqrt((|TP| + |PR| - |TR|) / (lambda / 2))",
        [
          symbol("share", "c", "share of F1", w.share, ""),
          symbol("f1M", "F1", "radius of the first zone", w.f1M, "m"),
          symbol("asked", "c asked", "share asked for by the policy", w.policyShare, ""),
          symbol("kFactor", "k", "effective earth factor", w.kFactor, ""),
          symbol("missM", "short", "lacking; negative is to spare", w.missM, "m"),
        ],
        r.clearance.conditions.length > 1 ? "P.530-17 §2.2.2.1" : "P.526-15 §2.1; the share in three dimensions is ours",
        r.clearance.conditions.length === 1,
      ),
    );
  }
  const o = r.opinions;
  if (o !== null) {
    out.push(
      row(
        "edges",
        `The straight line passes {heightM} under the top at {atM}. As one knife edge it would cost {edgeDb} ({edgeExactDb} exactly)${o.roundedDb === null ? "" : ", as a rounded hill {roundedDb}"}${o.twoEdgesDb === null ? "" : ", with the next edge {twoEdgesDb}"}. The whole profile decides; these are second opinions.`,
        "J(v); J(v) + T(m, n); two edges",
        [
          symbol("heightM", "h", "height of the top above the straight line", o.heightM, "m"),
          symbol("atM", "d1", "place of the main edge from the near end", o.atM, "m"),
          symbol("edgeDb", "J", "one edge, approximation", o.edgeDb, "dB"),
          symbol("edgeExactDb", "J exact", "one edge, Fresnel integrals", o.edgeExactDb, "dB"),
          ...(o.roundedDb === null || o.radiusM === null
            ? []
            : [
                symbol("roundedDb", "A", "rounded hill", o.roundedDb, "dB"),
                symbol("radiusM", "R", "radius fitted to the top", o.radiusM, "m"),
              ]),
          ...(o.twoEdgesDb === null ? [] : [symbol("twoEdgesDb", "L", "two edges", o.twoEdgesDb, "dB")]),
        ],
        "P.526-15 §4.1 to §4.3",
      ),
    );
  }
  if (r.reflection !== null) {
    const f = r.reflection;
    out.push(
      row(
        "reflection",
        "A second ray off the water at {atM} is {size} of the direct one: over tide and heights the level moves from {lowDb} to {highDb}, at worst {worstDb}. It widens the band and does not move the median.",
        "20 log10|1 + D rho Gamma g1 g2 exp(-j 2 pi delta / lambda)|",
        [
          symbol("atM", "d1", "place of the reflection from the near end", f.atM, "m"),
          symbol("size", "|r|", "size against the direct ray", f.size, ""),
          symbol("grazing", "psi", "grazing angle", f.grazingDeg, "deg"),
          symbol("lowDb", "p10", "10th of 100", f.lowDb, "dB"),
          symbol("highDb", "p90", "90th of 100", f.highDb, "dB"),
          symbol("worstDb", "worst", "weakest over the tide", f.worstDb, "dB"),
        ],
        "P.526-15 §3.2, P.527-6, two rays",
        true,
      ),
    );
  }
  return out;
};

const DIGITS: Readonly<Record<ExplainedUnit, number>> = {
  m: 1,
  km: 2,
  MHz: 0,
  GHz: 3,
  dB: 1,
  dBm: 1,
  dBi: 1,
  "dB/km": 3,
  deg: 1,
  C: 0,
  hPa: 0,
  "g/m3": 1,
  Mbps: 0,
  us: 0,
  percent: 3,
  minutes: 0,
  "W/m2": 2,
  "mm/h": 0,
  "": 2,
};
const UNIT_WORDS: Readonly<Partial<Record<ExplainedUnit, string>>> = {
  deg: "°",
  C: "°C",
  "g/m3": "g/m³",
  us: "µs",
  percent: "%",
  minutes: "minutes",
  "W/m2": "W/m²",
};

/** Shares of the year want three digits below 1 %, none above. */
const percentDigits = (value: number): number => (value === 0 || value >= 10 ? 0 : value >= 1 ? 1 : 3);

/** One symbol's value with its unit, metric. */
export const symbolText = (s: ExplainedSymbol): string => {
  if (typeof s.value === "string") return s.value;
  const digits = s.unit === "" && Number.isInteger(s.value) ? 0 : s.unit === "percent" ? percentDigits(s.value) : DIGITS[s.unit];
  const unit = UNIT_WORDS[s.unit] ?? s.unit;
  const figure = s.value.toFixed(digits);
  return unit === "" ? figure : unit === "°" ? `${figure}°` : `${figure} ${unit}`;
};

/** The sentence with its symbols filled in. @param show how to write a symbol; metric when left out. */
export const explanationText = (e: Explanation, show: (s: ExplainedSymbol) => string = symbolText): string =>
  e.sentence.replace(/\{(\w+)\}/g, (whole, key: string) => {
    const found = e.symbols.find((s) => s.key === key);
    return found === undefined ? whole : show(found);
  });
