import type { Verdict } from "./types";

/** A change to the design, as data; the interface applies it and can undo it. */
export type DesignAction =
  | { readonly type: "mount"; readonly end: "near" | "far"; readonly mountAglM: number }
  | { readonly type: "mounts"; readonly nearMountAglM: number; readonly farMountAglM: number }
  | { readonly type: "power"; readonly nearDbm: number; readonly farDbm: number }
  | { readonly type: "trim"; readonly bodyId: string; readonly heightM: number }
  | { readonly type: "trims"; readonly trimsM: Readonly<Record<string, number>> }
  /** Opens a solver instead of changing anything. */
  | { readonly type: "look"; readonly view: "heights" | "trees" | "water" | "elsewhere" }
  | { readonly type: "width"; readonly widthMhz: number }
  | { readonly type: "permission" };

export interface Mend {
  readonly code:
    | "raise-near"
    | "raise-far"
    | "raise-both"
    | "trim"
    | "trim-several"
    | "lower-near"
    | "lower-far"
    | "see-heights"
    | "see-water"
    | "look-elsewhere"
    | "lower-power"
    | "legal-power"
    | "narrower"
    | "record-permission"
    | "raise-power";
  readonly action: DesignAction;
  /** Figure of the mend for the last year of the horizon, and what would do today. */
  readonly amount: number;
  readonly amountToday: number | null;
  readonly name: string | null;
  readonly lastYear: number | null;
  /** True when a structure's stated limit is passed. */
  readonly beyondStructure: boolean;
  /** For a cut: so much of the tree that its removal is meant. */
  readonly removal?: boolean;
}

export interface Finding {
  readonly code: string;
  readonly verdict: Verdict;
  /** Larger is worse; findings are sorted by it. */
  readonly weight: number;
  readonly values: Readonly<Record<string, number | string | null>>;
  readonly mends: readonly Mend[];
}
