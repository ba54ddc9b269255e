import type { Finding, FindingCode, FindingValues, LinkResult, Mend, PlaceValues } from "@/core/link";
import {
  alongText,
  chanceText,
  dbmText,
  dbText,
  decisive,
  distanceText,
  figure,
  lengthText,
  mbpsText,
  shareText,
  type Units,
  waitText,
} from "./numbers";

const KIND_WORD: Readonly<Record<PlaceValues["kind"], string>> = {
  ground: "ground",
  line: "overhead line",
  crane: "crane",
  vehicle: "vehicle",
  building: "building",
  wall: "wall",
  mast: "mast",
  wood: "wood",
  row: "row of trees",
  crown: "tree",
  hedge: "hedge",
};

const owner = (v: { readonly kind: PlaceValues["kind"]; readonly name: string | null }): string => {
  if (v.kind === "ground") return v.name === null ? "The ground" : `The ground at ${v.name}`;
  if (v.name === null || v.name === "") return `A ${KIND_WORD[v.kind]}`;
  return /^[a-z]/.test(v.name) ? `A ${v.name}` : v.name;
};

/** In whose words and from which end. */
interface Teller {
  readonly units: Units;
  readonly nearName: string;
}

const at = (m: number, { units, nearName }: Teller): string => `${alongText(units, m)} from ${nearName}`;
/** Past a side it is said that it stands beside, and how far. */
const beside = (v: PlaceValues, units: Units): string => {
  if (v.side === "left" || v.side === "right") return ` beside the ray on the ${v.side}`;
  if (v.side === "over" && Math.abs(v.acrossM) >= 0.3)
    return ` (its nearest point ${lengthText(units, Math.abs(v.acrossM))} to the ${v.acrossM < 0 ? "left" : "right"})`;
  return "";
};

type HotCode = "overloaded" | "damaging" | "too-strong";
const tooHot = (v: FindingValues[HotCode]): string =>
  v.reachable
    ? ""
    : ` Even the lowest setting is ${v.tooHotMildDb > 0.5 ? `${figure(v.tooHotMildDb)} to ` : ""}${figure(v.tooHotDb)} dB too hot for ${v.densest}: use a smaller antenna or another band.`;

const overloadedText = (v: FindingValues[HotCode]): string =>
  `Far too strong: *${dbmText(v.levelDbm)}* where the receiver works up to ${dbmText(v.maxDbm)}. It would be overloaded.${tooHot(v)}`;

const narrowest = (v: FindingValues["too-slow"]): string => {
  switch (v.narrowest) {
    case "no rung":
      return v.neededMarginDb === null
        ? `no modulation is known to hold for ${shareText(v.yearPercent)} of the year`
        : `no modulation keeps the ${dbText(v.neededMarginDb, 0)} of margin that ${shareText(v.yearPercent)} of the year asks for`;
    case "air":
      return `the needs take *${figure(v.usedShare * 100)} %* of the airtime that may be planned`;
    case "port to far":
    case "port to near":
      return `the Ethernet port passes *${mbpsText(v.portMbps)}*, each way alone`;
  }
};
const ways = (far: number, near: number): string => `${mbpsText(far)} to the far end and ${mbpsText(near)} back`;

