/* What one draw does to the level against its median: ground and bodies, leaves, walls, aim, water. */
import type { Pattern } from "../antenna";
import { isSolid } from "../obstacles";
import { knifeEdgeLossDb, type LeafLoss, leafLoss, vOfShare } from "../propagation";
import { type BodySection, clearOfSectionM } from "./body-sections";
import { AIMING_SHARE } from "./direction";
import { diffractionDraw } from "./draw-diffraction";
import { between, type Draw } from "./draws";
import { patternOfEnd } from "./end-gear";
import type { GroundField } from "./ground-field";
import type { PathState } from "./path-state";
import { reflectedAt, reflectorOf } from "./reflection-summary";
import type { Direction, LinkPlan } from "./types";
import { type CrownEdges, crownEdges, crownLossDb } from "./vegetation-term";

const AIMED_BELOW_DEG = 60;

export interface LevelOfDraw {
  readonly obstructionDb: number;
  readonly leavesDb: number;
  readonly aimDb: number;
  readonly reflectionDb: number;
  readonly wallsDb: number;
}

interface Crown {
  readonly edges: CrownEdges;
  readonly leaf: LeafLoss;
  readonly section: number;
}

/** Every crown within reach of the errors, also one that costs nothing yet. */
const crownsOf = (plan: LinkPlan, state: PathState, sections: readonly BodySection[]): Crown[] =>
  sections.flatMap((s, section) => {
    const prepared = s.vegetation ? state.path.standing.find((b) => b.body === s.body) : undefined;
    const edges = prepared === undefined ? null : crownEdges(state.ray, prepared, prepared.topAt(plan.policy.year));
    if (edges === null) return [];
    return [{ edges, leaf: leafLoss(plan.centreMhz / 1000, edges.depthM, plan.policy.leaf), section }];
  });

const leavesLossDb = (crowns: readonly Crown[], draw: Draw, field: GroundField): number => {
  let lossDb = 0;
  for (const { edges: e, leaf, section } of crowns) {
    const upM = draw.rayUpM(e.atM) - field.at(e.atM) - draw.errorM(section);
    const aside = draw.asideM(e.atM) * e.vPerM;
    const throughDb = between(leaf.leastDb, leaf.medianDb, leaf.mostDb, draw.leafShare);
    lossDb += crownLossDb(e.topV - upM * e.vPerM, e.leftV + aside, e.rightV - aside, throughDb);
  }
  return lossDb;
};

/** Loss of the ends' own buildings against what they already cost. */
const ownEdgeDb = (own: readonly { section: BodySection; at: number; baseDb: number }[], draw: Draw, field: GroundField): number => {
  let sumDb = 0;
  for (const { section: s, at, baseDb } of own) {
    const roomM = clearOfSectionM(s, draw.rayUpM(s.atM) - field.at(s.atM) - draw.errorM(at), draw.asideOfM(s.body.carries, s.atM));
    sumDb += knifeEdgeLossDb(vOfShare(roomM / s.f1M)) - baseDb;
  }
  return sumDb;
};

const aimOfDraw = (patterns: readonly Pattern[], uniform: () => number): number => {
  let aimDb = 0;
  for (const p of patterns) {
    const az = (2 * uniform() - 1) * AIMING_SHARE * p.azimuthBeamwidthDeg;
    const el = (2 * uniform() - 1) * AIMING_SHARE * p.elevationBeamwidthDeg;
    // Wide beams are not aimed; their numbers are drawn all the same, so that the order of draws stays.
    if (Math.min(p.azimuthBeamwidthDeg, p.elevationBeamwidthDeg) < AIMED_BELOW_DEG) aimDb += p.relativeDb(az, el);
  }
  return aimDb;
};

export const levelDraw = (
  plan: LinkPlan,
  state: PathState,
  direction: Pick<Direction, "terms">,
  field: GroundField,
  sections: readonly BodySection[],
  uniform: () => number,
): ((draw: Draw) => LevelOfDraw) => {
  const diffraction = diffractionDraw(plan, state, field);
  const baseDiffractionDb = state.obstructed?.loss.medianDb ?? 0;
  const crowns = crownsOf(plan, state, sections);
  const baseLeavesDb = crowns.reduce((s, c) => s + crownLossDb(c.edges.topV, c.edges.leftV, c.edges.rightV, c.leaf.medianDb), 0);
  const screenSections = state.path.screens().map((x) => sections.findIndex((s) => s.body === x.prepared.body));
  const screenError = (draw: Draw) => (screen: number) => {
    const at = screenSections[screen]!;
    return at < 0 ? 0 : draw.errorM(at);
  };
  const own = sections.flatMap((section, at) => {
    if (section.body.carries === null || section.vegetation || !isSolid(section.body.kind)) return [];
    return [{ section, at, baseDb: knifeEdgeLossDb(vOfShare(clearOfSectionM(section, 0, 0) / section.f1M)) }];
  });
  const spreadDb = Number(state.obstruction.find((t) => t.id === "diffraction")?.inputs.spreadDb ?? 0);
  const reflector = reflectorOf(plan, state);
  const patterns = [plan.near, plan.far].map((end) => patternOfEnd(state.path, end));
  const walls = direction.terms.filter((t) => t.id.startsWith("barrier") && t.valueDb < 0);
  return (draw) => {
    const lossDb = diffraction === null ? baseDiffractionDb : diffraction(draw, screenError(draw));
    // The ways round a screen may add up or cancel by chance.
    const waysDb = spreadDb * (2 * uniform() - 1);
    let wallsDb = 0;
    for (const w of walls) wallsDb -= between(-(w.betterByDb ?? 0), 0, w.worseByDb, uniform());
    const reflected =
      reflector === null
        ? null
        : reflectedAt(plan, state, reflector, {
            tideM: reflector.tideRangeM * draw.tideShare,
            nearAmslM: state.nearAmslM + draw.nearMountM,
            farAmslM: state.farAmslM + draw.farMountM,
            kFactor: draw.kFactor,
            roughnessM: draw.roughnessM,
          });
    return {
      obstructionDb: baseDiffractionDb - lossDb + waysDb - ownEdgeDb(own, draw, field),
      leavesDb: baseLeavesDb - leavesLossDb(crowns, draw, field),
      aimDb: aimOfDraw(patterns, uniform),
      reflectionDb: reflected?.relativeDb ?? 0,
      wallsDb,
    };
  };
};
