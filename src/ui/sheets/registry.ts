import { airVerdictOf, type KindName, type LinkVerdict, SHEET_READS } from "@/contract";
import type { Verdict } from "@/core/link";
import type { KeyRow } from "../frame/keys";
import type { IndexRow } from "../frame/sheet";
import { VERDICT_ORDER, VERDICT_WORD } from "../wording/verdicts";
import { GROUND_KEYS } from "./ground/ground-modes";
import { SECTION_KEYS } from "./section/section-words";

/* The sheets of a job, declared once. The index, the palette, the title strip and the list of keys read them here. */

/** What is known of a job when its index is drawn. */
export interface JobFacts {
  readonly jobId: string;
  readonly links: readonly LinkVerdict[];
  /** The link that the page shows, if it shows one, and what it comes to as it stands there. */
  readonly linkId: string | null;
  readonly live: Verdict | undefined;
  /** Open points of the brief; null while that is not known. */
  readonly briefOpen: number | null;
  /** Sites at the end of no link; null while that is not known. */
  readonly loneSites: number | null;
  /** What the kit of the shown link comes to, or of the job; null while that is not known, or nothing is wired. */
  readonly kit: Verdict | null;
}

export interface SheetDef {
  /** Its place in the order of the job. */
  readonly number: string;
  readonly name: string;
  /** Kinds of record it is made of. */
  readonly reads: readonly KindName[];
  /** Where it is; null while it does not apply to the job. */
  readonly href: (f: JobFacts) => string | null;
  readonly judge: (f: JobFacts) => IndexRow["state"];
  readonly keys: readonly KeyRow[];
}

const worstOf = (links: readonly LinkVerdict[]): Verdict | undefined => VERDICT_ORDER.find((v) => links.some((l) => l.verdict === v));

/** The link that the section would open: the one shown, else the worst. */
const chosenLink = (f: JobFacts): string | null => f.linkId ?? f.links.find((l) => l.verdict === worstOf(f.links))?.linkId ?? null;

const groundState = ({ links, loneSites }: JobFacts): IndexRow["state"] => {
  const worst = worstOf(links);
  // Clear is the worst of all findings: nothing of such a link is open. A site that nothing joins is.
  if (worst === undefined || (worst === "clear" && loneSites !== 0)) return "open";
  if (worst === "clear") return "settled";
  return { verdict: worst, words: `${links.filter((l) => l.verdict === worst).length} ${VERDICT_WORD[worst].toLowerCase()}` };
};

const sectionState = (f: JobFacts): IndexRow["state"] => {
  const own = f.live ?? f.links.find((l) => l.linkId === chosenLink(f))?.verdict;
  if (own === undefined) return "open";
  return own === "clear" ? "settled" : { verdict: own, words: VERDICT_WORD[own].toLowerCase() };
};

/** What the network makes of the links, whatever each is by itself: all of it, or the air of hubs alone. */
const chainState = ({ links }: JobFacts, hubsOnly: boolean): IndexRow["state"] => {
  const chains = links.flatMap((l) => (l.chain == null || (hubsOnly && l.chain.code !== "sector-over") ? [] : [l.chain.verdict]));
  const worst = VERDICT_ORDER.find((v) => chains.includes(v));
  return worst === undefined ? "open" : { verdict: worst, words: VERDICT_WORD[worst].toLowerCase() };
};

/** What the air makes of the links on their channels. */
const airState = ({ links }: JobFacts): IndexRow["state"] => {
  const found = links.flatMap((l) => (l.inAir == null ? [] : [airVerdictOf(l.inAir)?.verdict ?? "clear"]));
  const worst = VERDICT_ORDER.find((v) => found.includes(v));
  if (worst === undefined) return "open";
  if (worst === "clear") return "settled";
  return { verdict: worst, words: `${found.filter((v) => v === worst).length} ${VERDICT_WORD[worst].toLowerCase()}` };
};

