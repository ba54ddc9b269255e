import type { Finding, LinkResult, Mend } from "@/core/link";
import { alongText, chanceText, dbmText, dbText, distanceText, figure, lengthText, mbpsText, type Units } from "./numbers";

export interface FindingWords {
  /** Plain sentences; the words between two asterisks are set strong. */
  readonly text: string;
}

const KIND_WORD: Readonly<Record<string, string>> = {
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

const owner = (v: Finding["values"]): string => {
  const kind = KIND_WORD[String(v.kind)] ?? "obstacle";
  if (v.kind === "ground") return v.name === null ? "The ground" : `The ground at ${v.name}`;
  if (v.name === null || v.name === "") return `A ${kind}`;
  const name = String(v.name);
  return /^[a-z]/.test(name) ? `A ${name}` : name;
};

const num = (value: number | string | null | undefined): number => Number(value ?? 0);

/** The sentence of a finding, in the units asked for. */
export const findingText = (f: Finding, units: Units, nearName: string): string => {
  const v = f.values;
  const at = `${alongText(units, num(v.atM))} from ${nearName}`;
  const side = v.side === "left" || v.side === "right" ? ` beside the ray on the ${v.side}` : "";
  switch (f.code) {
    case "short": {
      const into = num(v.policyShare) === 0 ? "into the line of sight" : "into the zone";
      return `${owner(v)} stands *${lengthText(units, num(v.missM))}* ${into}${side}, ${at}. Clear in ${v.probability === null ? "an unknown share of cases" : chanceText(num(v.probability))}.`;
    }
    case "blocked-no-height":
      return `${owner(v)} stands *${lengthText(units, num(v.missM), 0)}* into the zone, ${at}. No raise up to ${lengthText(units, num(v.limitM), 0)} at either end clears it: look for a relay or another path.`;
    case "unsure": {
      const what =
        v.bySigma === "ground" ? "The height of the ground there" : `The height of ${v.kind === "ground" ? "the ground" : owner(v)}`;
      const miss = num(v.missM);
      return `${what} decides: ${miss > 0 ? `${lengthText(units, miss)} into the zone` : `${lengthText(units, -miss)} to spare`}, give or take ${lengthText(units, num(v.sigmaM))}, ${at}. Measure it.`;
    }
    case "little-spare":
      return `${owner(v)} leaves *${lengthText(units, -num(v.missM))}* to spare${side}, ${at}: clear in ${chanceText(num(v.probability))}, fewer than the 90 wanted.`;
    case "clear":
      return `${owner(v)} comes nearest${side} and leaves *${lengthText(units, -num(v.missM))}* to spare, ${at}.${v.untilYear == null ? "" : ` What grows leaves it clear until ${v.untilYear}.`}`;
    case "grows":
      return `${owner({ ...v, kind: "row" })} grows ${lengthText(units, num(v.growthM))} a year: the clearance is lost in *${v.year}*.`;
    case "ground-unknown":
      return `The height of the ground is not known for ${distanceText(units, num(v.unknownM))} of this path. Bring in a terrain file that covers it.`;
    case "beyond-structure":
      return `${v.name}: a mount at *${lengthText(units, num(v.mountM))}* is above what the structure is said to carry, ${lengthText(units, num(v.maxM))}. Have a qualified person check it, or trim or move instead.`;
    case "overloaded":
    case "damaging": {
      const damage = f.code === "damaging" ? " This can destroy the receiver, also on the bench." : "";
      const reach =
        v.reachable === "no"
          ? ` Even the lowest setting is ${figure(Math.max(0, num(v.tooHotMildDb)))} to ${figure(num(v.tooHotDb))} dB too hot for ${v.densest}: use a smaller antenna or another band.`
          : "";
      return `Far too strong: *${dbmText(num(v.levelDbm))}* where the receiver works up to ${dbmText(num(v.maxDbm))}. It would be overloaded.${reach}${damage}`;
    }
    case "too-strong":
      return `Too strong by *${dbText(num(v.overDb), 0)}*: ${dbmText(num(v.levelDbm))} where at most ${dbmText(num(v.ceilingDbm))} is planned.${v.reachable === "no" ? ` The lowest setting stays ${figure(num(v.tooHotDb))} dB too hot for ${v.densest}; a smaller antenna would be right.` : ""}`;
    case "too-weak":
      return `Too weak: *${dbmText(num(v.levelDbm))}* where the slowest modulation needs ${dbmText(num(v.needsDbm))}.`;
    case "thin-margin":
      return `Only *${dbText(num(v.marginDb), 0)}* of margin where ${dbText(num(v.wantedDb), 0)} is wanted: fading will slow or break it.`;
    case "too-slow":
      return `Too slow: the needs take *${Number.isFinite(num(v.usedShare)) ? `${figure(num(v.usedShare) * 100)} %` : "more than all"}* of what may be planned (${mbpsText(num(v.plannedMbps))} one way).${v.capped === "port" ? " The Ethernet port is the narrowest place." : ""}`;
    case "no-need":
      return "No required rate is set, so the rate cannot be judged. Type one for each direction under Gear.";
    case "power-cut":
      return `Power is cut from ${dbmText(num(v.setDbm))} to *${dbmText(num(v.limitDbm), 1)}* by the ${v.cutBy} of the ${v.domain} rules (${v.source}). Check the local regulator.`;
    case "rule-below-radio":
      return `The rules allow ${dbmText(num(v.limitDbm), 1)}; ${v.radio} cannot go below ${dbmText(num(v.minDbm))}. This radio may not be used here with this antenna.`;
    case "rule-forbids":
      return v.reason === "gain-too-low"
        ? `The ${v.domain} rules ask for an antenna of at least ${figure(num(v.minGainDbi))} dBi on this channel (${v.source}).`
        : v.reason === "beam-too-wide"
          ? `The ${v.domain} rules ask for a narrower beam on this channel (${v.source}).`
          : v.reason === "indoor-only"
            ? `The ${v.domain} rules do not allow this channel out of doors${v.source === null ? "" : ` (${v.source})`}. Choose another.`
            : `The ${v.domain} rule set has no row for this channel. Choose another, and check the local regulator.`;
    case "permission":
      return `This band needs a permission before it may be used: ${v.permission} (${v.source}). The design stops until it is recorded.`;
    case "radar":
      return `Radar shares this channel: the radio listens a minute before it sends and may have to leave at once (${v.source}).`;
    case "radar-missing":
      return `${v.radio} has no radar detection; this channel asks for it (${v.source}).`;
    case "pairing-family":
      return `These radios do not talk to each other: one is of the family ${v.near}, the other ${v.far}.`;
    case "pairing-standard":
      return `These radios speak different standards: ${v.near} and ${v.far}.`;
    case "pairing-pair-only":
      return `${v.radio} works only with its own kind at the other end.`;
    case "pairing-roles":
      return `${v.near} and ${v.far} cannot be the two ends of one link: one must lead and the other follow.`;
    case "pairing-band":
      return `${v.radio} does not cover a channel ${figure(num(v.widthMhz))} MHz wide at ${figure(num(v.centreMhz))} MHz.`;
    case "pairing-width":
      return `${v.radio} has no ${figure(num(v.widthMhz))} MHz channel; it has ${v.allowedMhz} MHz.`;
    case "pairing-antenna-missing":
      return `${v.radio} has no antenna of its own; choose one.`;
    case "pairing-antenna-band":
      return `${v.antenna} does not cover ${figure(num(v.centreMhz))} MHz.`;
    case "radio-distance":
      return "A distance shown by the radio is not a distance this short; trust the coordinates.";
    case "beyond-radio-range":
      return `The path is longer than the ${figure(num(v.longestKm), 1)} km these radios are made for.`;
    case "near-field":
      return `Nearer than the far field (${alongText(units, num(v.farFieldM))}): the gains are then less than the data sheets say.`;
    case "profile-thinned":
      return "The profile was thinned to 4,096 points; every peak was kept.";
    case "exposure":
      return `Nobody stays nearer than *${lengthText(units, num(v.distanceM))}* in front of the antenna at ${v.name} while it sends (ICNIRP 2020, public). Follow the maker's sheet and local rules.`;
    case "leaves-too-deep":
      return `The leaves are ${lengthText(units, num(v.depthM), 0)} deep: beyond the 400 m their loss was fitted to.`;
    case "through-refused":
      return `Planning *through* trees is refused at ${figure(num(v.frequencyGhz), 1)} GHz: leaves in wind move the level by tens of dB. Trees are judged as strict here.`;
    case "multipath-out-of-range":
      return "Path length and frequency lie outside what the clear-air fading model was made for; that share of the availability is an extrapolation.";
    case "reflection":
      return `The water throws a second ray into the far antenna, ${alongText(units, num(v.atM))} from ${nearName}: in one case of ten tide, air and the heights (known to ${lengthText(units, num(v.heightSigmaM))}) take *${dbText(-num(v.lowDb), 0)}*. Measure the mounts above the water; another height, or a spot that hides it, mends it.`;
    case "barrier-unknown":
      return `Nothing is known of the wall before ${v.name}: the level cannot be told. *Measure it*: read the same radio outside and inside.`;
    case "barrier-by-table":
      return `The loss of ${String(v.material).replace("-", " ")} before ${v.name} is a range off a table. Measure it before buying.`;
    case "out-of-beam":
      return `${v.name} points past the other end and loses *${dbText(num(v.lossDb))}*: the far end lies ${figure(Math.abs(num(v.tiltDeg)), 1)}° ${num(v.tiltDeg) < 0 ? "down" : "up"} from it. Turn or tilt it, or serve this end from elsewhere.`;
    case "beamwidth-derived":
      return `The sheet of ${v.antenna} states no beamwidth; ${figure(num(v.widthDeg))}° is derived from its gain.`;
    case "elevation-mask":
      return `${v.name} sends ${dbmText(num(v.eirpDbm))} EIRP above ${figure(num(v.aboveDeg))}° of elevation where the rules allow ${dbmText(num(v.limitDbm))}. Lower the power or the tilt.`;
    case "power-control":
      return `Above ${dbmText(num(v.aboveDbm))} EIRP the rules ask for automatic power control; this design sends ${dbmText(num(v.eirpDbm))}. Check that the radios have it switched on.`;
    case "leaves-out-of-range":
      return "Leaves move the level by tens of dB at this frequency: a mean through trees is not planned with.";
    case "rain-out-of-range":
      return "The path is longer than the rain model holds for; the availability is an extrapolation.";
    default:
      return f.code;
  }
};

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
  const until = m.lastYear === null ? "" : `, good until ${m.lastYear}`;
  const today = m.amountToday === null ? "" : ` (today ${lengthText(units, m.amountToday)})`;
  switch (m.code) {
    case "trim":
      return { words: `Plan a trim of ${m.name ?? "the tree"} to ${lengthText(units, m.amount)}${until}`, amount: today.trim() };
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
      const height = m.action.type === "mount" ? m.action.mountAglM : 0;
      return { words: `Lower ${m.name} to ${lengthText(units, height)}, beneath it`, amount: `\u2212${lengthText(units, m.amount)}` };
    }
    case "raise-near":
    case "raise-far": {
      const height = m.action.type === "mount" ? m.action.mountAglM : 0;
      return { words: `Raise ${m.name} to ${lengthText(units, height)}${until}`, amount: `+${lengthText(units, m.amount)}${today}` };
    }
    case "raise-both":
      return { words: `Raise both ends${until}`, amount: `+${lengthText(units, m.amount)}${today}` };
    case "lower-power":
      return { words: "Lower both powers", amount: dbmText(m.amount) };
    case "legal-power":
      return { words: "Set the power the rules allow", amount: dbmText(m.amount, Number.isInteger(m.amount) ? 0 : 1) };
    case "raise-power":
      return { words: "Raise both powers", amount: dbmText(m.amount) };
    case "narrower":
      return { words: `Narrow to ${figure(m.amount)} MHz`, amount: "+3 dB" };
    case "record-permission":
      return { words: "Record the permission", amount: "" };
  }
};
