import type { Tx } from "../changes";
import type { Db } from "../client";

/** A record as it is kept: what is fixed and what is edited side by side, as its kind declares it. */
export interface Kept {
  readonly id: string;
  /** The job it belongs to. */
  readonly jobId: string;
  readonly version: number;
  readonly deleted: boolean;
  readonly values: Readonly<Record<string, unknown>>;
}

export interface NewRow {
  readonly id: string;
  readonly jobId: string;
  readonly values: Readonly<Record<string, unknown>>;
  /** Of kinds that hold a file. */
  readonly bytes?: Buffer;
}

/** How a kind of record is kept. Rows are locked for the length of the transaction when they are read to be written. */
export interface Store {
  readonly table: string;
  readonly read: (tx: Tx, id: string, lock: boolean) => Promise<Kept | null>;
  /** All of a job that are not taken away, in the order they were made. */
  readonly list: (tx: Tx, jobId: string) => Promise<Kept[]>;
  /** The same some at a time and by id, of kinds that a job may have very many of. */
  readonly every?: (db: Db, jobId: string) => AsyncIterable<readonly Kept[]>;
  readonly insert: (tx: Tx, row: NewRow) => Promise<void>;
  /** Writes some of its values, takes it away or brings it back; the version rises. */
  readonly write: (tx: Tx, id: string, values: Readonly<Record<string, unknown>>, deleted?: boolean) => Promise<void>;
}
