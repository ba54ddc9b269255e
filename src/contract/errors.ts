/** Everything that may go wrong, by name. Each has a sentence in the interface. */
export const ERROR_CODES = [
  "database-unreachable",
  "offline",
  "invalid",
  "same-spot",
  "no-roof",
  "too-many-designs",
  "same-ends",
  "link-length",
  "none-left",
  "site-in-use",
  "hub-remote",
  "site-gone",
  "design-in-force",
  "append-only",
  "no-plan",
  "not-allowed",
  "signed-out",
  "second-factor",
  "wrong-sign-in",
  "wrong-code",
  "too-many-tries",
  "link-used",
  "name-taken",
  "last-owner",
  "weak-password",
  "no-passkeys-here",
  "mail-failed",
  "other-window",
  "other-person",
  "clash",
  "not-found",
  "no-hardware",
  "unknown-reference",
  "bad-body",
  "hardware-faults",
  "file-fault",
  "stopped",
  "piece-out-of-order",
  "piece-too-long",
  "upload-unfinished",
  "import-not-running",
  "not-a-photo",
  "map-unreachable",
  "map-no-tiles",
  "job-exists",
  "map-inside",
  "disk-full",
  "quota-job",
  "quota-person",
  "quota-all",
  "quota-photos",
  "piece-damaged",
  "busy",
  "too-long",
  "has-courtyards",
  "cross-site",
  "host-not-allowed",
  "not-undoable",
  "overtaken",
  "import-stopped",
  "hardware-missing",
  "hardware-in-use",
  "hardware-changed",
  "internal",
] as const;
export type ErrorCode = (typeof ERROR_CODES)[number];

/** An error as data; the words are made in one place of the interface. */
export interface ErrorBody {
  readonly code: ErrorCode;
  readonly path?: string | undefined;
  readonly message?: string | undefined;
  readonly values?: Readonly<Record<string, string | number>> | undefined;
  /** On a clash: the row as it now stands. */
  readonly current?: unknown;
  readonly faults?: readonly { where: string; reason: string }[] | undefined;
}
