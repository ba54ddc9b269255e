/* Limits that a person switches on: what each has against a candidate, with the figure that decides. */
import { type ConnectorPlace, poweredPort } from "../radio";
import { typeKeyOf } from "./one-type";
import type { Candidate, ChannelOption, LimitCode, RackLimits, Refusal, Unit, UnitPair } from "./types";
import { priceOf, stockOf } from "./units";

type LimitRefusal = Extract<Refusal, { code: LimitCode }>;
type Against = Pick<LimitRefusal, "figure" | "limit" | "end">;

/** A source feeds what asks for less than it gives by the same standard: IEEE 802.3-2018 clauses 33 and 145. */
const ALSO_FEEDS: Readonly<Record<string, readonly string[]>> = {
  "802.3at": ["802.3af"],
  "802.3bt": ["802.3at", "802.3af"],
};
const feeds = (supplies: readonly string[], kinds: readonly string[]): boolean =>
  supplies.some((s) => kinds.includes(s) || (ALSO_FEEDS[s] ?? []).some((k) => kinds.includes(k)));

const ends = (pair: UnitPair, limits: RackLimits) =>
  [
    { end: "near", unit: pair.near, limits: limits.near },
    { end: "far", unit: pair.far, limits: limits.far },
  ] as const;

const portOf = ({ radio }: Unit): number => radio.ethernetPorts[poweredPort(radio)]?.speedMbps ?? 0;

/** What stands at both ends as planned. */
export type PlannedUnits = Pick<UnitPair, "near" | "far">;

type Test = (
  c: Pick<Candidate, "pair" | "band">,
  limits: RackLimits,
  option: ChannelOption | null,
  planned: PlannedUnits,
) => Against | null;

/** Of both ends the first that is refused. */
const eitherEnd =
  (test: (unit: Unit, end: RackLimits["near"], limits: RackLimits) => Omit<Against, "end"> | null): Test =>
  ({ pair }, limits) => {
    for (const { end, unit, limits: own } of ends(pair, limits)) {
      const against = test(unit, own, limits);
      if (against !== null) return { ...against, end };
    }
    return null;
  };

/** The bracket that the face hangs on, by name; undefined where no sheet says. */
const bracketOf = ({ radio, antenna }: Unit): string | undefined => (antenna ?? radio).bracket?.trim().toLowerCase();

/** How a unit is not a like one in place of another; null when it is. What no sheet says is not held against it. */
const unlikeness = (unit: Unit, was: Unit): string | null => {
  if (unit.key === was.key) return null;
  const [bracket, there] = [bracketOf(unit), bracketOf(was)];
  if (bracket !== undefined && there !== undefined && bracket !== there) return `bracket ${(unit.antenna ?? unit.radio).bracket}`;
  const [straps, had] = [unit.poleMm, was.poleMm];
  // Which pole of those that the old clamp holds is there, nobody said: the new one must hold all of them.
  if (straps !== null && had !== null && (straps.low > had.low || straps.high < had.high))
    return `straps ${straps.low} to ${straps.high} mm`;
  const [kinds, given] = [unit.radio.powerKinds, was.radio.powerKinds];
  if (kinds !== undefined && given !== undefined && !feeds(given, kinds)) return `supply ${kinds.join(" or ")}`;
  const connector = (u: Unit): string =>
    u.radio.antenna.kind === "connectorised" ? (u.radio.antenna.connector ?? "connectors") : "no connector";
  if (connector(unit) !== connector(was)) return connector(unit);
  // The leads that are there must reach: the cable into the radio, the jumpers into the antenna.
  for (const part of ["radio", "antenna"] as const) {
    const [place, before] = [unit[part]?.connectorPlace, was[part]?.connectorPlace];
    if (place !== undefined && before !== undefined && place !== before)
      return `${part === "radio" ? "port" : "connector"} ${PLACED[place]}`;
  }
  return null;
};
const PLACED: Readonly<Record<ConnectorPlace, string>> = {
  below: "below",
  behind: "behind it",
  above: "above",
  side: "at its side",
};

