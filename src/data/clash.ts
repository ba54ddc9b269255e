import type { ErrorCode } from "../contract";

/** An edit was made on a version that somebody has changed since. */
export class VersionClash extends Error {
  constructor(
    readonly entity: string,
    readonly current: unknown,
  ) {
    super(`${entity} was changed by someone else`);
    this.name = "VersionClash";
  }
}

export class NotFound extends Error {
  constructor(readonly entity: string) {
    super(`${entity} does not exist`);
    this.name = "NotFound";
  }
}

/** A rule between rows was broken: two sites on one spot, a site still in use. */
export class Refused extends Error {
  constructor(
    readonly code: ErrorCode,
    readonly path: string,
    readonly values: Readonly<Record<string, string | number>> = {},
    /** In words, where a code alone says too little. */
    readonly told?: string,
  ) {
    super(code);
    this.name = "Refused";
  }
}
