import type { KitFinding, KitRow } from "@/contract";
import type { JudgedRisk, KitPlace, Risk } from "@/core/kit";
import { TWIST_DEG } from "@/core/link";
import { figure, lengthText, type Units } from "./numbers";

/* Words of the kit: where things are used, what is found, what may hurt somebody. */

export const WHERE_WORDS: Readonly<Record<KitPlace, string>> = {
  mast: "on the mast",
  wall: "down the wall",
  through: "through the wall",
  inside: "indoors",
  earth: "to earth",
  tools: "tools",
};

/** How many lines of a place are missing, and how many are still to pick. */
export const placeState = (rows: readonly KitRow[]): { readonly missing: number; readonly open: number } => ({
  missing: rows.filter((r) => r.state === "missing").length,
  open: rows.filter((r) => r.state === "open" || r.state === "reserved").length,
});

export const placeStateText = (rows: readonly KitRow[]): string => {
  const { missing, open } = placeState(rows);
  return missing > 0 ? `${missing} missing` : open > 0 ? `${open} to pick` : "all in hand";
};

export const quantityText = (r: Pick<KitRow, "quantity" | "unit">, units: Units): string =>
  r.unit === "m"
    ? lengthText(units, r.quantity, 0)
    : `${figure(r.quantity, r.quantity % 1 === 0 ? 0 : 1)}${r.unit === "" || r.unit === "pieces" ? "" : ` ${r.unit}`}`;

export const RISK_WORDS: Readonly<Record<Risk, string>> = {
  height: "Height",
  "roof-edge": "Roof edge",
  "fragile-roof": "Fragile roof",
  mains: "Mains",
  lines: "Overhead lines",
  road: "Road",
  plant: "Plant and vehicles",
  trees: "Trees",
  alone: "Alone",
  lifting: "Lifting",
  laser: "Laser, fibre ends",
  rf: "Radio in front of it",
  lightning: "Thunder",
  drilling: "Drilling blind",
  "others-radio": "Others' transmitters",
};

/** What is usual; the local rule and qualified people decide. */
export const RISK_CAUTION: Readonly<Record<Risk, string>> = {
  height: "Trained people, tied off; somebody below who can fetch help.",
  "roof-edge": "No nearer than two metres without edge protection or a line.",
  "fragile-roof": "Nobody steps on sheets, lights or slates without boards.",
  mains: "An electrician switches off and proves it dead. Outdoors behind residual-current protection.",
  lines: "Nothing is raised nearer than its own length and the distance that the local rule keeps.",
  road: "Cones, a second person, and whoever owns the road agrees.",
  plant: "Cranes and lorries stand while anybody is up.",
  trees: "Cut only by whoever may, and never from a ladder with a saw.",
  alone: "Nobody climbs alone. Check-in times where one must work alone on the ground.",
  lifting: "Two people for a dish; a rope for tools.",
  laser: "Never look into a fibre or a plug.",
  rf: "Power off before anybody works in front of it.",
  lightning: "Thunder heard: everybody down, and half an hour of waiting.",
  drilling: "What is in the wall is looked for first: mains, water, gas.",
  "others-radio": "Other people's transmitters on mast or roof: ask for their distance, or have them switched off.",
};

export const STATE_WORDS = [
  ["open", "open"],
  ["none", "none here"],
  ["do", "do it"],
  ["help", "get help"],
  ["stop", "stop"],
] as const;

export const riskText = (r: JudgedRisk, competent: string): string => {
  switch (r.reason) {
    case "open":
      return "open";
    case "line-near":
      return "stop: a line is nearer than what is raised there";
    case "line-untold":
      return "what is the local approach distance?";
    case "line-unmeasured":
      return "how far is the nearest line?";
    case "one-person":
      return r.verdict === "short" ? "stop: only one person is named" : "only one person is named";
    case "nobody-named":
      return "stop: who does the work is not named, so nobody can lift it";
    case "no-rescue":
      return "how is somebody in a harness brought down?";
    case "self-lifted":
      return `stop: ${competent} does the work and cannot lift it`;
    case "lifted":
      return `stop, lifted by ${competent}`;
    case "stop":
      return "stop";
    default:
      return r.state === "none" ? "none here" : r.state === "help" ? `help: ${competent === "" ? "nobody named yet" : competent}` : "do it";
  }
};

export const findingText = (f: KitFinding, units: Units, competentOf: (risk: Risk) => string): string => {
  switch (f.code) {
    case "missing":
      return `${f.rows.map((r) => r.name).join(", ")}: ${f.rows.length === 1 ? "not" : "none"} enough in stock.`;
    case "not-chosen":
      return `Not chosen yet: ${f.rows.map((r) => r.why[0]).join("; ")}.`;
    case "strap":
      return `${f.name}: its straps go round ${f.low} to ${f.high} mm, the pole is ${f.poleMm} mm.`;
    case "saw":
      return `The gland needs a hole of ${f.holeMm} mm; the saws on the van make ${[...f.sawsMm].sort((a, b) => a - b).join(", ")} mm.`;
    case "ladder":
      return `The longest ladder on the van is ${lengthText(units, f.longestM)}; a metre beyond the step-off at 75° asks for ${lengthText(units, f.asksM)}.`;
    case "lift":
      return `${f.name} hangs ${lengthText(units, f.aglM)} up: no ladder. A lift, a scaffold, or climbers.`;
    case "fixing":
      return f.load.verdict === "short"
        ? `${f.name}: a fixing must hold ${figure(f.load.asksPullN)} N of pull and ${figure(f.load.asksShearN)} N across; it holds less.`
        : `${f.name}: a fixing must hold ${figure(f.load.asksPullN)} N of pull and ${figure(f.load.asksShearN)} N across. What does it hold in that wall?`;
    case "sways":
      return `The pole stands ${lengthText(units, f.aboveM, 2)} above its bracket, and wind turns it like a ${f.like}, by about ${figure(TWIST_DEG[f.like], 1)}°. ${
        f.stands === null || f.stands === "tree"
          ? "The plan does not count that yet."
          : `The plan counts a ${f.stands} and ${figure(TWIST_DEG[f.stands], 1)}°.`
      }`;
    case "sheet-silent":
      return `${f.name}: not known is ${f.silent.join(", ")}. Wind and straps cannot be judged without.`;
    case "wind-untold":
      return "What gust must it bear? A mean over ten minutes needs the gust factor of the local wind code.";
    case "wall-unknown":
      return "What is the wall of, and what is behind it?";
    case "pole-untold":
      return "How thick is the pole? Straps and clamps follow from it.";
    case "risk":
      return `${RISK_WORDS[f.risk.risk]}: ${riskText(f.risk, competentOf(f.risk.risk))}.`;
  }
};
