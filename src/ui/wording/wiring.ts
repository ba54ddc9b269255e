import type { JobFinding, MendKind, PartSheet, Wired, WiringCode, WiringMend } from "@/core/wiring";
import { powerKind } from "@/core/wiring";
import { figure, lengthText, type Units } from "./numbers";

/* Words of the wiring: kinds of supply, what is found, and what would mend it. */

/** A kind of supply as it is said. */
export const supplyText = (key: string): string => {
  const kind = powerKind(key);
  if (kind === null) return key;
  const volts = `${figure(kind.volts)} V`;
  switch (kind.scheme) {
    case "802.3":
      return key;
    case "passive":
      return `passive ${volts} on ${kind.pairs} pairs${kind.pins === "reversed" ? ", plus and minus exchanged" : ""}`;
    case "own":
      return `${kind.maker}'s own ${volts}`;
    case "dc":
      return `${volts} direct`;
    default:
      return "mains";
  }
};

export const voltsText = (v: number): string => `${v.toFixed(1)} V`;
export const wattsText = (w: number): string => `${figure(w, w < 100 && w % 1 !== 0 ? 1 : 0)} W`;

const MONTHS = ["January", "February", "March", "April", "May", "June", "July", "August", "September", "October", "November", "December"];

const num = (f: JobFinding, key: string): number => Number(f.figures[key]);
const str = (f: JobFinding, key: string): string => String(f.figures[key] ?? "");
const volts = (f: JobFinding, key = "volts"): string => voltsText(num(f, key));

/** @param long a length in the units of the reader. */
type Sentence = (f: JobFinding, place: string, lead: string, long: (m: number) => string) => string;
const takesText = (f: JobFinding): string =>
  str(f, "takes") === "" ? "takes no power" : `asks for ${str(f, "takes").split(", ").map(supplyText).join(" or ")}`;

