import type { KitFinding, OpenPoint, PackEnd, PackFacts, PackFor, PackLink } from "../contract";
import { type Verdict, verdictOf as verdictOfFindings, worseVerdict } from "../core/link";
import { type Block, type Mark, type Page, rect, text } from "../core/page";
import { findingText, mendText } from "../ui/wording/findings";
import { findingText as kitText, RISK_WORDS } from "../ui/wording/kit";
import {
  bearingText,
  dbmText,
  distanceText,
  figure,
  ghzText,
  latLonText,
  lengthIn,
  lengthText,
  mbpsText,
  type Units,
} from "../ui/wording/numbers";
import { troubleText } from "../ui/wording/troubles";
import { VERDICT_WORD } from "../ui/wording/verdicts";
import { findingText as wiringText } from "../ui/wording/wiring";
import { worstText } from "../ui/wording/worst";
import type { PagesAsk } from "./end-pages";
import { contentBox, type FrameSaid, flowing, framed } from "./frame";
import { qrMarks } from "./qr-marks";
import { sectionFigure } from "./section-figure";

const QR_PT = 84;
const NO_ADDRESS =
  "No address is known at which a phone reaches this server, so no code is printed. How phones come in stands in the README under sign-in.";
const plain = (words: string): string => words.replace(/\*/g, "");
export const linkName = (l: PackLink): string => `${l.ends[0].name} to ${l.ends[1].name}${l.link.label === "" ? "" : `, ${l.link.label}`}`;
const pathPoints = (l: PackLink, units: Units): OpenPoint[] =>
  l.found.map((f) => {
    const mends = f.mends.length === 0 ? "" : ` Mends: ${f.mends.map((m) => plain(mendText(m, units).words)).join("; ")}.`;
    return { verdict: f.verdict, words: `${plain(findingText(f, units, l.ends[0].name))}${mends}` };
  });

/** The worse first, as the core judges: what is not known is worse than what is tight. */
const byWorst = (a: Verdict, b: Verdict): number => (a === b ? 0 : worseVerdict(a, b) === a ? -1 : 1);

/** What the register knows beside the path: the air about it, what leads to it. */
const sharedPoint = (l: PackLink, units: Units): OpenPoint[] => {
  const { told } = l;
  if (told === null)
    return [{ verdict: "unknown", words: "What the job's air, load and wiring make of it is being worked out: make the pages anew." }];
  // What the path tells by itself stands there already.
  if (told.verdict === "clear" || l.found.some((f) => f.code === told.trouble)) return [];
  if (told.trouble === null && byWorst(told.verdict, verdictOfFindings(l.found)) >= 0) return [];
  return [{ verdict: told.verdict, words: `Of the whole job: ${worstText(told, units)}. The sheets Air, Load and Wiring say more.` }];
};

/** A risk that nobody has looked at yet: all of an end are told in one line. */
const isUnanswered = (f: KitFinding): boolean => f.code === "risk" && f.risk.reason === "open";
const unanswered = (e: PackEnd): OpenPoint[] => {
  const open = (e.kit?.findings ?? []).flatMap((f) =>
    f.code === "risk" && f.risk.reason === "open" ? [RISK_WORDS[f.risk.risk].toLowerCase()] : [],
  );
  return open.length === 0 ? [] : [{ verdict: "unknown", words: `${e.name}: nobody has answered yet for ${open.join(", ")}.` }];
};

const endPoints = (l: PackLink, units: Units): OpenPoint[] =>
  l.ends.flatMap((e) => [
    ...(e.wired === null
      ? [{ verdict: "unknown" as const, words: `${e.name}: not wired in the plan yet.` }]
      : e.wired.findings.map((f) => ({ verdict: f.verdict, words: `${e.name}: ${wiringText(e.wired!.judged.wired, f, units)}` }))),
    ...(e.kit?.findings ?? [])
      .filter((f) => !isUnanswered(f))
      .map((f) => ({ verdict: f.verdict, words: `${e.name}: ${kitText(f, units, () => "")}`, hurts: f.code === "risk" })),
    ...unanswered(e),
  ]);

/** All that is open, the worst first. The customer is told of the link; what is in whose van is the firm's own. */
export const pointsFor = (l: PackLink, units: Units, isFor: PackFor): OpenPoint[] =>
  [...pathPoints(l, units), ...sharedPoint(l, units), ...(isFor === "customer" ? [] : endPoints(l, units))]
    .filter((p) => p.verdict !== "clear")
    .sort((a, b) => byWorst(a.verdict, b.verdict) || Number(b.hurts ?? false) - Number(a.hurts ?? false));

export const verdictOf = (points: readonly OpenPoint[]): Verdict => points[0]?.verdict ?? "clear";

