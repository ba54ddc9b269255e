/*
 * Other shapes of a hub for the same remotes, compared: as planned, turned, the fewest sectors, one omni, one sector, narrow ones,
 * a pair for each, a node whose faces turn their beams. Beam and air are judged; sight is judged once, where it stands (ours).
 */
import { isSteered } from "../antenna";
import { type Verdict, worseVerdict } from "../link";
import type { Unit } from "../rack";
import type { AirPolicy } from "./airtime";
import type { SectorAim } from "./beam";
import { askedOf, type HubRemote, type JudgedSector, judgeSector, onAxisOf, promisedDbOf, seenFromHub } from "./hub";
import { type FoundSectors, findSectors, MOST_REMOTES, type SectorChoice } from "./sectors";
import { pathKeeper, patternOfUnit, planUnder, shapeOfUnit, type TriedRemote } from "./under";

export type ShapeKind = "planned" | "turned" | "fewest" | "omni" | "one-sector" | "narrow" | "pairs" | "faces";

export interface ShapeSector {
  readonly unit: Unit;
  /** Null, both: it looks at its remotes themselves. */
  readonly azimuthDeg: number | null;
  readonly tiltDeg: number | null;
  readonly remotes: readonly string[];
}

/** As it would be set. */
export interface SetSector extends ShapeSector {
  readonly powerDbm: number;
  readonly centreMhz: number;
  readonly widthMhz: number;
}

export interface Shape {
  readonly kind: ShapeKind;
  readonly sectors: readonly SetSector[];
  /** What stands at the remotes instead of what is there; null where they keep their own. */
  readonly remoteUnit: Unit | null;
  readonly leftOver: readonly string[];
  /** Their need kept on what the pattern promises, and kept on a side lobe that nobody promises. */
  readonly served: number;
  readonly onLobes: number;
  readonly of: number;
  /** Share of all the air that is asked in the fullest sector, and what may be used of it. */
  readonly fullest: number;
  readonly mayUse: number;
  /** Mbps back that the worst off gets when all send, by equal time. */
  readonly leastEachMbps: number;
  /** Units on the mast and at the remotes; null where a sheet states no price. */
  readonly priceEur: number | null;
  readonly units: number;
  readonly channels: number;
  /** How far off a remote that asks as much as the one that asks most could stand in the open, on the axis, m. */
  readonly reachM: number | null;
  readonly verdict: Verdict;
}

export interface ShapeQuestion {
  readonly remotes: readonly TriedRemote[];
  /** As planned: what hangs on which sector. */
  readonly sectors: readonly {
    readonly unit: Unit;
    readonly azimuthDeg: number | null;
    readonly tiltDeg: number | null;
    readonly linkIds: readonly string[];
  }[];
  readonly units: readonly Unit[];
  readonly policy: AirPolicy;
}

/** A place on the raster lies up to half a step beside the true one: so much is kept from where a pattern promises nothing (ours). */
const RASTER_DB = 1;
const NARROW_DEG = 60;
const MOST_SECTORS = 4;
const TILTS = { tiltFromDeg: -20, tiltToDeg: 5 } as const;
const FACES = 4;

const sharesOut = (u: Unit): boolean => u.radio.roles.includes("hub") || u.radio.roles.includes("mesh node");
const priceOf = (list: readonly (Unit | null)[]): number | null =>
  list.reduce<number | null>((n, u) => (n === null || u?.priceEur == null ? null : n + u.priceEur), 0);
const cheapest = (list: readonly Unit[]): Unit | null =>
  [...list].sort(
    (a, b) => (a.priceEur ?? Number.POSITIVE_INFINITY) - (b.priceEur ?? Number.POSITIVE_INFINITY) || a.key.localeCompare(b.key),
  )[0] ?? null;

