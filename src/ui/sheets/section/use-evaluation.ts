"use client";
import { useDeferredValue, useMemo } from "react";
import { type DesignFields, type HardwareDto, isProblem, type ProfileDto, planOf, profileFromDto } from "@/contract";
import {
  type Drawn,
  evaluatePrepared,
  type Finding,
  findings,
  type LinkPlan,
  type LinkResult,
  observe,
  type PathProfile,
  type PreparedPath,
  preparePath,
  rayOf,
} from "@/core/link";
import type { Ray } from "@/core/obstacles";
import type { LinkBundle } from "../../api/queries";
import { bandOffsets, type Doubt } from "./use-doubt";

const NO_DESIGN = { code: "hardware-missing", id: "" } as const;

export interface Evaluation {
  readonly plan: LinkPlan;
  readonly path: PreparedPath;
  readonly ray: Ray;
  readonly result: LinkResult;
}

/**
 * Plan, path and result for a design, computed here from one fetched profile. Null when a radio is missing, or when
 * there is no design or profile to look at.
 */
export const useEvaluation = (
  bundle: LinkBundle,
  hardware: HardwareDto,
  profile: PathProfile | null,
  design: DesignFields | null,
): Evaluation | null => {
  const plan = useMemo(
    () => (design === null ? NO_DESIGN : planOf(bundle.job, bundle.near, bundle.far, design, hardware, bundle.link.groundTold)),
    [bundle, design, hardware],
  );
  // What is prepared depends on channel, k, air, year and trims only; a dragged mast keeps it.
  const key = isProblem(plan) ? "" : JSON.stringify([plan.centreMhz, plan.policy.kFactor, plan.policy.year, plan.climate, plan.trims]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key names all of the plan that is used
  const path = useMemo(() => (isProblem(plan) || profile === null ? null : preparePath(plan, profile)), [key, profile]);
  return useMemo(() => {
    if (isProblem(plan) || path === null) return null;
    return { plan, path, ray: rayOf(plan, path).ray, result: evaluatePrepared(plan, path) };
  }, [plan, path]);
};

/** The profile as the core reads it, made once for each that was fetched. */
export const useCoreProfile = (dto: ProfileDto | undefined): PathProfile | null =>
  useMemo(() => (dto === undefined ? null : profileFromDto(dto)), [dto]);

const NONE: readonly Finding[] = [];

/**
 * Findings with their mends; the mends may come a frame later than the drawing, and what only the draws can tell later still.
 * @param drag something is dragged: what is found follows it, what would mend it waits until it is let go.
 */
export const useFindings = (evaluation: Evaluation | null, doubt: Doubt | null, drag: boolean): readonly Finding[] => {
  // Without their mends they are told in the frame itself; right after a drag there are none yet.
  const deferred = useDeferredValue(drag ? null : evaluation);
  const bare = drag || deferred === null;
  const settled = bare ? evaluation : deferred;
  const drawn = useMemo((): Drawn | null => {
    const value = doubt?.value ?? null;
    if (value === null) return null;
    const [far, near] = [bandOffsets(doubt, false), bandOffsets(doubt, true)];
    return { serves: value.probabilityServes, lowToFarDb: far?.lowDb ?? 0, lowToNearDb: near?.lowDb ?? 0 };
  }, [doubt]);
  return useMemo(() => {
    if (settled === null) return NONE;
    const { plan, path, result } = settled;
    if (!bare) return findings(plan, path, result, drawn);
    const growthOf = (id: string): number => path.profile.bodies.find((b) => b.id === id)?.growthMPerYear ?? 0;
    return observe(plan, result, growthOf, drawn).map((o): Finding => ({ ...o, mends: [] }));
  }, [settled, drawn, bare]);
};