/** The worst of some links; null of none. */
export const worstOf = (verdicts: readonly Verdict[]): Verdict | null => [...verdicts].sort(byWorst)[0] ?? null;

/** Why a link has no pages. */
export const withoutText = (w: PackFacts["without"][number]): string => `${w.name}: no pages, ${troubleText(w.code)}.`;

const factsTable = (l: PackLink, flow: ReturnType<typeof flowing>, ask: PagesAsk): void => {
  const { toFar, toNear } = l.result.service;
  flow.table(
    ["", `A ${l.ends[0].name}`, `B ${l.ends[1].name}`],
    [22, 39, 39],
    [
      ["Unit", ...l.ends.map((e) => (e.antenna === e.unit ? e.unit : `${e.unit} with ${e.antenna}`))],
      ["Mount", ...l.ends.map((e) => `${lengthText(ask.units, e.aglM)} above ground`)],
      ["Look along", ...l.ends.map((e) => `${bearingText(e.lookDeg - e.declinationDeg + 360)} magnetic, ${bearingText(e.lookDeg)} true`)],
      [
        "Expected level",
        ...l.ends.map((e) =>
          e.level === null ? "none" : `${dbmText(e.level.dbm)} a chain, ${figure(e.level.lowDbm)} to ${figure(e.level.highDbm)}`,
        ),
      ],
      ["Expected rate away", ...[toFar, toNear].map((d) => (d === null ? "none" : mbpsText(d.plannedMbps)))],
    ],
  );
};

/** Cover of one link. */
export const coverPages = (facts: PackFacts, l: PackLink, ask: PagesAsk, said: FrameSaid, isFor: PackFor): Page[] => {
  const box = contentBox(ask.paper);
  const flow = flowing(ask.paper);
  const points = pointsFor(l, ask.units, isFor);
  const { address } = ask;
  const code = isFor === "installer" && address !== null ? address : null;
  const besidePt = code === null ? 0 : QR_PT + 8;
  if (code !== null)
    flow.put(0, (y) => ({
      role: "Figure",
      alt: `A QR code with the address ${code}`,
      marks: qrMarks(code, box.x + box.width - QR_PT - 4, y, QR_PT),
    }));
  flow.put(36, (y) => ({ role: "H1", marks: [text(box.x + 8, y + 28, VERDICT_WORD[verdictOf(points)], 30, { face: "bold" })] }));
  flow.words(
    `${linkName(l)}; ${distanceText(ask.units, l.path.profile.pathM)}, ${ghzText(l.plan.centreMhz)}, ${l.plan.widthMhz} MHz wide. Plan of ${facts.madeAt}, for ${facts.job.visitOn}.`,
    { sizePt: 10.5, strong: true, besidePt },
  );
  if (isFor === "installer")
    flow.words(code === null ? NO_ADDRESS : `The survey of this job, for the phone: ${code}`, { sizePt: 8, besidePt });
  flow.put(190, (y) => sectionFigure(l, { x: box.x, y, width: box.width, height: 184 }, ask.units, null));
  factsTable(l, flow, ask);
  flow.heading("Open points", isFor === "customer" ? "what has to be settled before it can be promised" : "the worst first");
  if (points.length === 0) flow.words("Nothing is open: the policy is met and the need is kept.");
  for (const p of points) flow.words(p.words, { lead: VERDICT_WORD[p.verdict], indentPt: 52 });
  const name = (n: number, of: number): string => (of === 1 ? "cover" : `cover, ${n + 1} of ${of}`);
  return flow.pages.map((blocks, n) => framed(ask.paper, said, name(n, flow.pages.length), blocks));
};

/** First page over all links of a job. */
export const jobPages = (facts: PackFacts, ask: PagesAsk, said: FrameSaid, isFor: PackFor): Page[] => {
  const flow = flowing(ask.paper);
  const box = contentBox(ask.paper);
  const points = new Map(facts.links.map((l) => [l, pointsFor(l, ask.units, isFor)]));
  const worst = worstOf([...[...points.values()].map(verdictOf), ...facts.without.map(() => "unknown" as const)]);
  flow.put(36, (y) => ({
    role: "H1",
    marks: [text(box.x + 8, y + 28, worst === null ? "No link" : VERDICT_WORD[worst], 30, { face: "bold" })],
  }));
  flow.words(
    `${facts.job.name}: ${facts.links.length + facts.without.length} links. The word is the worst of them. Plan of ${facts.madeAt}, for ${facts.job.visitOn}.`,
    { sizePt: 10.5, strong: true },
  );
  flow.table(
    ["No", "Link", "Verdict", "Far", "GHz", "Level A / B", "First open point"],
    [5, 30, 10, 11, 10, 14, 50],
    facts.links.map((l) => {
      const own = points.get(l)!;
      return [
        String(l.link.number),
        linkName(l),
        VERDICT_WORD[verdictOf(own)],
        distanceText(ask.units, l.path.profile.pathM),
        (l.plan.centreMhz / 1000).toFixed(3),
        l.ends.map((e) => (e.level === null ? "none" : figure(e.level.dbm))).join(" / "),
        own[0]?.words ?? "none",
      ];
    }),
  );
  for (const w of facts.without) flow.words(withoutText(w), { lead: "Missing", indentPt: 52 });
  return flow.pages.map((blocks, n) =>
    framed(ask.paper, said, flow.pages.length === 1 ? "the job" : `the job, ${n + 1} of ${flow.pages.length}`, blocks),
  );
};