/** Opens the comparison; each shape is worked out when it is asked for. */
export const openShapes = (q: ShapeQuestion) => {
  const stateFor = pathKeeper();
  const all = q.remotes.reduce((n, r) => n + askedOf(r), 0);
  const mayUse = q.policy.school === "headroom" ? 1 - q.policy.freeShare : 1;
  const partOf = (r: HubRemote): number => (all === 0 ? mayUse : Math.max(1e-6, (mayUse * askedOf(r)) / all));
  const under = (r: TriedRemote, unit: Unit | null, remote: Unit | null, aim: SectorAim | null): HubRemote => {
    const plan = planUnder(r, { hub: unit, remote, aim });
    return { linkId: r.linkId, name: r.name, hubIsNear: r.hubIsNear, plan, state: stateFor(r, plan) };
  };
  const byId = new Map(q.remotes.map((r) => [r.linkId, r]));
  const family = q.sectors[0]?.unit.radio.family;
  const own = q.units.filter((u) => u.radio.family === family);
  const ownRemoteUnits = q.remotes.map((r) => {
    const e = r.hubIsNear ? r.plan.far : r.plan.near;
    return q.units.find((u) => u.radio.id === e.radio.id && (u.antenna?.id ?? null) === (e.antenna?.id ?? null)) ?? null;
  });

  const judged = (s: ShapeSector, remoteUnit: Unit | null): JudgedSector | null => {
    const [first] = s.remotes.flatMap((id) => byId.get(id) ?? []);
    if (first === undefined) return null;
    const aim = s.azimuthDeg === null || s.tiltDeg === null ? null : { azimuthDeg: s.azimuthDeg, tiltDeg: s.tiltDeg };
    const remotes = s.remotes.flatMap((id) => {
      const r = byId.get(id);
      return r === undefined ? [] : [under(r, s.unit, remoteUnit, aim)];
    });
    const pattern = patternOfUnit(s.unit, remotes[0]!.plan.centreMhz);
    if (pattern === null) return null;
    const seen = seenFromHub(remotes[0]!);
    return judgeSector(remotes, pattern, aim ?? { azimuthDeg: seen.bearingDeg, tiltDeg: seen.elevationDeg }, q.policy, null);
  };
  const reachOf = (s: ShapeSector | undefined, remoteUnit: Unit | null): number | null => {
    const [most] = [...q.remotes].sort((a, b) => askedOf(b) - askedOf(a));
    if (s === undefined || most === undefined || all === 0) return null;
    const r = under(most, s.unit, remoteUnit, null);
    const { marginDb } = onAxisOf(r, partOf(r));
    if (!Number.isFinite(marginDb)) return null;
    const open = r.state.rayM * 10 ** (marginDb / 20);
    return Math.min(open, s.unit.radio.maxLinkKm * 1000);
  };
  const shape = (kind: ShapeKind, given: readonly ShapeSector[], remoteUnit: Unit | null = null): Shape => {
    const sectors = given.filter((s) => s.remotes.some((id) => byId.has(id)));
    const each = sectors.map((s) => judged(s, remoteUnit));
    const on = new Set(sectors.flatMap((s) => s.remotes));
    const leftOver = q.remotes.filter((r) => !on.has(r.linkId)).map((r) => r.linkId);
    const remotes = each.flatMap((j) => j?.remotes ?? []);
    const served = remotes.filter((r) => r.joins && r.service === "clear").length;
    const holding = each.flatMap((j) => j?.air.remotes ?? []).filter((r) => r.backMbps > 0);
    const remoteUnits = remoteUnit === null ? ownRemoteUnits : q.remotes.map(() => remoteUnit);
    const steered = sectors.some((s) => isSteered(shapeOfUnit(s.unit)?.form ?? ""));
    const mast = steered ? sectors.slice(0, 1) : sectors;
    const verdict = each.reduce<Verdict>(
      (v, j) =>
        j === null
          ? "short"
          : j.remotes.reduce<Verdict>((w, r) => worseVerdict(w, r.joins ? r.service : "short"), worseVerdict(v, j.airVerdict)),
      leftOver.length > 0 ? "short" : "clear",
    );
    return {
      kind,
      sectors: sectors.map((s): SetSector => {
        const r = byId.get(s.remotes[0] ?? "")!;
        const plan = planUnder(r, { hub: s.unit, remote: remoteUnit, aim: null });
        return { ...s, powerDbm: (r.hubIsNear ? plan.near : plan.far).txPowerDbm, centreMhz: plan.centreMhz, widthMhz: plan.widthMhz };
      }),
      remoteUnit,
      leftOver,
      served,
      onLobes: remotes.filter((r) => r.joins && r.service === "tight").length,
      of: q.remotes.length,
      fullest: Math.max(0, ...each.map((j) => j?.air.asked ?? 0)),
      mayUse,
      leastEachMbps: holding.length === 0 ? 0 : Math.min(...holding.map((r) => r.equalTimeMbps)),
      priceEur: priceOf([...mast.map((s) => s.unit), ...remoteUnits]),
      units: mast.length,
      channels: sectors.length,
      reachM: reachOf(sectors[0], remoteUnit),
      verdict,
    };
  };

  const choicesOf = (units: readonly Unit[]): { readonly unit: Unit; readonly choice: SectorChoice }[] =>
    units.flatMap((unit) => {
      const remotes = q.remotes.map((r) => under(r, unit, null, null));
      const pattern = remotes[0] === undefined ? null : patternOfUnit(unit, remotes[0].plan.centreMhz);
      if (pattern === null) return [];
      const axis = remotes.map((r) => onAxisOf(r, partOf(r)));
      return [
        {
          unit,
          choice: {
            id: unit.key,
            priceEur: unit.priceEur,
            relativeDb: pattern.relativeDb,
            promisedDb: promisedDbOf(pattern) + RASTER_DB,
            marginDb: axis.map((x) => x.marginDb),
            airShare: axis.map((x) => x.airShare),
          },
        },
      ];
    });
  const places = q.remotes.map((r) =>
    seenFromHub({ hubIsNear: r.hubIsNear, state: stateFor(r, planUnder(r, { hub: null, remote: null, aim: null })) }),
  );
  const found = (
    units: readonly Unit[],
    mostSectors: number,
  ): { readonly sectors: ShapeSector[]; readonly search: FoundSectors } | null => {
    if (q.remotes.length > MOST_REMOTES) return null;
    const choices = choicesOf(units);
    if (choices.length === 0) return null;
    const search = findSectors(
      places,
      choices.map((c) => c.choice),
      { mostSectors, mayUse, ...TILTS },
    );
    if (search.sectors.length === 0) return null;
    return {
      search,
      sectors: search.sectors.map((s) => ({
        unit: choices[s.choice]!.unit,
        azimuthDeg: s.azimuthDeg,
        tiltDeg: s.tiltDeg,
        remotes: s.remotes.map((i) => q.remotes[i]!.linkId),
      })),
    };
  };
  const hubs = own.filter((u) => sharesOut(u) && !isSteered(shapeOfUnit(u)?.form ?? ""));
  const isOmni = (u: Unit): boolean => shapeOfUnit(u)?.form === "omni";
  const wide = (u: Unit): number => patternOfUnit(u, q.remotes[0]?.plan.centreMhz ?? 5600)?.azimuthBeamwidthDeg ?? 360;
  const searched = (kind: ShapeKind, units: readonly Unit[], most: number): Shape | null => {
    const s = found(units, most);
    return s === null ? null : shape(kind, s.sectors);
  };
  /** Each sector as it is, looking where the worst of its remotes is best off. */
  const turned = (): Shape | null => {
    const sectors = q.sectors.map((s): ShapeSector => {
      const only = openShapes({ ...q, remotes: q.remotes.filter((r) => s.linkIds.includes(r.linkId)) });
      const best = only.found([s.unit], 1)?.search.sectors[0];
      return { unit: s.unit, azimuthDeg: best?.azimuthDeg ?? s.azimuthDeg, tiltDeg: best?.tiltDeg ?? s.tiltDeg, remotes: s.linkIds };
    });
    return shape("turned", sectors);
  };
  const pairs = (): Shape | null => {
    const fits = own.filter((u) => u.radio.roles.includes("near/far"));
    const sectors = q.remotes.map((r, i): ShapeSector | null => {
      // Its own kind at both ends where that is made for it, else the cheapest that makes a link.
      const like = ownRemoteUnits[i] ?? null;
      const unit = like !== null && fits.includes(like) ? like : cheapest(fits);
      return unit === null ? null : { unit, azimuthDeg: null, tiltDeg: null, remotes: [r.linkId] };
    });
    return sectors.some((s) => s === null) ? null : shape("pairs", sectors as ShapeSector[]);
  };
  const faces = (): Shape | null => {
    const node = cheapest(q.units.filter((u) => u.radio.roles.includes("mesh node") && isSteered(shapeOfUnit(u)?.form ?? "")));
    const remote =
      node === null ? null : cheapest(q.units.filter((u) => u.radio.family === node.radio.family && u.radio.roles.includes("remote")));
    if (node === null || remote === null) return null;
    const groups = Array.from({ length: FACES }, (_, f) =>
      q.remotes.filter((_r, i) => Math.floor((places[i]!.bearingDeg % 360) / (360 / FACES)) === f),
    );
    const sectors = groups
      .filter((g) => g.length > 0)
      .map((g): ShapeSector => ({ unit: node, azimuthDeg: null, tiltDeg: null, remotes: g.map((r) => r.linkId) }));
    return shape("faces", sectors, remote);
  };
  const planned = (): Shape =>
    shape(
      "planned",
      q.sectors.map((s) => ({ unit: s.unit, azimuthDeg: s.azimuthDeg, tiltDeg: s.tiltDeg, remotes: s.linkIds })),
    );
  return {
    found,
    shape,
    /** In order; those that no unit of the catalogue makes are null. */
    each: {
      planned,
      turned,
      pairs,
      "one-sector": () =>
        searched(
          "one-sector",
          hubs.filter((u) => !isOmni(u)),
          1,
        ),
      omni: () => searched("omni", hubs.filter(isOmni), 1),
      faces,
      // Last what may take long: its time grows with every set of remotes.
      narrow: () =>
        searched(
          "narrow",
          hubs.filter((u) => !isOmni(u) && wide(u) <= NARROW_DEG),
          MOST_SECTORS,
        ),
      fewest: () => searched("fewest", hubs, MOST_SECTORS),
    } satisfies Readonly<Record<ShapeKind, () => Shape | null>>,
  };
};
