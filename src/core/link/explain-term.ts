import type { ExplainedSymbol, ExplainedUnit, Explanation } from "./explanation";
import type { LevelTerm } from "./types";

type Row = readonly [key: string, symbol: string, meaning: string, unit: ExplainedUnit];

const fromInputs = (t: Pick<LevelTerm, "inputs">, rows: readonly Row[]): ExplainedSymbol[] =>
  rows.flatMap(([key, symbol, meaning, unit]) => {
    const value = t.inputs[key];
    return value === undefined ? [] : [{ key, symbol, meaning, value, unit }];
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
      : Number(t.inputs.twistDeg ?? 0) > 0
        ? "The antenna's axis is off the other end, {bearingDeg} and {tiltDeg} up from here, by its aim and the {twistDeg} that wind turns what it stands on."
        : "The antenna's axis does not point at the other end, {bearingDeg} and {tiltDeg} up from here.",
  formula: "G(az, el) - G(0, 0)",
  rows: [
    ["bearingDeg", "az", "true bearing of the other end", "deg"],
    ["tiltDeg", "el", "elevation of the other end", "deg"],
    ["twistDeg", "w", "turn of the structure in wind", "deg"],
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
          : "{over} as one screen (v {v} over its top, {leftV} and {rightV} at its sides: {edgeDb}) over the rest ({restDb}); the whole profile at once would give {wholeDb}.",
    formula: "L_bulla + max(L_sph - L_bulls, 0); with bodies min(L_all, S + L_rest), S past its top and both sides",
    rows: [
      ["frequencyGhz", "f", "channel centre", "GHz"],
      ["kFactor", "k", "effective earth factor", ""],
      ["over", "edge", "the dominating obstacle", ""],
      ["v", "v", "its height in diffraction measure", ""],
      ["leftV", "v left", "its left side", ""],
      ["rightV", "v right", "its right side", ""],
      ["edgeDb", "S", "its loss as one screen", "dB"],
      ["spreadDb", "ways", "by how much the ways round it may add up or cancel", "dB"],
      ["restDb", "L_rest", "the same path without it", "dB"],
      ["wholeDb", "L_all", "all of the profile at once", "dB"],
      ["unknownGroundM", "unknown", "length of unknown ground", "m"],
    ],
  },
  beside: {
    sentence: (t) =>
      t.valueDb === 0
        ? "Nothing solid stands beside the ray."
        : "{over} cuts the zone from the side: {leftDb} left, {rightDb} right, as one screen over the rest.",
    formula: "J(v) past its top and both sides, powers averaged over 0.2 F1",
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
