import path from "node:path";
import {
  evaluatePrepared,
  explainDirection,
  explainPath,
  explainTerm,
  explanationText,
  findings,
  monteCarlo,
  pathStateOf,
  preparePath,
  widthSweep,
} from "../core/link";
import { type Catalogue, linkPlanOf, profileOf } from "./plan-of-file";
import { faultOf, PLAN_VERSION, type PlanFile, planSchema } from "./plan-schema";
import { parseJson, readSmall, TextError } from "./read-text";

/** A plan out of JSON. @throws TextError naming the field. */
export const planFromJson = (value: unknown, name: string): PlanFile => {
  const version = (value as { version?: unknown } | null)?.version;
  if (typeof version === "number" && version > PLAN_VERSION) {
    throw new TextError(`${name} is a plan of version ${version}; this program reads version ${PLAN_VERSION}`);
  }
  const parsed = planSchema.safeParse(value);
  if (!parsed.success) throw new TextError(`${name}: ${faultOf(parsed.error)}`);
  return parsed.data;
};

/** Everything known of one link, as one object. */
export const linkReport = async (
  file: PlanFile,
  catalogue: Catalogue,
  resolve: (name: string) => string,
  options: { draws: number; seed: number },
) => {
  const plan = linkPlanOf(file, catalogue);
  const profile = await profileOf(file, resolve);
  const prepared = preparePath(plan, profile);
  const result = evaluatePrepared(plan, prepared);
  const { toFar, toNear } = result.service;
  const explained = [
    ...(toFar?.terms.map(explainTerm) ?? []),
    ...(toFar === null ? [] : explainDirection(toFar, plan)),
    ...explainPath(result),
  ];
  return {
    version: PLAN_VERSION,
    result,
    findings: findings(plan, prepared, result),
    uncertainty: options.draws > 0 ? monteCarlo(plan, prepared, options) : null,
    widths: toFar === null || toNear === null ? [] : widthSweep(plan, pathStateOf(plan, prepared)),
    explanations: explained.map((e) => ({ ...e, text: explanationText(e) })),
  };
};

export const runLink = async (
  name: string,
  catalogue: Catalogue,
  options: { draws: number; seed: number },
  out: (text: string) => void,
  warn: (text: string) => void,
): Promise<number> => {
  const file = planFromJson(parseJson(readSmall(name), name === "-" ? "standard input" : name), name === "-" ? "standard input" : name);
  const folder = name === "-" ? process.cwd() : path.dirname(path.resolve(name));
  const report = await linkReport(file, catalogue, (n) => path.resolve(folder, n), options);
  if (report.result.clearance.unknownGroundM > 0) {
    warn(`the terrain file does not cover ${report.result.clearance.unknownGroundM.toFixed(0)} m of this path; the verdict is unknown`);
  }
  out(`${JSON.stringify(report, null, 2)}\n`);
  return 0;
};
