import type { BodyKind } from "@/core/obstacles";
import type { DrawShape } from "../../map/ground-tools";

/** What can be drawn, how it is drawn, and the figures a new one starts with: to be changed, never taken for measured. */
export interface DrawKind {
  readonly key: string;
  readonly name: string;
  readonly shape: DrawShape;
  /** Null: named ground, no obstacle. */
  readonly kind: BodyKind | null;
  readonly heightM: number;
  readonly sigmaM: number;
  /** Width of a line, or twice the radius of a point. */
  readonly widthM: number;
  readonly growthMPerYear: number;
  readonly freeBelowM: number;
  readonly usualM: { readonly least: number; readonly most: number };
}

const plain = { widthM: 1, growthMPerYear: 0, freeBelowM: 0 };

export const DRAW_KINDS: readonly DrawKind[] = [
  {
    key: "building",
    name: "Building",
    shape: "polygon",
    kind: "building",
    heightM: 6,
    sigmaM: 1,
    ...plain,
    usualM: { least: 2, most: 40 },
  },
  {
    key: "wood",
    name: "Wood",
    shape: "polygon",
    kind: "wood",
    heightM: 14,
    sigmaM: 3,
    ...plain,
    growthMPerYear: 0.3,
    usualM: { least: 3, most: 45 },
  },
  {
    key: "row",
    name: "Row of trees",
    shape: "line",
    kind: "row",
    heightM: 9,
    sigmaM: 2,
    ...plain,
    widthM: 6,
    growthMPerYear: 0.4,
    usualM: { least: 3, most: 40 },
  },
  {
    key: "crown",
    name: "Single tree",
    shape: "point",
    kind: "crown",
    heightM: 9,
    sigmaM: 2,
    ...plain,
    widthM: 6,
    growthMPerYear: 0.4,
    usualM: { least: 3, most: 40 },
  },
  {
    key: "hedge",
    name: "Hedge",
    shape: "line",
    kind: "hedge",
    heightM: 2,
    sigmaM: 0.5,
    ...plain,
    widthM: 1.5,
    growthMPerYear: 0.2,
    usualM: { least: 0.5, most: 6 },
  },
  {
    key: "wall",
    name: "Wall",
    shape: "line",
    kind: "wall",
    heightM: 2,
    sigmaM: 0.3,
    ...plain,
    widthM: 0.4,
    usualM: { least: 0.5, most: 12 },
  },
  {
    key: "mast",
    name: "Mast or pole",
    shape: "point",
    kind: "mast",
    heightM: 10,
    sigmaM: 1,
    ...plain,
    widthM: 0.6,
    usualM: { least: 2, most: 120 },
  },
  {
    key: "line",
    name: "Overhead line",
    shape: "line",
    kind: "line",
    heightM: 10,
    sigmaM: 1,
    ...plain,
    widthM: 4,
    freeBelowM: 6,
    usualM: { least: 5, most: 60 },
  },
  {
    key: "crane",
    name: "Crane's reach",
    shape: "point",
    kind: "crane",
    heightM: 30,
    sigmaM: 2,
    ...plain,
    widthM: 60,
    freeBelowM: 25,
    usualM: { least: 8, most: 120 },
  },
  {
    key: "vehicle",
    name: "Vehicles pass",
    shape: "line",
    kind: "vehicle",
    heightM: 4.2,
    sigmaM: 0.3,
    ...plain,
    widthM: 7,
    usualM: { least: 1.5, most: 6 },
  },
  { key: "feature-point", name: "Named place", shape: "point", kind: null, heightM: 0, sigmaM: 0, ...plain, usualM: { least: 0, most: 1 } },
  { key: "feature-line", name: "Named line", shape: "line", kind: null, heightM: 0, sigmaM: 0, ...plain, usualM: { least: 0, most: 1 } },
];

export const KIND_NAME: Readonly<Record<BodyKind, string>> = {
  building: "Building",
  wall: "Wall",
  mast: "Mast or pole",
  wood: "Wood",
  row: "Row of trees",
  crown: "Single tree",
  hedge: "Hedge",
  line: "Overhead line",
  crane: "Crane's reach",
  vehicle: "Vehicles pass",
};