/** A planning figure for the general public, rounded up; the local rule decides. */
const keepOffText = (e: PackEnd, units: Units): string => {
  if (e.exposureM === null) return "not known";
  if (e.exposureM === 0) return "kept everywhere in front";
  const unit = lengthIn(units, 1);
  return `${lengthText(units, Math.ceil(e.exposureM * unit * 10) / 10 / unit)} in front`;
};

/** What a regulator, or the owner of a roof, asks of a link. */
export const permissionPages = (facts: PackFacts, l: PackLink, ask: PagesAsk, said: FrameSaid): Page[] => {
  const box = contentBox(ask.paper);
  const flow = flowing(ask.paper);
  const half = l.plan.widthMhz / 2;
  flow.put(32, (y) => ({ role: "H1", marks: [text(box.x + 8, y + 24, "A radio link between two buildings", 20, { face: "bold" })] }));
  flow.words(`${linkName(l)}, planned for ${facts.job.visitOn}.`, { sizePt: 10.5 });
  flow.put(176, (y) => sectionFigure(l, { x: box.x, y, width: box.width, height: 170 }, ask.units, null));
  const rule = [l.result.service.toFar, l.result.service.toNear].map((d) => d?.regulation);
  flow.table(
    ["", `A ${l.ends[0].name}`, `B ${l.ends[1].name}`],
    [26, 37, 37],
    [
      ["Position (WGS 84)", ...l.ends.map((e) => latLonText(e.position))],
      ["Antenna above ground", ...l.ends.map((e) => lengthText(ask.units, e.aglM))],
      ["Antenna above the sea", ...l.ends.map((e) => lengthText(ask.units, e.amslM))],
      ["Antenna", ...l.ends.map((e) => e.antenna)],
      ["Polarisation", ...l.ends.map((e) => (e.polarisation === "" ? "not said" : e.polarisation))],
      ["Azimuth (true), tilt", ...l.ends.map((e) => `${bearingText(e.lookDeg)}, ${figure(e.lookTiltDeg, 1)}°`)],
      [
        "Beam, wide and high",
        ...l.ends.map((e) => (e.beam === null ? "not known" : `${figure(e.beam.wideDeg, 1)}°, ${figure(e.beam.highDeg, 1)}°`)),
      ],
      ["Frequencies", ...l.ends.map(() => `${(l.plan.centreMhz - half).toFixed(0)} to ${(l.plan.centreMhz + half).toFixed(0)} MHz`)],
      ["Power, EIRP", ...l.ends.map((e) => `${dbmText(e.powerDbm)}, ${e.eirpDbm === null ? "not known" : dbmText(e.eirpDbm, 1)}`)],
      ["Keep off, by ICNIRP 2020", ...l.ends.map((e) => keepOffText(e, ask.units))],
      [
        "By the rule rows",
        ...rule.map((r) => (r === undefined ? "not judged" : r.status === "allowed" ? "within them" : "not within them, or open")),
      ],
    ],
  );
  flow.words(
    "Power is off before anybody works in front of an antenna, whatever distance stands here. Rule rows are data written down with source and year, not legal advice: the regulator decides. Fixings and masts are for a qualified person to check; earthing and lightning follow the local code.",
  );
  flow.heading("Agreed");
  for (const who of ["For the owner of A", "For the owner of B"])
    flow.put(40, (y): Block => {
      const marks: Mark[] = [
        text(flow.x, y + 12, who, 9),
        rect({ x: flow.x + 110, y: y + 2, width: flow.width - 110, height: 32 }, null, 0.6),
        text(flow.x + 116, y + 12, "name, day, signature, conditions", 7),
      ];
      return { role: "P", marks };
    });
  return flow.pages.map((blocks, n) =>
    framed(ask.paper, said, flow.pages.length === 1 ? "permission" : `permission, ${n + 1} of ${flow.pages.length}`, blocks),
  );
};