const SENTENCES: Readonly<Record<WiringCode, Sentence>> = {
  unfit: (f, p) => `${p} is not made for what arrives. It ${takesText(f)}; ${supplyText(str(f, "gives"))} stands on its lead.`,
  dark: (f, p) => `${p} stays dark. It ${takesText(f)}; ${supplyText(str(f, "gives"))} waits for an answer that never comes.`,
  pairs: (f, p) => `${p} ${takesText(f)}; ${supplyText(str(f, "gives"))} arrives: other pairs carry.`,
  polarity: (f, p) => `${p}: plus and minus are exchanged. It ${takesText(f)}; ${supplyText(str(f, "gives"))} arrives.`,
  "volts-kind": (f, p) => `${p} stays dark. It ${takesText(f)}; ${supplyText(str(f, "gives"))} arrives.`,
  "no-start": (_f, p, l) => `${p} never starts: the more the volts fall on ${l}, the more is drawn.`,
  "volts-low": (f, p, l) => `${p} gets ${volts(f)} over ${l}; it works from ${volts(f, "low")}.`,
  "volts-high": (f, p) => `${p} gets ${volts(f)}; more than ${volts(f, "high")} harms it.`,
  "start-low": (f, p, l) =>
    `${p} may not start: ${volts(f)} are left over ${l} while all start together; it works from ${volts(f, "low")}.`,
  "no-wake": (f, p) => `${p} may sleep on: its source promises ${volts(f)}, and a device wakes for sure only at ${volts(f, "low")}.`,
  "volts-tight": (f, p, l) => `${p} gets ${volts(f)} over ${l}, little above the ${volts(f, "low")} that it works from.`,
  "window-silent": (f, p) => `${p} gets ${volts(f)}. Its sheet does not say from which volts it works.`,
  "load-silent": (_f, p) => `${p}: its sheet does not say what it takes.`,
  "sheet-unknown": (_f, p) => `${p}: which one is it? Without its sheet nobody knows what it takes.`,
  unfed: (_f, p) => `Nothing feeds ${p}.`,
  "port-over": (f, p) => `${p}, port ${str(f, "port")}: ${wattsText(num(f, "watts"))} are asked of ${wattsText(num(f, "most"))}.`,
  "start-over": (f, p) =>
    `${p}, port ${str(f, "port")}: ${wattsText(num(f, "watts"))} are asked of ${wattsText(num(f, "most"))} while all start.`,
  "switch-over": (f, p) =>
    `${p}: ${wattsText(num(f, "watts"))} are drawn${f.figures.start === undefined ? "" : " while all start"}, it gives ${wattsText(num(f, "most"))} in all.`,
  "reserved-over": (f, p) =>
    `${p} sets ${wattsText(num(f, "reserved"))} aside by class and has ${wattsText(num(f, "most"))}; ${wattsText(num(f, "watts"))} are drawn. The last to be plugged in stays dark unless it counts what is drawn.`,
  "pass-over": (f, p) => `${p} hands ${wattsText(num(f, "watts"))} on and may hand on ${wattsText(num(f, "most"))}.`,
  "pass-fed": (f, p) => `${p} hands power on only when fed by ${supplyText(str(f, "asks"))}; it is fed by ${supplyText(str(f, "has"))}.`,
  "power-round": (_f, p) => `${p} would feed itself.`,
  "port-gone": (f, p, l) => `${l} goes into port ${str(f, "port")} of ${p}, which has none such.`,
  "port-taken": (f, p) => `Two leads go into port ${str(f, "port")} of ${p}.`,
  "medium-unfit": (f, _p, l) => `${l}: ${str(f, "from")} meets ${str(f, "to")}.`,
  "cable-unknown": (_f, _p, l) => `${l}: of which cable is it?`,
  "copper-clad": (_f, _p, l) => `${l} is copper-clad aluminium: 1.6 times the ohms, brittle, and outside the standard.`,
  "thin-cord": (f, _p, l) =>
    `${l} is a thin cord of ${figure(num(f, "awg"))} gauge and carries power over ${figure(num(f, "metres"), 1)} m.`,
  "too-long": (f, _p, l, long) =>
    `${l} and its cords are ${long(num(f, "metres"))}; a copper ${num(f, "most") === 90 ? "run between cords" : "channel"} ends at ${long(num(f, "most"))}.`,
  "slow-lead": (f, _p, l) => `${l} carries ${figure(num(f, "mbps"))} Mbps; both its ports could ${figure(num(f, "wanted"))}.`,
  "slow-injector": (f, p) => `${p} carries ${figure(num(f, "mbps"))} Mbps; what it stands between could ${figure(num(f, "wanted"))}.`,
  "indoor-outside": (_f, _p, l) => `${l} goes outside and is an indoor cable.`,
  "part-outside": (_f, p) => `${p} stands outside and is made for indoors.`,
  "no-drip-loop": (_f, _p, l) => `${l} comes in without a drip loop: water runs along it through the wall.`,
  "drip-unseen": (_f, _p, l) => `${l} comes in from outside: has it a drip loop before the hole?`,
  "near-mains": (f, _p, l, long) =>
    `${l} lies ${long(num(f, "metres"))} along the mains at ${figure(num(f, "gap"))} mm; the local code asks for ${figure(num(f, "asked"))} mm.`,
  "gap-unseen": (f, _p, l, long) => `${l} lies ${long(num(f, "metres"))} along the mains: at what gap?`,
  "gap-unasked": (f, _p, l) => `${l} lies at ${figure(num(f, "gap"))} mm from the mains. What gap does the local code ask for?`,
  "screen-open": (_f, _p, l) => `${l}: its screen is bonded at neither end.`,
  "screen-unseen": (_f, _p, l) => `${l}: where is its screen bonded?`,
  "screen-practice": (f, _p, l) =>
    `${l}: its screen is bonded at ${str(f, "is") === "one" ? "one end" : "both ends"}; the local practice is ${str(f, "asks") === "one" ? "one end" : "both"}.`,
  "screen-unasked": () => "Screens bonded at one end or at both: what is the local practice?",
  "surge-missing": (_f, _p, l) => `${l} goes outside without a surge protector at either end.`,
  "surge-one": (f, _p, l) => `${l} has a surge protector ${str(f, "has") === "entry" ? "at the entry only" : "outside only"}.`,
  "surge-volts": (f, p) => `${p} is made for ${volts(f, "most")}; ${volts(f)} would be shorted by it.`,
  "surge-pairs": (f, p) => `${p} leads power over ${figure(num(f, "most"))} pairs; ${figure(num(f, "pairs"))} carry it here.`,
  "surge-speed": (f, p) => `${p} passes ${figure(num(f, "mbps"))} Mbps; its lead could carry ${figure(num(f, "wanted"))}.`,
  "surge-kind": (f, p) => `${p} is not made for ${supplyText(str(f, "kind"))}.`,
  "bond-open": (_f, p) => `${p} is not joined to the earth bar. Nothing is powered before it is.`,
  "bond-unseen": (_f, p) => `${p}: is it joined to the earth bar?`,
  "bar-open": () => "The earth bar is not joined to the building's main earth.",
  "bar-unseen": () => "Is the earth bar joined to the building's main earth?",
  "mast-open": () => "The mast is not joined to the earth bar.",
  "mast-unseen": () => "Is the mast joined to the earth bar?",
  "rod-open": () => "An earth rod of its own without a lead to the main earth: two earths in one building.",
  "rod-unseen": () => "Is the earth rod joined to the building's main earth?",
  "earth-unasked": () => "Which cross-section, way and joint does the local code ask for, and where does it say so?",
  "mains-unasked": () => "How are the mains of this building earthed?",
  "mains-specialist": (f) => `Mains earthed as ${str(f, "mains")}: stop until a specialist has said how the mast is joined.`,
  "lightning-unasked": () => "Has the building a lightning protection system?",
  "lightning-specialist": () => "The building has a lightning protection system: stop until a specialist has said how the mast is joined.",
  "two-earths": (f, _p, l) =>
    `${l} joins two earths${str(f, "from") === "" && str(f, "to") === "" ? "" : `, the building's and ${[str(f, "from"), str(f, "to")].filter((e) => e !== "").join(", ")}'s`}, by ${str(f, "metal") === "armour" ? "its armour" : "metal"}. A fault or a strike flows along it.`,
  "injector-turned": (_f, p) => `${p} is the wrong way round: its power side goes to the network.`,
  "data-loop": (_f, _p, l) => `${l} closes a loop in the network: without a spanning tree everything stands still.`,
  "second-router": (f, p) => `${p} translates addresses a second time behind ${str(f, "first")}.`,
  "second-dhcp": (f, p) => `${p} hands out addresses beside ${str(f, "first")}.`,
  "sun-unasked": (_f, p) => `${p}: how much sun, how many days without, how cold?`,
  "panel-small": (f) =>
    `${figure(num(f, "watts"))} W of panel; ${MONTHS[num(f, "month")]} with ${figure(num(f, "hours"), 1)} h of sun asks for ${figure(num(f, "asked"))} W.`,
  "battery-small": (f) =>
    `${figure(num(f, "ah"))} Ah; ${figure(num(f, "days"))} days without sun ask for ${figure(num(f, "asked"))} Ah, ${figure(num(f, "cold") * 100)} % of it left in the cold.`,
  "frost-charge": (f, p) =>
    `${p} is lithium without a heater and stands at ${figure(num(f, "lowest"))} °C: it must not be charged below 0.`,
  "fuse-missing": (_f, p) => `${p} has no fuse beside it: a short burns the leads.`,
  "cut-out-missing": () => "Nothing lets go when the battery is low: it is drained flat.",
  "return-unseen": () => "Does the radio come back by itself when the volts do? Try it on the bench.",
  "return-never": () => "The radio does not come back by itself after the battery was low.",
};

