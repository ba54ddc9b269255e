import type { FieldsOf, InputOf, KindName, RowOf } from "../../contract";
import type { Tx } from "../changes";
import { NotFound } from "../clash";
import type { Db } from "../client";
import { getJob, type JobRow } from "../jobs";
import { edit, makeJob } from "../records";
import { storeOf } from "../stores";

/* Edits as the application makes them, in one line each, for tests and benchmarks. */

/** A job of its own, on level sea far from any other. */
export const createJob = async (db: Db, name: string, more: Partial<InputOf<"job">> = {}): Promise<JobRow> => {
  const input = {
    name,
    visitOn: "2026-12-03",
    centreLatDeg: 47.3,
    centreLonDeg: -19.4,
    ruleDomain: "FCC-like" as const,
    rainRate001MmH: 28,
  };
  return getJob(db, (await makeJob(db, { ...input, ...more })).id);
};

export const create = <K extends KindName>(db: Db, jobId: string, kind: K, input: InputOf<K>, bytes?: Buffer): Promise<RowOf<K>> =>
  edit(db, jobId, (door) => door.create(kind, input, bytes === undefined ? {} : { bytes }));

const jobOf = async (db: Db, kind: KindName, id: string): Promise<string> => {
  const row = await storeOf(kind).read(db as unknown as Tx, id, false);
  if (row === null) throw new NotFound(kind);
  return row.jobId;
};

export const patch = async <K extends KindName>(
  db: Db,
  kind: K,
  id: string,
  version: number,
  fields: Partial<FieldsOf<K>>,
): Promise<RowOf<K>> => edit(db, await jobOf(db, kind, id), (door) => door.patch(kind, id, version, fields));

export const take = async <K extends KindName>(db: Db, kind: K, id: string, version: number): Promise<RowOf<K>> =>
  edit(db, await jobOf(db, kind, id), (door) => door.take(kind, id, version));

export const bring = async <K extends KindName>(db: Db, kind: K, id: string, version: number): Promise<RowOf<K>> =>
  edit(db, await jobOf(db, kind, id), (door) => door.bring(kind, id, version));

/** A design of two like radios on low mounts, for links of which nothing else is asked. */
export const plainDesign = (radioId: string) => ({
  nearMountAglM: 6,
  farMountAglM: 6,
  nearRadioId: radioId,
  farRadioId: radioId,
  nearPowerDbm: 5,
  farPowerDbm: 5,
  centreMhz: 5500,
  widthMhz: 20,
});
