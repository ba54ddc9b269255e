import type { LinkPlan, LinkResult, PreparedPath } from "@/core/link";
import type { Ray } from "@/core/obstacles";
import type { Units } from "../wording/numbers";
import type { GhostZone } from "./ghost-zones";
import type { SectionScale } from "./section-scale";

export interface MastHandlers {
  readonly onBegin: () => void;
  readonly onMount: (end: "near" | "far", mountAglM: number) => void;
  readonly onEnd: () => void;
}

export interface ClearsFrom {
  readonly nearAglM: number | null;
  readonly farAglM: number | null;
}

/** Another design of the same link, drawn in dashes over the one in hand. */
export interface Ghost {
  readonly name: string;
  readonly ray: Ray;
  readonly path: PreparedPath;
  readonly plan: LinkPlan;
}

export interface SectionProps extends MastHandlers {
  readonly path: PreparedPath;
  readonly plan: LinkPlan;
  readonly result: LinkResult;
  readonly ray: Ray;
  readonly scale: SectionScale;
  readonly units: Units;
  readonly clearsFrom: ClearsFrom;
  readonly ghost: Ghost | null;
  /** First zones of what else is looked at, on its own channel. */
  readonly zones: readonly GhostZone[];
  /** Mounts before the gesture under way, for the dashed line. */
  readonly settled: { readonly nearAglM: number; readonly farAglM: number };
}