const raised = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** A lead by its ends. */
export const leadName = (w: Wired, leadId: string | null): string => {
  const lead = w.graph.leads.find((l) => l.id === leadId);
  if (lead === undefined) return "a lead";
  const name = (id: string): string => w.placeOf.get(id)?.name ?? "?";
  return `the lead from ${name(lead.from.placeId)} to ${name(lead.to.placeId)}`;
};

/** A finding in a sentence that names its place. */
export const findingText = (w: Wired, f: JobFinding, units: Units): string => {
  const place = f.placeId === null ? "it" : (w.placeOf.get(f.placeId)?.name ?? "a place that is gone");
  return raised(SENTENCES[f.code](f, place, leadName(w, f.leadId), (m) => lengthText(units, m)));
};

const MENDS: Readonly<Record<MendKind, (m: WiringMend) => string>> = {
  "other-port": (m) => `Lead it to ${m.placeName}, port ${m.portName}`,
  converter: (m) => `${m.part?.name ?? "A converter"} at ${m.placeName}`,
  "other-cable": (m) => `Take ${m.part?.name ?? "another cable"}`,
  "other-part": (m) => `Take ${m.part?.name ?? "another"} for ${m.placeName}`,
  "count-drawn": (m) => `Record that ${m.placeName} counts what is drawn`,
  protector: (m) => `Put ${m.part?.name ?? "a protector"} in`,
  "other-protector": (m) => `Take ${m.part?.name ?? "another protector"} instead`,
  "drip-loop": () => "Let it hang below the hole first",
  "away-from-mains": () => "Lay it along another wall",
  "take-off": () => "Leave the lead out",
  "turn-injector": () => "Turn it round",
  glass: (m) => `Glass without metal: ${m.part?.name ?? ""}`,
};
export const mendText = (m: WiringMend): string => MENDS[m.kind](m);

/** What of a finding somebody can look at on the spot and write down. */
export const ANSWERS: Partial<Record<WiringCode, readonly (readonly [string, "joined" | "open"])[]>> = {
  "bar-unseen": [
    ["It is", "joined"],
    ["It is not", "open"],
  ],
  "mast-unseen": [
    ["It is", "joined"],
    ["It is not", "open"],
  ],
  "rod-unseen": [
    ["It is", "joined"],
    ["It is not", "open"],
  ],
  "bond-unseen": [
    ["It is", "joined"],
    ["It is not", "open"],
  ],
};

/** A sheet in a line of a list. */
export const partText = (p: PartSheet): string => {
  const price = p.cable?.pricePerM ?? p.priceEur;
  return `${p.name}${price === undefined ? "" : `, ${price.toFixed(2)} €${p.cable === undefined ? "" : " a metre"}`}`;
};
