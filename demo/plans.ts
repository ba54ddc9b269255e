import { AIMED, assembleProfile, type LinkPlan, type PathProfile } from "../src/core/link";
import { usesOf } from "../src/core/radio";
import type { TerrainGrid } from "../src/core/terrain";
import { CLIMATE, end, POLICY, plan } from "../src/core/testing/scene";
import type { DemoJob } from "./generate";
import { obstacleInputsOf, terrainGridOf } from "./grids";
import { demoHardware } from "./seed";

/* The demo's links as the core takes them, without a database: for tests and timings. */

const YEAR = 2026;
const catalogue = demoHardware();

export const gridsOf = (demo: DemoJob): TerrainGrid[] => demo.grids.map((g, i) => terrainGridOf(g, String(i)));

const obstacles = new WeakMap<DemoJob, ReturnType<typeof obstacleInputsOf>>();

/** One planned link with its sampled path. */
export const plannedPath = (
  demo: DemoJob,
  grids: readonly TerrainGrid[],
  l: DemoJob["links"][number],
): { planned: LinkPlan; profile: PathProfile } => {
  const [near, far] = [l.near, l.far].map((key) => demo.sites.find((s) => s.key === key)!) as [
    DemoJob["sites"][number],
    DemoJob["sites"][number],
  ];
  const bodies = obstacles.get(demo) ?? obstacleInputsOf(demo, YEAR);
  obstacles.set(demo, bodies);
  const profile = assembleProfile(near.position, far.position, grids, bodies, demo.features, YEAR);
  const radios = l.radio.map((id) => catalogue.radios.find((r) => r.id === id)!);
  const at = (s: typeof near, i: 0 | 1) =>
    end(s.name, s.mountAglM, {
      mountMaxAglM: s.mountMaxAglM,
      txPowerDbm: l.powerDbm[i],
      radio: radios[i]!,
      use: usesOf(radios[0]!, radios[1]!)[i],
      barrier: i === 1 && l.farWall !== undefined ? { kind: "material", material: l.farWall } : null,
      aim: i === 0 && l.nearAim !== undefined ? l.nearAim : AIMED,
    });
  const planned = plan(at(near, 0), at(far, 1), {
    centreMhz: l.centreMhz,
    widthMhz: l.widthMhz,
    needToFarMbps: l.needMbps[0],
    needToNearMbps: l.needMbps[1],
    policy: POLICY,
    climate: CLIMATE,
  });
  return { planned, profile };
};