const WORDS: { readonly [K in FindingCode]: (v: FindingValues[K], t: Teller) => string } = {
  short: (v, t) =>
    `${owner(v)} stands *${lengthText(t.units, v.missM)}* ${v.policyShare === 0 ? "into the line of sight" : "into the zone"}${beside(v, t.units)}, ${at(v.atM, t)}. Clear in ${v.probability === null ? "an unknown share of cases" : chanceText(v.probability)}.`,
  "blocked-no-height": (v, t) =>
    `${owner(v)} stands *${lengthText(t.units, v.missM, 0)}* into the zone, ${at(v.atM, t)}. No raise up to ${lengthText(t.units, v.limitM, 0)} at either end clears it: look for a relay or another path.`,
  unsure: (v, t) => {
    const what =
      v.bySigma === "position"
        ? "Where the ends stand"
        : v.bySigma === "ground"
          ? "The height of the ground there"
          : `The height of ${v.kind === "ground" ? "the ground" : owner(v)}`;
    return `${what} decides: ${v.missM > 0 ? `${lengthText(t.units, v.missM)} into the zone` : `${lengthText(t.units, -v.missM)} to spare`}, give or take ${lengthText(t.units, v.sigmaM ?? 0)}, ${at(v.atM, t)}. Measure it.`;
  },
  "little-spare": (v, t) =>
    `${owner(v)} leaves *${lengthText(t.units, -v.missM)}* to spare${beside(v, t.units)}, ${at(v.atM, t)}: clear in ${chanceText(v.probability ?? 0)}, fewer than the 90 wanted.${v.bySigma === "position" ? " Where the ends stand decides: take their positions off a map." : ""}`,
  clear: (v, t) =>
    `${owner(v)} comes nearest${beside(v, t.units)} and leaves *${lengthText(t.units, -v.missM)}* to spare, ${at(v.atM, t)}.${v.untilYear === null ? "" : ` What grows leaves it clear until ${v.untilYear}.`}`,
  grows: (v, t) =>
    `${owner({ kind: "row", name: v.name })} grows ${lengthText(t.units, v.growthM)} a year: the clearance is lost in *${v.year}*.`,
  "ground-unknown": (v, t) =>
    `The height of the ground is not known for ${distanceText(t.units, v.unknownM)} of this path. Bring in a terrain file that covers it.`,
  "beyond-structure": (v, t) =>
    `${v.name}: a mount at *${lengthText(t.units, v.mountM)}* is above what the structure is said to carry, ${lengthText(t.units, v.maxM)}. Have a qualified person check it, or trim or move instead.`,
  "mount-on-ground": (v, t) =>
    `${v.name}: a mount at *${lengthText(t.units, v.mountM, 2)}* lies on the ground; what the zone does there is outside what is known. Type its height above ground.`,
  "base-fitted": (v, t) =>
    `The ground under ${v.name === "" ? "it" : v.name} is fitted to the surface model about it, ± ${lengthText(t.units, v.sigmaM)}: a bare-earth file would tell it.`,
  "long-lever": (v, t) =>
    `The worst place lies ${alongText(t.units, v.atM)} along, so near ${v.name} that only that end's height tells: a metre there is ${figure(v.lever)} at the other end.`,
  overloaded: overloadedText,
  damaging: (v) => `${overloadedText(v)} This can destroy the receiver, also on the bench.`,
  "too-strong": (v) =>
    `Too strong by *${dbText(v.overDb, v.overDb < 1 ? 1 : 0)}*: ${dbmText(v.levelDbm)} where at most ${dbmText(v.ceilingDbm)} is planned.${v.reachable ? "" : ` The lowest setting stays ${figure(v.tooHotDb)} dB too hot for ${v.densest}; a smaller antenna would be right.`}`,
  "too-weak": (v) =>
    `Too weak: *${dbmText(v.levelDbm)}* where the slowest modulation needs ${dbmText(v.needsDbm)}: ${dbText(v.lacksDb, v.lacksDb < 1 ? 1 : 0)} lack.`,
  "thin-margin": (v) =>
    `Only *${decisive(v.marginDb, v.wantedDb)} dB* of margin where ${figure(v.wantedDb)} dB is wanted: fading will slow or break it.`,
  "too-slow": (v) =>
    `Too slow: ${narrowest(v)}. Asked: ${ways(v.needToFarMbps, v.needToNearMbps)}${v.narrowest === "air" ? `; planned at most ${mbpsText(v.plannedToFarMbps)} or ${mbpsText(v.plannedToNearMbps)}, one way at a time` : ""}.`,
  "not-sure-to-serve": (v) =>
    `The need is kept *${chanceText(v.chance)}*, fewer than the 90 wanted: as planned ${figure(v.multiple, 2)} times it for ${shareText(v.yearPercent)} of the year, but level and rain are not known so well.`,
  "no-need": () => "No required rate is set, so the rate cannot be judged. Type one for each direction under Gear, or in the brief.",
  "over-rule": (v) =>
    `${v.name} is set to ${dbmText(v.setDbm, Number.isInteger(v.setDbm) ? 0 : 1)}: *${dbText(v.overDb, v.overDb < 1 ? 1 : 0)} above* what the rules allow here, ${dbmText(v.limitDbm, 1)} by the ${v.cutBy} of the ${v.domain} rules (${v.source}).${v.moreDbm === null ? "" : ` With a permission up to ${dbmText(v.moreDbm, 1)}: ${v.morePermission}.`} Check the local regulator.`,
  "rule-below-radio": (v) =>
    `The rules allow ${dbmText(v.limitDbm, 1)} at ${v.name}; ${v.radio} cannot go below ${dbmText(v.minDbm)}. This radio may not be used here with this antenna.`,
  "rule-forbids": (v) => {
    const source = v.source === null ? "" : ` (${v.source})`;
    switch (v.reason) {
      case "gain-too-low":
        return `The ${v.domain} rules ask for an antenna of at least ${figure(v.minGainDbi ?? 0)} dBi on this channel${source}.`;
      case "beam-too-wide":
        return `The ${v.domain} rules ask for a narrower beam on this channel${source}.`;
      case "indoor-only":
        return `The ${v.domain} rules do not allow this channel out of doors${source}. Choose another.`;
      case "no-rule":
        return `The ${v.domain} rule set has no row for this use of the channel. Choose another, and check the local regulator.`;
    }
  },
  permission: (v) =>
    `This band needs a permission before it may be used: ${v.permission} (${v.source}). The design stops until it is recorded.`,
  "permission-ended": (v) =>
    `The permission ${v.number} *ended on ${v.until}*: ${v.permission} (${v.source}). The design stops until a new one is recorded.`,
  "permission-not-yet": (v) => `The permission ${v.number} holds only from *${v.from}* (${v.source}). The design stops until then.`,
  "permission-ends": (v) => `The permission ${v.number} ends on *${v.until}*, in ${figure(v.days)} days. Renew it before.`,
  radar: (v) =>
    `Radar shares this channel: the radio listens ${waitText(v.waitS)} before it sends, and leaves at once for ${figure(v.awayMin)} minutes when it hears one (${v.source}).`,
  "wind-twist": (v) =>
    v.twistDeg === null
      ? `${v.name} stands on a tree: it sways, and nothing on it stays pointed. Find a wall or a stiff pole.`
      : `${v.name} stands on a ${v.stands}, which wind turns by about *${figure(v.twistDeg, 1)}°*: too much for a beam of *${figure(v.beamDeg ?? 0, 1)}°*. A wider beam or a stiffer mount is needed.`,
  "radar-missing": (v) => `${v.radio} has no radar detection; this channel asks for it (${v.source}).`,
  "pairing-family": (v) => `These radios do not talk to each other: one is of the family ${v.near}, the other ${v.far}.`,
  "pairing-standard": (v) => `These radios speak different standards: ${v.near} and ${v.far}.`,
  "pairing-pair-only": (v) => `${v.radio} works only with its own kind at the other end.`,
  "pairing-roles": (v) => `${v.near} and ${v.far} cannot be the two ends of one link: one must lead and the other follow.`,
  "pairing-band": (v) => `${v.radio} does not cover a channel ${figure(v.widthMhz)} MHz wide at ${figure(v.centreMhz)} MHz.`,
  "pairing-width": (v) => `${v.radio} has no ${figure(v.widthMhz)} MHz channel; it has ${v.allowedMhz.join(", ")} MHz.`,
  "pairing-antenna-missing": (v) => `${v.radio} has no antenna of its own; choose one.`,
  "pairing-antenna-band": (v) => `${v.antenna} does not cover ${figure(v.centreMhz)} MHz.`,
  "radio-distance": () => "A distance shown by the radio is not a distance this short; trust the coordinates.",
  "beyond-radio-range": (v) => `The path is longer than the ${figure(v.longestKm, 1)} km these radios are made for.`,
  "near-field": (v, t) =>
    `Nearer than the far field (${alongText(t.units, v.farFieldM)}): the gains are then less than the data sheets say.`,
  "profile-thinned": () => "The profile was thinned to 4,096 points; every peak was kept.",
  exposure: (v, t) =>
    `Nobody stays nearer than *${lengthText(t.units, v.distanceM)}* in front of the antenna at ${v.name} while it sends (ICNIRP 2020, public). Follow the maker's sheet and local rules.`,
  "leaves-too-deep": (v, t) => `The leaves are ${lengthText(t.units, v.depthM, 0)} deep: beyond the 400 m their loss was fitted to.`,
  "through-refused": (v) =>
    `Planning *through* trees is refused at ${figure(v.frequencyGhz, 1)} GHz: leaves in wind move the level by tens of dB. Trees are judged as strict here.`,
  "multipath-out-of-range": () =>
    "Path length and frequency lie outside what the clear-air fading model was made for; that share of the availability is an extrapolation.",
  reflection: (v, t) =>
    `The water throws a second ray into the far antenna, ${at(v.atM, t)}: in one case of ten tide, air and the heights (known to ${lengthText(t.units, v.heightSigmaM)}) take *${dbText(-v.lowDb, 0)}*. Measure the mounts above the water; another height, or a spot that hides it, mends it.`,
  "barrier-unknown": (v) =>
    `Nothing is known of the wall before ${v.name}: the level cannot be told. *Measure it*: read the same radio outside and inside.`,
  "barrier-by-table": (v) =>
    `The loss of ${v.material.replace("-", " ")} before ${v.name} is a range off a table. Measure it before buying.`,
  "out-of-beam": (v) => {
    const off = [
      ...(Math.abs(v.azimuthOffDeg) >= 0.05
        ? [`${figure(Math.abs(v.azimuthOffDeg), 1)}° to the ${v.azimuthOffDeg < 0 ? "left" : "right"}`]
        : []),
      ...(Math.abs(v.elevationOffDeg) >= 0.05
        ? [`${figure(Math.abs(v.elevationOffDeg), 1)}° ${v.elevationOffDeg < 0 ? "below" : "above"}`]
        : []),
    ];
    return `${v.name} points past the other end and loses *${dbText(v.lossDb)}*: the far end lies ${off.join(" and ")} of its axis. Turn or tilt it, or serve this end from elsewhere.`;
  },
  "beamwidth-derived": (v) => `The sheet of ${v.antenna} states no beamwidth; ${figure(v.widthDeg)}° is derived from its gain.`,
  "elevation-mask": (v) =>
    `${v.name} sends ${dbmText(v.eirpDbm)} EIRP above ${figure(v.aboveDeg)}° of elevation where the rules allow ${dbmText(v.limitDbm)}. Lower the power or the tilt.`,
  "power-control": (v) =>
    `Above ${dbmText(v.aboveDbm)} EIRP the rules ask for automatic power control; this design sends ${dbmText(v.eirpDbm)}. Check that the radios have it switched on.`,
  "leaves-out-of-range": () => "Leaves move the level by tens of dB at this frequency: a mean through trees is not planned with.",
  "rain-out-of-range": () => "The path is longer than the rain model holds for; the availability is an extrapolation.",
};

