import { type FixingLoad, fixingLoad, gustOfMean, ladderFor, ladderM, poleKg } from "../core/kit";
import { type Stands, TWIST_DEG } from "../core/link";
import type { KitFields, KitSite } from "./kit";
import type { JobBundle } from "./types";
import type { PlaceFields } from "./wiring";

/* What hangs on the poles of a site, the wind on it, and how one gets up to it. */

/** What a mount needs of a sheet. */
export interface MountedUnit {
  readonly id: string;
  readonly name: string;
  readonly poleDiameterMm?: { readonly low: number; readonly high: number } | undefined;
  readonly windAreaM2?: number | undefined;
  readonly weightKg?: number | undefined;
  readonly priceEur?: number | undefined;
  readonly form?: string | undefined;
  readonly antenna?: {
    readonly kind?: string | undefined;
    readonly form?: string | undefined;
    readonly connectorCount?: number | undefined;
  };
}

/** A radio and the antenna beside it; "missing" where it needs one that nobody chose. */
export interface Mounted {
  readonly radio: MountedUnit | null;
  readonly antenna: MountedUnit | "missing" | null;
}
export type MountOf = (place: PlaceFields) => Mounted;

/** Of each radio's place its sheet, and of one with connectors the antenna that its link's plan names. */
export const mountsOf = (
  job: Pick<JobBundle, "links">,
  hardware: { readonly radios: readonly MountedUnit[]; readonly antennas: readonly MountedUnit[] },
  siteId: string,
): MountOf => {
  const radios = new Map(hardware.radios.map((r) => [r.id, r]));
  const antennas = new Map(hardware.antennas.map((a) => [a.id, a]));
  return (place) => {
    const radio = radios.get(place.partId ?? "") ?? null;
    const link = job.links.find((l) => l.id === place.linkId);
    if (radio?.antenna?.kind !== "connectorised") return { radio, antenna: null };
    const id = link === undefined ? null : link.nearSiteId === siteId ? link.design.nearAntennaId : link.design.farAntennaId;
    return { radio, antenna: antennas.get(id ?? "") ?? "missing" };
  };
};

/** All things of a mount whose sheets are there. */
export const piecesOf = ({ radio, antenna }: Mounted): MountedUnit[] =>
  [radio, antenna === "missing" ? null : antenna].filter((u) => u !== null);

/** Of a mount this high above ground and more no ladder is leant. */
export const NO_LADDER_BELOW_M = 2;
/** Above this somebody is tied off. */
export const HARNESS_FROM_M = 3;

export type MountFinding =
  | {
      readonly code: "strap";
      readonly verdict: "short";
      readonly name: string;
      readonly poleMm: number;
      readonly low: number;
      readonly high: number;
    }
  | { readonly code: "lift"; readonly verdict: "tight"; readonly name: string; readonly aglM: number }
  | { readonly code: "ladder"; readonly verdict: "short"; readonly asksM: number; readonly longestM: number }
  | { readonly code: "fixing"; readonly verdict: "short" | "unknown"; readonly name: string; readonly load: FixingLoad }
  | { readonly code: "sheet-silent"; readonly verdict: "unknown"; readonly name: string; readonly silent: readonly string[] }
  | {
      /** The pole above its bracket turns in wind more than the plan counts with. */
      readonly code: "sways";
      readonly verdict: "tight" | "unknown";
      readonly stands: Stands | null;
      readonly like: keyof typeof TWIST_DEG;
      readonly aboveM: number;
    }
  | { readonly code: "wind-untold" | "wall-unknown" | "pole-untold"; readonly verdict: "unknown" };

export interface MountWind {
  readonly name: string;
  readonly load: FixingLoad;
  readonly gustMS: number;
}

/** Gust at the mount's height; null while it is not told, or is a mean without its factor. */
export const gustOf = ({ wind }: Pick<KitFields, "wind">): number | null => {
  if (wind.speedMS === null) return null;
  if (wind.kind === "gust") return wind.speedMS;
  return wind.gustFactor === null ? null : gustOfMean(wind.speedMS, wind.gustFactor);
};

const silentOf = (m: Mounted): string[] => {
  const silent = new Set<string>();
  if (m.radio === null) silent.add("which radio it is");
  if (m.antenna === "missing") silent.add("which antenna it has");
  for (const u of piecesOf(m)) {
    if (u.poleDiameterMm === undefined) silent.add("its straps");
    if (u.windAreaM2 === undefined) silent.add("its wind area");
    if (u.weightKg === undefined) silent.add("its weight");
  }
  return [...silent];
};

/** The worse of two loads: one that fails, then one that is not known, then the greater pull. */
const RANK = { short: 0, unknown: 1, clear: 2 } as const;
const worse = (a: MountWind, b: MountWind): number => RANK[a.load.verdict] - RANK[b.load.verdict] || b.load.asksPullN - a.load.asksPullN;

