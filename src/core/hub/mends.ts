/* What would help one sector, each tried through the same core: a lower mount, another unit on the mast, a better one at a remote. */
import { worseVerdict } from "../link";
import type { Unit } from "../rack";
import type { AirPolicy } from "./airtime";
import type { SectorAim } from "./beam";
import { type JudgedSector, judgeSector } from "./hub";
import { openShapes, type Shape } from "./shapes";
import { pathKeeper, patternOfUnit, planUnder, type TriedRemote } from "./under";

export interface SectorQuestion {
  readonly remotes: readonly TriedRemote[];
  readonly unit: Unit;
  readonly aim: SectorAim;
  readonly mountAglM: number;
  readonly units: readonly Unit[];
  readonly policy: AirPolicy;
}

export interface SectorMends {
  /** The least lowering with which more of its remotes are well, and none is worse. */
  readonly lower: { readonly mountAglM: number; readonly well: number } | null;
  /** The same remotes under one other unit, looking where it does best; null where none serves more of them. */
  readonly antenna: Shape | null;
  /** The one remote that with another unit of its family takes least of the air, and by how much less. */
  readonly better: { readonly linkId: string; readonly unit: Unit; readonly freed: number } | null;
}

const LOWEST_M = 2;
const STEP_M = 0.5;
const RANK = { clear: 0, tight: 1, unknown: 2, short: 3 } as const;
const LEAST_FREED = 0.005;

const wellOf = (j: JudgedSector): number => j.remotes.filter((r) => r.joins && r.service === "clear").length;

const lowerMount = (q: SectorQuestion, at: (aglM: number) => JudgedSector | null): SectorMends["lower"] => {
  const now = at(q.mountAglM);
  if (now === null || wellOf(now) === now.remotes.length) return null;
  for (let aglM = Math.ceil(q.mountAglM / STEP_M - 1) * STEP_M; aglM >= LOWEST_M; aglM -= STEP_M) {
    const j = at(aglM);
    if (j === null || wellOf(j) <= wellOf(now)) continue;
    const isWorse = j.remotes.some((r, i) => {
      const was = now.remotes[i]!;
      return RANK[worseVerdict(r.service, r.clearance)] > RANK[worseVerdict(was.service, was.clearance)];
    });
    if (!isWorse) return { mountAglM: aglM, well: wellOf(j) };
  }
  return null;
};

/** Units that a remote could have instead of its own: of the family, made to hang on a hub, none that is the same. */
const remoteUnits = (q: SectorQuestion): Unit[] =>
  q.units.filter((u) => u.radio.family === q.unit.radio.family && u.radio.roles.includes("remote"));

export const sectorMends = (q: SectorQuestion): SectorMends => {
  const stateFor = pathKeeper();
  const judged = (remotes: readonly TriedRemote[], remote: Unit | null, mountAglM: number): JudgedSector | null => {
    const under = remotes.map((r) => {
      const plan = planUnder(r, { hub: q.unit, remote, aim: q.aim, mountAglM });
      return { linkId: r.linkId, name: r.name, hubIsNear: r.hubIsNear, plan, state: stateFor(r, plan) };
    });
    const pattern = under[0] === undefined ? null : patternOfUnit(q.unit, under[0].plan.centreMhz);
    return pattern === null ? null : judgeSector(under, pattern, q.aim, q.policy, null);
  };
  const takenBy = (r: TriedRemote, unit: Unit | null): number => judged([r], unit, q.mountAglM)?.air.asked ?? Number.POSITIVE_INFINITY;
  let better: SectorMends["better"] = null;
  for (const r of q.remotes) {
    const now = takenBy(r, null);
    if (now === 0) continue;
    for (const unit of remoteUnits(q)) {
      const then = takenBy(r, unit);
      if (!Number.isFinite(then)) continue;
      // What holds nothing now asks for all of the air.
      const freed = Math.min(now, 1) - then;
      if (freed > LEAST_FREED && (better === null || freed > better.freed + 1e-9)) better = { linkId: r.linkId, unit, freed };
    }
  }
  const here = judged(q.remotes, null, q.mountAglM);
  const shapes = openShapes({
    remotes: q.remotes,
    sectors: [{ unit: q.unit, azimuthDeg: q.aim.azimuthDeg, tiltDeg: q.aim.tiltDeg, linkIds: q.remotes.map((r) => r.linkId) }],
    units: q.units.filter((u) => u.key !== q.unit.key),
    policy: q.policy,
  });
  const other = shapes.each["one-sector"]();
  const well = here === null ? 0 : wellOf(here);
  return {
    lower: lowerMount(q, (aglM) => judged(q.remotes, null, aglM)),
    antenna: other !== null && other.served > well ? other : null,
    better,
  };
};