/** How badly the wiring of a link's ends holds up, for choosing which to open. */
const wiringRank = (l: LinkVerdict): number =>
  l.wiring == null ? -1 : l.wiring.holdsUp ? 10 : 3 - VERDICT_ORDER.indexOf(l.wiring.verdict);

/** The link whose wiring is worst; without any wired one the first. */
export const wiringLink = (links: readonly LinkVerdict[]): string | null =>
  [...links].sort((a, b) => wiringRank(b) - wiringRank(a) || a.number - b.number)[0]?.linkId ?? null;

/** What the wiring of the shown link comes to, else of all that are wired. */
const wiringState = ({ links, linkId }: JobFacts): IndexRow["state"] => {
  const of = linkId === null ? links : links.filter((l) => l.linkId === linkId);
  const found = of.flatMap((l) => (l.wiring == null ? [] : [l.wiring.verdict]));
  const worst = VERDICT_ORDER.find((v) => found.includes(v));
  if (worst === undefined) return "open";
  if (worst === "clear") return found.length === of.length ? "settled" : "open";
  return { verdict: worst, words: VERDICT_WORD[worst].toLowerCase() };
};

export const SHEETS = {
  brief: {
    number: "01",
    name: "Brief",
    reads: SHEET_READS.brief,
    href: ({ jobId }) => `/jobs/${jobId}/brief`,
    judge: ({ briefOpen }) => (briefOpen === 0 ? "settled" : "open"),
    keys: [
      { keys: "1 to 5", does: "Need, shapes, what is there, photos, permission" },
      { keys: "Tab", does: "Next field" },
      { keys: "Enter, Esc", does: "Keep or restore what is typed" },
    ],
  },
  ground: {
    number: "02",
    name: "Ground",
    reads: SHEET_READS.ground,
    href: ({ jobId, linkId }) => `/jobs/${jobId}/ground${linkId === null ? "" : `?link=${linkId}`}`,
    judge: groundState,
    keys: GROUND_KEYS,
  },
  section: {
    number: "03",
    name: "Section",
    reads: SHEET_READS.section,
    href: (f) => {
      const id = chosenLink(f);
      return id === null ? null : `/jobs/${f.jobId}/section/${id}`;
    },
    judge: sectionState,
    keys: SECTION_KEYS,
  },
  gear: {
    number: "04",
    name: "Gear",
    reads: SHEET_READS.gear,
    href: (f) => {
      const id = chosenLink(f);
      return `/jobs/${f.jobId}/gear${id === null ? "" : `/${id}`}`;
    },
    judge: (f) => (chosenLink(f) === null ? "open" : sectionState(f)),
    keys: [
      { keys: "Arrows, Home, End", does: "Through the rack" },
      { keys: "Enter", does: "Take the chosen one" },
      { keys: "Space, C", does: "Tick, compare the ticked" },
      { keys: "L", does: "The same pair on other links" },
      { keys: "Tab", does: "Next field" },
    ],
  },
  hub: {
    number: "05",
    name: "Hub",
    reads: SHEET_READS.hub,
    href: (f) => (f.links.length < 2 ? null : `/jobs/${f.jobId}/hub`),
    judge: (f) => chainState(f, true),
    keys: [
      { keys: "Arrows", does: "Turn or tilt by half a degree; with Shift by five" },
      { keys: "[ and ]", does: "The sector before, the next" },
      { keys: "Enter", does: "Turn the cut to a remote" },
    ],
  },
  load: {
    number: "06",
    name: "Load",
    reads: SHEET_READS.load,
    href: (f) => (f.links.length === 0 ? null : `/jobs/${f.jobId}/load`),
    judge: (f) => chainState(f, false),
    keys: [
      { keys: "M", does: "The worst or the usual moment" },
      { keys: "S", does: "By another throughput school, only looked at" },
      { keys: "Arrows", does: "At the fill: what if more were asked; Esc as it is" },
      { keys: "Enter", does: "Look at a place" },
    ],
  },
  air: {
    number: "07",
    name: "Air",
    reads: SHEET_READS.air,
    href: (f) => (f.links.length === 0 ? null : `/jobs/${f.jobId}/air`),
    judge: airState,
    keys: [
      { keys: "Arrows", does: "At a block: the next permitted channel; with Shift narrower or wider" },
      { keys: "K", does: "At a block: lock it, or free it" },
      { keys: "P", does: "Draw all as proposed" },
      { keys: "Enter, Esc", does: "Plan what is drawn, or leave it" },
    ],
  },
  wiring: {
    number: "08",
    name: "Wiring",
    reads: SHEET_READS.wiring,
    href: (f) => (f.links.length === 0 ? null : `/jobs/${f.jobId}/wiring${f.linkId === null ? "" : `/${f.linkId}`}`),
    judge: wiringState,
    keys: [
      { keys: "Tab", does: "From socket to socket" },
      { keys: "Enter, arrows", does: "Pick a lead up, choose a socket; Enter lets it in, Esc lets it go" },
      { keys: "Delete", does: "At a socket: take its lead away" },
      { keys: "L", does: "The list of units and leads" },
    ],
  },
  kit: {
    number: "09",
    name: "Kit",
    reads: SHEET_READS.kit,
    href: (f) => (f.links.length === 0 ? null : `/jobs/${f.jobId}/kit${f.linkId === null ? "" : `/${f.linkId}`}`),
    judge: ({ kit }) => (kit === null ? "open" : kit === "clear" ? "settled" : { verdict: kit, words: VERDICT_WORD[kit].toLowerCase() }),
    keys: [
      { keys: "Tab, Space", does: "From line to line, pick it or put it back" },
      { keys: "Enter", does: "At a line: why it is there" },
    ],
  },
  pack: {
    number: "11",
    name: "Pack",
    reads: [...SHEET_READS.kit, ...SHEET_READS.wiring],
    href: (f) => (f.links.length === 0 ? null : `/jobs/${f.jobId}/pack${f.linkId === null ? "" : `/${f.linkId}`}`),
    // Paper settles nothing: it stands as what is open in the plan.
    judge: sectionState,
    keys: [
      { keys: "Page up, page down", does: "The page before, the next" },
      { keys: "Tab", does: "Next field" },
    ],
  },
  roof: {
    number: "12",
    name: "Roof",
    reads: ["roof", "safety", "photo", ...SHEET_READS.section],
    href: (f) => (f.links.length === 0 ? null : `/jobs/${f.jobId}/roof`),
    // What is done there is told there, end by end.
    judge: () => "open",
    keys: [
      { keys: "Tab, Space", does: "From tick to tick, tick it" },
      { keys: "Enter", does: "In a sweep: mark the reading" },
    ],
  },
} as const satisfies Readonly<Record<string, SheetDef>>;

export type SheetKey = keyof typeof SHEETS;

/** Where a job, or one of its links, is opened by who is here: a customer has chosen sheets. Null when none of them is of it. */
export const opensAt = (
  of: Pick<JobFacts, "jobId" | "links" | "linkId">,
  first: SheetKey,
  sheets: readonly SheetKey[] | null,
): string | null => {
  const facts: JobFacts = { ...of, live: undefined, briefOpen: null, loneSites: null, kit: null };
  const order = sheets === null || sheets.includes(first) ? [first] : sheets;
  return order.flatMap((key) => SHEETS[key].href(facts) ?? [])[0] ?? null;
};

/** Rows of the index: what applies to the job, each with how it stands. */
export const indexOf = (facts: JobFacts): IndexRow[] =>
  (Object.entries(SHEETS) as [SheetKey, SheetDef][]).flatMap(([key, s]) => {
    const href = s.href(facts);
    return href === null ? [] : [{ key, number: s.number, name: s.name, href, state: s.judge(facts) }];
  });