/** The sentence of a finding, in the units asked for; the words between two asterisks are set strong. */
export const findingText = (f: Pick<Finding, "code" | "values">, units: Units, nearName: string): string =>
  (WORDS[f.code] as (v: Finding["values"], t: Teller) => string)(f.values, { units, nearName });

/** What a design that is only looked at would come to, for its ghost on the drawing. */
export const mendWordsOf = (r: LinkResult, units: Units): string => {
  const w = r.clearance.worst;
  const level = r.service.toFar === null ? "" : `, ${dbmText(r.service.toFar.levelDbm)}`;
  return w === null
    ? "nothing near"
    : `${w.missM > 0.0005 ? `${lengthText(units, w.missM)} short` : `${lengthText(units, -w.missM)} to spare`}${level}`;
};

/** Words and amount of a mend. */
export const mendText = (m: Mend, units: Units): { words: string; amount: string } => {
  const said = mendWords(m, units);
  // What is not enough says what it brings of what lacks.
  return m.brings === null ? said : { words: said.words, amount: `+${figure(m.brings.db)} of the ${figure(m.brings.ofDb)} dB that lack` };
};

/** What something is called, where anybody gave it a name. */
const named = (name: string | null, otherwise: string): string => (name === null || name === "" ? otherwise : name);

const mendWords = (m: Mend, units: Units): { words: string; amount: string } => {
  const until = m.lastYear === null ? "" : `, met until ${m.lastYear}`;
  const today = m.amountToday === null ? "" : ` (today ${lengthText(units, m.amountToday)})`;
  switch (m.code) {
    case "trim":
      return { words: `Plan a trim of ${named(m.name, "the tree")} to ${lengthText(units, m.amount)}${until}`, amount: today.trim() };
    case "trim-several":
      return { words: `Plan a trim of ${figure(m.amount)} trees${until}`, amount: "" };
    case "see-heights":
      return { words: "See all heights that work", amount: "" };
    case "see-water":
      return { words: "See the heights that avoid a null", amount: "" };
    case "look-elsewhere":
      return { words: "Look for a relay or another spot", amount: "" };
    case "lower-near":
    case "lower-far": {
      const height = m.action?.type === "mount" ? m.action.mountAglM : 0;
      return { words: `Lower ${m.name} to ${lengthText(units, height)}, beneath it`, amount: `\u2212${lengthText(units, m.amount)}` };
    }
    case "raise-near":
    case "raise-far": {
      const to = m.action?.type === "mount" ? ` to ${lengthText(units, m.action.mountAglM)}` : "";
      return { words: `Raise ${m.name}${to}${until}`, amount: `+${lengthText(units, m.amount)}${today}` };
    }
    case "raise-both":
      return { words: `Raise both ends${until}`, amount: `+${lengthText(units, m.amount)}${today}` };
    case "lower-power":
      return { words: "Lower both powers", amount: dbmText(m.amount) };
    case "aim-true":
      return { words: `Point ${named(m.name, "it")} at the other end`, amount: "" };
    case "see-gear":
      return { words: "Choose other gear", amount: "" };
    case "legal-power":
      return { words: "Set the power the rules allow", amount: dbmText(m.amount, Number.isInteger(m.amount) ? 0 : 1) };
    case "raise-power":
      return { words: "Raise both powers", amount: dbmText(m.amount) };
    case "width":
      return { words: `Set the width to ${figure(m.amount)} MHz`, amount: "" };
    case "power-and-width":
      return { words: `Raise both powers and set ${figure(m.amount)} MHz`, amount: "" };
    case "record-permission":
      return { words: "Record the permission", amount: "" };
  }
};
