/* A remote's link as it would be with another unit on the mast, another at its own end, or another mount. */
import { type AntennaShape, isSteered, type Pattern, patternOf } from "../antenna";
import { AIMED, type EndPlan, type LinkPlan, type PathProfile, type PathState, type PreparedPath, pathStateOf, preparePath } from "../link";
import type { Unit } from "../rack";
import { channelFits, type Radio, usesOf } from "../radio";
import type { SectorAim } from "./beam";
import type { HubRemote } from "./hub";

/** A remote with its path, so that it can be tried on other channels and from other heights. */
export interface TriedRemote extends Omit<HubRemote, "state"> {
  readonly profile: PathProfile;
}

export const shapeOfUnit = ({ radio, antenna }: Pick<Unit, "radio" | "antenna">): AntennaShape | null => {
  const shape = radio.antenna.kind === "connectorised" ? antenna : radio.antenna;
  return shape?.gainDbi === undefined ? null : (shape as AntennaShape);
};

/** Looks wherever it is asked to: the array turns its beam to each remote. */
const STEERED: Pick<Pattern, "relativeDb" | "envelopeDb" | "kind"> = { relativeDb: () => 0, envelopeDb: () => 0, kind: "measured cuts" };

/** Null for a unit whose antenna no sheet describes. */
export const patternOfUnit = (unit: Pick<Unit, "radio" | "antenna">, centreMhz: number): Pattern | null => {
  const shape = shapeOfUnit(unit);
  if (shape === null) return null;
  const made = patternOf(shape, centreMhz / 1000);
  return isSteered(shape.form) ? { ...made, ...STEERED } : made;
};

const gainOf = (radio: Radio, antenna: Unit["antenna"]): number => shapeOfUnit({ radio, antenna })?.gainDbi ?? 0;
const powerRange = ({ modulations, minTxPowerDbm }: Radio): readonly [number, number] => [
  minTxPowerDbm,
  Math.max(...modulations.map((m) => m.maxTxPowerDbm)),
];

/** The power that leaves what is radiated as it was, as far as the radio's sheet lets it; of another family the highest (ours). */
const powerLike = (was: EndPlan, unit: Pick<Unit, "radio" | "antenna">): number => {
  const [least, most] = powerRange(unit.radio);
  if (unit.radio.family !== was.radio.family) return most;
  const wanted = was.txPowerDbm + gainOf(was.radio, was.antenna) - gainOf(unit.radio, unit.antenna);
  return Math.min(most, Math.max(least, Math.round(wanted * 2) / 2));
};

/** Where two radios can meet: the planned channel, else the middle of the first band that holds their widest common channel. */
const channelFor = (plan: LinkPlan, a: Radio, b: Radio): { readonly centreMhz: number; readonly widthMhz: number } => {
  const fits = (r: Radio, centreMhz: number, widthMhz: number): boolean =>
    r.channelWidthsMhz.includes(widthMhz) && channelFits(r.bandsMhz, centreMhz, widthMhz);
  if (fits(a, plan.centreMhz, plan.widthMhz) && fits(b, plan.centreMhz, plan.widthMhz)) return plan;
  const widths = a.channelWidthsMhz.filter((w) => b.channelWidthsMhz.includes(w)).sort((x, y) => x - y);
  for (const widthMhz of widths)
    for (const band of a.bandsMhz) {
      const centreMhz = Math.round(Math.min(band.low + widthMhz * 1.5, (band.low + band.high) / 2));
      if (fits(a, centreMhz, widthMhz) && fits(b, centreMhz, widthMhz)) return { centreMhz, widthMhz };
    }
  return plan;
};

export interface Under {
  /** On the mast; null keeps the planned one. */
  readonly hub: Pick<Unit, "radio" | "antenna"> | null;
  /** At the remote; null keeps its own. */
  readonly remote: Pick<Unit, "radio" | "antenna"> | null;
  /** Null looks at the remote itself. */
  readonly aim: SectorAim | null;
  readonly mountAglM?: number;
}

/** The plan of a remote's link under other units, another aim, another mount. */
export const planUnder = (r: Pick<HubRemote, "plan" | "hubIsNear">, u: Under): LinkPlan => {
  const { plan } = r;
  const [hubEnd, ownEnd] = r.hubIsNear ? [plan.near, plan.far] : [plan.far, plan.near];
  const other = (was: EndPlan, unit: Under["hub"]): EndPlan =>
    unit === null ? was : { ...was, radio: unit.radio, antenna: unit.antenna, portIndex: null, txPowerDbm: powerLike(was, unit) };
  const hub: EndPlan = {
    ...other(hubEnd, u.hub),
    aim: u.aim ?? AIMED,
    ...(u.mountAglM === undefined ? {} : { mountAglM: u.mountAglM }),
  };
  const own = other(ownEnd, u.remote);
  const [near, far] = r.hubIsNear ? [hub, own] : [own, hub];
  const [nearUse, farUse] = usesOf(near.radio, far.radio);
  return { ...plan, ...channelFor(plan, near.radio, far.radio), near: { ...near, use: nearUse }, far: { ...far, use: farUse } };
};

/** Keeps what was made ready of a path: it is the same for every unit on one channel from one height. */
export const pathKeeper = (): ((r: TriedRemote, plan: LinkPlan) => PathState) => {
  const paths = new Map<string, PreparedPath>();
  const states = new Map<string, PathState>();
  return (r, plan) => {
    const at = `${r.linkId}|${plan.centreMhz}`;
    let path = paths.get(at);
    if (path === undefined) {
      path = preparePath(plan, r.profile);
      paths.set(at, path);
    }
    const key = `${at}|${plan.near.mountAglM}|${plan.far.mountAglM}`;
    let state = states.get(key);
    if (state === undefined) {
      state = pathStateOf(plan, path, false);
      states.set(key, state);
    }
    return state;
  };
};
