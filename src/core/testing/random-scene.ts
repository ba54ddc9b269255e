/* Scenes of all kinds from a seed: for properties over whole evaluations. */
import type { LinkPlan, PathProfile } from "../link";
import type { BodyKind, PathBody } from "../obstacles";
import { body, CLIMATE, end, plan, profile, seeded } from "./scene";

export interface TurnedBox {
  readonly atM: number;
  readonly offsetM: number;
  readonly lengthM: number;
  readonly thickM: number;
  readonly turnDeg: number;
  readonly heightM: number;
  readonly kind: BodyKind;
}

/** An outline of four corners, `lengthM` across the path when not turned, turned about its own middle. */
export const turned = (b: TurnedBox, id = "b"): PathBody => {
  const a = (b.turnDeg * Math.PI) / 180;
  const corners = [
    [-b.thickM / 2, -b.lengthM / 2],
    [b.thickM / 2, -b.lengthM / 2],
    [b.thickM / 2, b.lengthM / 2],
    [-b.thickM / 2, b.lengthM / 2],
  ] as const;
  return body({
    id,
    name: id,
    kind: b.kind,
    xM: corners.map(([x, y]) => b.atM + x * Math.cos(a) - y * Math.sin(a)),
    yM: corners.map(([x, y]) => b.offsetM + x * Math.sin(a) + y * Math.cos(a)),
    heightM: b.heightM,
    heightSigmaM: 0.3,
  });
};

export interface Scene {
  readonly plan: LinkPlan;
  readonly pathM: number;
  readonly bodies: readonly TurnedBox[];
  readonly profile: PathProfile;
}

/** @param bodies how many bodies stand about the middle of the path. @param rough height of the ground's waves, metres. */
export const sceneOf = (seed: number, bodies: number, roughM: number, sigmaM = 0.15): Scene => {
  const u = seeded(seed);
  const between = (a: number, b: number): number => a + (b - a) * u();
  const pathM = 10 ** between(1.8, 3.7);
  const f1M = Math.sqrt((0.0545 * pathM) / 4);
  const near = between(6, 25);
  const far = between(6, 25);
  const waves = Array.from({ length: 4 }, (_, i) => ({
    size: (roughM * u()) / (i + 1),
    turns: between(0.5, 3) * (i + 1),
    at: between(0, 6.3),
  }));
  const ground = (x: number): number => waves.reduce((s, w) => s + w.size * Math.sin((w.turns * 6.283 * x) / pathM + w.at), 0);
  const boxes = Array.from({ length: bodies }, (): TurnedBox => {
    const share = between(0.15, 0.85);
    const kind = (["building", "wall", "row", "building"] as const)[Math.floor(u() * 4)]!;
    return {
      atM: pathM * share,
      offsetM: between(-2.5, 2.5) * f1M,
      lengthM: between(0.3, 4) * f1M + (u() < 0.3 ? 40 : 0),
      thickM: u() < 0.4 ? 0.4 : between(1, 12),
      turnDeg: between(-85, 85),
      heightM: Math.max(1, near + (far - near) * share + between(-1.5, 2) * f1M),
      kind,
    };
  });
  const p = plan(end("A", near, { positionSigmaM: u() < 0.5 ? 0.5 : 4 }), end("B", far, { positionSigmaM: u() < 0.5 ? 0.5 : 4 }), {
    climate: CLIMATE,
    water: { surface: "none", tideRangeM: 0, roughnessM: 0 },
  });
  const base = profile(
    pathM,
    ground,
    boxes.map((b, i) => ({ ...turned(b, `b${i}`), baseAmslM: ground(b.atM) })),
    300,
  );
  return { plan: p, pathM, bodies: boxes, profile: { ...base, datasets: [{ ...base.datasets[0]!, cellM: sigmaM > 1 ? 30 : 2, sigmaM }] } };
};
