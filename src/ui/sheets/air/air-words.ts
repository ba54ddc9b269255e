import { type AirBuilt, nameOfUnit } from "@/contract";
import type { Channel, Contribution, LinkAir, Score } from "@/core/air";
import { figure } from "../../wording/numbers";
import type { AirView, Receiver, UnitRow } from "./air-view";

/* How the air is told in words. */

export const channelText = ({ centreMhz, widthMhz }: Channel): string =>
  `${figure(centreMhz, Number.isInteger(centreMhz) ? 0 : 1)}, ${figure(widthMhz)}`;

export const dbRise = (db: number): string => `${figure(db, db < 10 && db >= 0.05 ? 1 : 0)} dB`;
export const percent = (share: number): string => (Number.isFinite(share) ? `${figure(share * 100)} %` : "cut off");

/** What a unit asks of the air that is left to it: over 100 % it does not carry what is asked. */
export const airText = (u: Pick<UnitRow, "blinded" | "multiple">): string =>
  u.blinded && u.multiple < 0.5 ? "cut off" : percent(1 / u.multiple);

export const bandText = (band: string): string => `${band} GHz`;

const RELATION: Readonly<Record<Contribution["relation"], string>> = {
  "takes turns": "they hear each other and take turns",
  "waits for it": "only this one waits",
  "it waits": "only the other waits",
  "bursts fall": "neither hears the other: its bursts fall here",
};
export const relationText = (c: Pick<Contribution, "relation" | "inStep" | "unsure">): string =>
  `${c.inStep ? "in step on one mast" : RELATION[c.relation]}${c.unsure ? "; within 3 dB of a threshold, the worse is planned" : ""}`;

/** Who a contribution comes from. */
export const fromText = (built: AirBuilt, c: Contribution): string =>
  c.from === null
    ? `${c.heard!.name === "" ? "somebody" : c.heard!.name}, heard in a scan`
    : (built.job.field.radios[c.from]?.name ?? "somebody");

/** What is wrong with one link in the air, in a sentence. */
export const troubleText = (built: AirBuilt, name: string, l: LinkAir): string => {
  const way = l.ways[1].riseDb > l.ways[0].riseDb ? l.ways[1] : l.ways[0];
  const loud = way.contributions.find((c) => c.hitShare > 0);
  const who = loud === undefined ? "somebody" : fromText(built, loud);
  switch (l.trouble) {
    case "blinded":
      return `${name}: on one mast with it ${who} leaves its receiver nothing while it sends, noise up by *${dbRise(way.riseDb)}*.`;
    case "noise":
      return `${name}: ${who} lifts its noise by *${dbRise(way.riseDb)}* for ${percent(way.hitShare)} of the time; what is left carries *${percent(l.multiple)}* of the need.`;
    case "turns":
      return `${name} takes turns with ${l.sharesWith.map((id) => nameOfUnit(built, id)).join(", ")}: *${percent(l.asked + l.waits)}* of the usable air is asked.`;
    case "bursts":
      return `${name}: while others send it carries *${percent(l.hitMultiple)}* of the need; voice or control passes it.`;
    case "isolation":
      return `${name} holds only while the isolation on its mast is as estimated; 10 dB less and it is short. Measure it on the visit.`;
    default:
      return `${name} is short by itself, whatever its channel.`;
  }
};

/** The line beneath the headline: the worst of the sheet. */
export const airReason = (built: AirBuilt, view: AirView, worst: Receiver | null): string => {
  const short = view.judged.links.filter((l) => l.verdict === "short");
  const all = view.judged.links.length;
  if (short.length > 0) {
    const blinded = short.filter((l) => l.trouble === "blinded").length;
    const turns = short.filter((l) => l.trouble === "turns").length;
    const what =
      blinded > 0
        ? "radios on one mast blind each other"
        : turns === short.length
          ? "too many take turns on one channel"
          : "others' bursts fall on what is wanted";
    return `${short.length} of ${all} cannot carry what is asked: ${what}`;
  }
  if (worst === null) return "Nobody lifts anybody's noise by half a decibel";
  return `The noise rises most at ${built.job.field.radios[worst.air.receiver]!.name}, by ${dbRise(worst.air.riseDb)}; all carry what is asked`;
};

/** A score beside another, in words. */
export const scoreText = (s: Score): string =>
  `${s.short === 0 ? "none short by the air" : `${s.short} short, ${figure(s.lackTenths / 10, 1)} Mbps lacking`}, ${s.radar} under radar duty, ${s.changes} changed`;

/** How sure a proposal is. */
export const provenText = (exact: boolean, score: Score, bound: Score, starts: number): string => {
  if (exact) return "Nothing better is to be had: proven.";
  const more: string[] = [];
  if (bound.short < score.short) more.push(`${score.short - bound.short} fewer short`);
  else if (bound.lackTenths < score.lackTenths) more.push(`${figure((score.lackTenths - bound.lackTenths) / 10, 1)} Mbps less lacking`);
  else if (bound.meets < score.meets) more.push(`${(score.meets - bound.meets) / 2} fewer overlaps on a mast`);
  else if (bound.spareQuarters > score.spareQuarters)
    more.push(`${figure((bound.spareQuarters - score.spareQuarters) / 4, 2)} times the need more spare at the worst`);
  else if (bound.radar < score.radar) more.push(`${score.radar - bound.radar} fewer under radar duty`);
  else more.push("fewer changes");
  return `Best of ${starts} starts, not proven: at most ${more.join(", ")}.`;
};
