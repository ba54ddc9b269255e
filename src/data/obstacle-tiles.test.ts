/* Obstacles as vector tiles, on a real PostgreSQL: read back by another reader of the format, every one stands where its outline says. */

import MVT from "ol/format/MVT.js";
import { expect, test } from "vitest";
import { PLAN_RESOLUTIONS_M, PLAN_TILE_PX, planTileBox } from "../contract";
import { planeProjection, utmCrsOf } from "../core/geo";
import { obstacleTile } from "./obstacle-tiles";
import { testDb } from "./testing/db";
import { create, createJob, take } from "./testing/edits";

const db = testDb();

const CENTRE = { latDeg: 40, lonDeg: -30 };
const CRS = utmCrsOf(CENTRE);
const plane = planeProjection(CRS);
const EVERYWHERE = { westDeg: -31, southDeg: 39, eastDeg: -29, northDeg: 41 };
/** Units of a tile along its side, as its specification has it by default. */
const UNITS = 4096;

const house = (name: string, latDeg: number, lonDeg: number, sideDeg = 0.0002) => ({
  name,
  kind: "building" as const,
  outline: [
    [lonDeg, latDeg],
    [lonDeg + sideDeg, latDeg],
    [lonDeg + sideDeg, latDeg + sideDeg],
    [lonDeg, latDeg + sideDeg],
  ] as [number, number][],
  heightM: 7,
  heightSigmaM: 0.5,
  surveyedOn: "2026-01-01",
});

/** Everything in a tile, with its box in plane coordinates. */
const read = async (jobId: string, z: number, x: number, y: number) => {
  const square = planTileBox(z, x, y);
  const bytes = await obstacleTile(db, jobId, Number(CRS.slice(5)), square, EVERYWHERE, PLAN_RESOLUTIONS_M[z]!);
  const features = new MVT().readFeatures(new Uint8Array(bytes).buffer);
  const at = (v: number) => (v / UNITS) * square.sideM;
  return features.map((f) => {
    const [x0, y0, x1, y1] = f.getGeometry()!.getExtent() as [number, number, number, number];
    return {
      id: f.get("id") as string,
      name: f.get("name") as string,
      kind: f.get("kind") as string,
      // Rows of a tile count from its north edge down.
      box: [square.west + at(x0), square.south + square.sideM - at(y1), square.west + at(x1), square.south + square.sideM - at(y0)],
    };
  });
};
const tileOf = (z: number, p: { latDeg: number; lonDeg: number }): [number, number] => {
  const [x, y] = plane.forward(p);
  const side = PLAN_TILE_PX * PLAN_RESOLUTIONS_M[z]!;
  return [Math.floor(x / side), Math.floor(-y / side)];
};

test("each stands where its outline says, to a unit of the tile; what was taken away and what is another job's is not there", async () => {
  const job = await createJob(db, "Tiles", { centreLatDeg: CENTRE.latDeg, centreLonDeg: CENTRE.lonDeg });
  const other = await createJob(db, "Tiles of another", { centreLatDeg: CENTRE.latDeg, centreLonDeg: CENTRE.lonDeg });
  const kept = await create(db, job.id, "obstacle", house("Kept", 40.001, -29.999));
  const gone = await create(db, job.id, "obstacle", house("Gone", 40.0015, -29.999));
  await take(db, "obstacle", gone.id, gone.version);
  await create(db, other.id, "obstacle", house("Another's", 40.002, -29.999));
  const z = PLAN_RESOLUTIONS_M.indexOf(1);
  const rows = await read(job.id, z, ...tileOf(z, { latDeg: 40.001, lonDeg: -29.999 }));
  expect(rows.map((r) => [r.id, r.name, r.kind])).toEqual([[kept.id, "Kept", "building"]]);
  const corners = kept.outline.map(([lonDeg, latDeg]) => plane.forward({ latDeg, lonDeg }));
  const expected = [
    Math.min(...corners.map((c) => c[0])),
    Math.min(...corners.map((c) => c[1])),
    Math.max(...corners.map((c) => c[0])),
    Math.max(...corners.map((c) => c[1])),
  ];
  const unitM = (PLAN_TILE_PX * PLAN_RESOLUTIONS_M[z]!) / UNITS;
  rows[0]!.box.forEach((v, i) => {
    expect(Math.abs(v - expected[i]!)).toBeLessThanOrEqual(unitM);
  });
});

test("a house across two tiles is in both; a shed smaller than a pixel is left out of the coarse one and stands in the fine one", async () => {
  const job = await createJob(db, "Tiles, edges", { centreLatDeg: CENTRE.latDeg, centreLonDeg: CENTRE.lonDeg });
  const fine = PLAN_RESOLUTIONS_M.indexOf(1);
  const coarse = PLAN_RESOLUTIONS_M.indexOf(16);
  const [x, y] = tileOf(fine, CENTRE);
  const edge = planTileBox(fine, x + 1, y);
  const at = plane.inverse(edge.west, edge.south + edge.sideM / 2);
  await create(db, job.id, "obstacle", house("Across", at.latDeg, at.lonDeg - 0.0001));
  await create(db, job.id, "obstacle", house("Shed", at.latDeg + 0.0004, at.lonDeg + 0.0001, 0.00003));
  const names = async (z: number, tx: number, ty: number) => (await read(job.id, z, tx, ty)).map((r) => r.name).sort();
  expect(await names(fine, x, y)).toEqual(["Across"]);
  expect(await names(fine, x + 1, y)).toEqual(["Across", "Shed"]);
  expect(await names(coarse, ...tileOf(coarse, at))).toEqual(["Across"]);
});
