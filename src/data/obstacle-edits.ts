import type { LonLat, RowOf } from "../contract";
import type { LatLon } from "../core/geo";
import type { BodyKind } from "../core/obstacles";
import { asOneStep } from "./actor";
import { Refused } from "./clash";
import type { Db } from "./client";
import { edit } from "./records";

/** An obstacle on its way in from a file. */
export interface ObstacleFields {
  readonly name: string;
  readonly kind: BodyKind;
  readonly outline: readonly LatLon[];
  readonly holes?: readonly (readonly LatLon[])[];
  readonly baseAmslM: number | null;
  readonly heightM: number;
  readonly crownBaseM: number;
  readonly freeBelowM: number;
  readonly growthMPerYear: number;
  readonly heightSigmaM: number;
  readonly species: string | null;
  readonly leaf: string | null;
  readonly source: string;
  readonly heightSource: string;
  readonly surveyedOn: string;
}

/** Cuts one obstacle into several: the first keeps its row, the others are new; one step of the history. */
export const splitObstacle = (db: Db, jobId: string, id: string, version: number, parts: readonly LonLat[][]): Promise<RowOf<"obstacle">> =>
  asOneStep(() =>
    edit(db, jobId, async (door) => {
      const [first, ...others] = parts as [number, number][][];
      const row = await door.patch("obstacle", id, version, { outline: first! });
      if (row.holes.length > 0) throw new Refused("has-courtyards", "outline");
      for (const outline of others) await door.create("obstacle", { ...row, outline });
      return row;
    }),
  );