/** What no sheet says is not held against a unit. */
const TESTS: Readonly<Record<LimitCode, Test>> = {
  band: ({ band }, { bands }) => (bands === null || bands.includes(band) ? null : { figure: band, limit: bands.join(", "), end: null }),
  unlike: ({ pair }, { alike, keep }) =>
    !alike || keep !== null || pair.near.key === pair.far.key ? null : { figure: null, limit: "", end: null },
  "kept-end": ({ pair }, { keep }, _option, planned) =>
    keep === null || pair[keep].key === planned[keep].key ? null : { figure: null, limit: planned[keep].name, end: keep },
  like: ({ pair }, { likeForLike }, _option, planned) => {
    if (!likeForLike) return null;
    for (const end of ["near", "far"] as const) {
      const unlike = unlikeness(pair[end], planned[end]);
      if (unlike !== null) return { figure: unlike, limit: planned[end].name, end };
    }
    return null;
  },
  family: ({ pair }, { family }) =>
    family === null || pair.near.radio.family === family ? null : { figure: pair.near.radio.family, limit: family, end: null },
  "one-type": ({ pair }, { onlyType }) =>
    onlyType === null || typeKeyOf(pair) === onlyType ? null : { figure: null, limit: "", end: null },
  price: ({ pair }, { priceMost }) => {
    const price = priceOf(pair);
    return priceMost === null || price === null || price <= priceMost ? null : { figure: price, limit: priceMost, end: null };
  },
  face: eitherEnd((unit, { faceMostCm }) =>
    faceMostCm === null || unit.faceCm === null || unit.faceCm <= faceMostCm ? null : { figure: unit.faceCm, limit: faceMostCm },
  ),
  "port-speed": eitherEnd((unit, _own, { portLeastMbps }) =>
    portLeastMbps === null || portOf(unit) >= portLeastMbps ? null : { figure: portOf(unit), limit: portLeastMbps },
  ),
  radar: (_c, { noRadar }, option) => (noRadar && option?.radar === true ? { figure: option.centreMhz, limit: "", end: null } : null),
  stock: ({ pair }, { stockOnly }) => {
    const have = stockOf(pair);
    return !stockOnly || have >= 1 ? null : { figure: have, limit: 1, end: null };
  },
  pole: eitherEnd((unit, { poleMm }) =>
    poleMm === null || unit.poleMm === null || (poleMm >= unit.poleMm.low && poleMm <= unit.poleMm.high)
      ? null
      : { figure: `${unit.poleMm.low} to ${unit.poleMm.high}`, limit: poleMm },
  ),
  supply: eitherEnd((unit, { supplies }) =>
    supplies === null || unit.radio.powerKinds === undefined || feeds(supplies, unit.radio.powerKinds)
      ? null
      : { figure: unit.radio.powerKinds.join(" or "), limit: supplies.join(" or ") },
  ),
  cold: eitherEnd((unit, _own, { coldestC }) =>
    coldestC === null || unit.radio.temperatureC === undefined || unit.radio.temperatureC.low <= coldestC
      ? null
      : { figure: unit.radio.temperatureC.low, limit: coldestC },
  ),
  heat: eitherEnd((unit, _own, { hottestC }) =>
    hottestC === null || unit.radio.temperatureC === undefined || unit.radio.temperatureC.high >= hottestC
      ? null
      : { figure: unit.radio.temperatureC.high, limit: hottestC },
  ),
};

/** Limits that say what is looked at; what they leave out is not judged further. */
const SCOPE: readonly LimitCode[] = ["band", "unlike", "kept-end", "family", "one-type"];
export const isOutOfScope = (code: Refusal["code"]): boolean => (SCOPE as readonly string[]).includes(code);
const OTHERS: readonly LimitCode[] = ["stock", "like", "port-speed", "pole", "supply", "cold", "heat", "radar", "face", "price"];

const broken = (
  codes: readonly LimitCode[],
  c: Pick<Candidate, "pair" | "band">,
  limits: RackLimits,
  option: ChannelOption | null,
  planned: PlannedUnits,
): LimitRefusal[] =>
  codes.flatMap((code) => {
    const against = TESTS[code](c, limits, option, planned);
    return against === null ? [] : [{ code, ...against }];
  });

export const outOfScope = (c: Pick<Candidate, "pair" | "band">, limits: RackLimits, planned: PlannedUnits): LimitRefusal[] =>
  broken(SCOPE, c, limits, null, planned);
export const brokenLimits = (
  c: Pick<Candidate, "pair" | "band">,
  limits: RackLimits,
  option: ChannelOption | null,
  planned: PlannedUnits,
): LimitRefusal[] => broken(OTHERS, c, limits, option, planned);