const windOn = (name: string, mounted: readonly Mounted[], site: KitSite, gustMS: number, factor: number): MountWind | null => {
  const pieces = mounted.flatMap(piecesOf);
  if (mounted.some((m) => m.radio === null || m.antenna === "missing") || pieces.some((u) => u.windAreaM2 === undefined)) return null;
  // Of a pole that nobody measured no area is guessed.
  if (site.poleAboveM > 0 && site.poleMm === null) return null;
  const load = fixingLoad({
    gustMS,
    faces: pieces.map((u) => ({
      areaM2: u.windAreaM2!,
      form: (u.form ?? u.antenna?.form) === "dish" ? ("dish" as const) : ("plate" as const),
      weightKg: u.weightKg ?? 0,
    })),
    pole:
      site.poleAboveM === 0
        ? null
        : { diameterMm: site.poleMm!, lengthM: site.poleAboveM, weightKg: poleKg(site.poleMm!, site.poleAboveM) },
    faceAboveM: site.poleAboveM,
    bracketsApartM: site.bracketsApartM,
    standOffM: site.standOffM,
    screwsPerBracket: site.screwsPerBracket,
    pullHoldN: site.pullHoldN,
    shearHoldN: site.shearHoldN,
    factor,
    iceMm: site.iceMm,
  });
  return { name, load, gustMS };
};

/** Longer than so many times its own thickness above the bracket a pole is a thin one (ours). */
const THIN_FROM = 20;

/** What a pole above its bracket is like in wind; null where nothing stands above the bracket, or nobody measured it. */
export const poleLike = (site: Pick<KitSite, "poleAboveM" | "poleMm">): "stiff pole" | "thin pole" | null =>
  site.poleAboveM === 0 || site.poleMm === null ? null : site.poleAboveM * 1000 > THIN_FROM * site.poleMm ? "thin pole" : "stiff pole";

/** The pole of the kit held against what the plan says the mount stands on. */
export const swayFindings = (site: KitSite, stands: Stands | null): MountFinding[] => {
  const like = poleLike(site);
  if (like === null || stands === "tree" || (stands !== null && TWIST_DEG[stands] >= TWIST_DEG[like])) return [];
  return [{ code: "sways", verdict: stands === null ? "unknown" : "tight", stands, like, aboveM: site.poleAboveM }];
};

export interface JudgedMounts {
  readonly findings: readonly MountFinding[];
  /** Wind on the mount that bears it worst; null while none can be worked out. */
  readonly wind: MountWind | null;
  /** Height of the highest, and the length of what is raised to it; null without a radio. */
  readonly topAglM: number;
  readonly reachM: number | null;
}

/** Straps, wind, wall and ladders of a site's radios. */
export const judgeMounts = (radios: readonly PlaceFields[], mountOf: MountOf, site: KitSite, kit: KitFields): JudgedMounts => {
  if (radios.length === 0) return { findings: [], wind: null, topAglM: 0, reachM: null };
  const findings: MountFinding[] = [];
  const mounts = radios.map((place) => ({ place, mounted: mountOf(place) }));
  for (const { place, mounted } of mounts) {
    for (const u of piecesOf(mounted)) {
      const straps = u.poleDiameterMm;
      if (site.poleMm !== null && straps !== undefined && (site.poleMm < straps.low || site.poleMm > straps.high))
        findings.push({
          code: "strap",
          verdict: "short",
          name: u === mounted.radio ? place.name : `${u.name} of ${place.name}`,
          poleMm: site.poleMm,
          ...straps,
        });
    }
    if ((place.aglM ?? 0) > 0 && ladderFor(site.stepOffM ?? place.aglM ?? 0) === null)
      findings.push({ code: "lift", verdict: "tight", name: place.name, aglM: place.aglM ?? 0 });
    const silent = silentOf(mounted);
    if (silent.length > 0) findings.push({ code: "sheet-silent", verdict: "unknown", name: place.name, silent });
  }
  if (site.poleMm === null) findings.push({ code: "pole-untold", verdict: "unknown" });
  if (site.newBracket && site.wall === "unknown") findings.push({ code: "wall-unknown", verdict: "unknown" });
  const topAglM = Math.max(...radios.map((r) => r.aglM ?? 0));
  const stepM = site.stepOffM ?? topAglM;
  const asksM = ladderM(stepM);
  const longestM = Math.max(0, ...kit.laddersM);
  if (topAglM > NO_LADDER_BELOW_M && kit.laddersM.length > 0 && ladderFor(stepM) !== null && longestM < asksM)
    findings.push({ code: "ladder", verdict: "short", asksM, longestM });
  const gustMS = gustOf(kit);
  if (gustMS === null) findings.push({ code: "wind-untold", verdict: "unknown" });
  const winds =
    gustMS === null
      ? []
      : (site.poles === "one" && mounts.length > 1
          ? [
              windOn(
                `All ${mounts.length} radios on one pole`,
                mounts.map((m) => m.mounted),
                site,
                gustMS,
                kit.fixingFactor,
              ),
            ]
          : mounts.map((m) => windOn(m.place.name, [m.mounted], site, gustMS, kit.fixingFactor))
        )
          .filter((w) => w !== null)
          .sort(worse);
  // What is not known is one question for all.
  for (const [i, { name, load }] of winds.entries())
    if (load.verdict === "short" || (load.verdict === "unknown" && i === 0))
      findings.push({ code: "fixing", verdict: load.verdict, name, load });
  return { findings, wind: winds[0] ?? null, topAglM, reachM: Math.max(asksM, topAglM) };
};
