import { daysBetween, TOLD_DAYS_BEFORE } from "../radio";
import { type Observation, observed } from "./finding-types";
import { RULE_TOLERANCE_DB } from "./limits";
import type { Direction, EndPlan, LinkPlan, LinkResult } from "./types";

type Allowed = Extract<Direction["regulation"], { status: "allowed" }>;

const permissionOf = (plan: LinkPlan, r: Allowed, shared: Parameters<typeof observed<"permission">>[3]): Observation[] => {
  const need = r.permission;
  if (need === null) return [];
  const { recorded } = need;
  if (recorded === null) return [observed("permission", "unknown", 75, { ...shared, permission: need.asks })];
  if (need.state === "expired")
    return [
      observed("permission-ended", "unknown", 76, {
        ...shared,
        permission: need.asks,
        number: recorded.number,
        until: recorded.until ?? "",
      }),
    ];
  if (need.state === "not yet")
    return [
      observed("permission-not-yet", "unknown", 74, {
        ...shared,
        permission: need.asks,
        number: recorded.number,
        from: recorded.from ?? "",
      }),
    ];
  if (recorded.until === null) return [];
  const days = daysBetween(plan.day, recorded.until);
  return days > TOLD_DAYS_BEFORE
    ? []
    : [observed("permission-ends", "clear", 43, { ...shared, number: recorded.number, until: recorded.until, days })];
};

const ofEnd = (plan: LinkPlan, end: EndPlan, d: Direction): Observation[] => {
  const r = d.regulation;
  const { domain } = plan.policy;
  if (r.status === "forbidden") {
    const values = {
      name: end.name,
      reason: r.reason,
      rule: r.rule?.id ?? null,
      domain,
      source: r.rule?.source ?? null,
      minGainDbi: r.rule?.minGainDbi ?? null,
    };
    return [observed("rule-forbids", "short", 97, values)];
  }
  const { rule, cutBy } = r.limit;
  const shared = {
    name: end.name,
    rule: rule.id,
    source: rule.source,
    asOf: rule.asOf,
    confidence: rule.confidence,
    domain,
    permission: r.permission?.asks ?? "",
  };
  const out: Observation[] = [];
  const limitDbm = r.maxConductedDbm;
  if (end.radio.minTxPowerDbm > limitDbm + RULE_TOLERANCE_DB) {
    out.push(observed("rule-below-radio", "short", 96, { ...shared, limitDbm, minDbm: end.radio.minTxPowerDbm, radio: end.radio.name }));
  } else if (d.sentPowerDbm > limitDbm + RULE_TOLERANCE_DB) {
    out.push(
      observed("over-rule", "short", 93, {
        ...shared,
        cutBy,
        setDbm: end.txPowerDbm,
        limitDbm,
        overDb: d.sentPowerDbm - limitDbm,
        eirpDbm: r.limit.maxEirpDbm,
        moreDbm: r.moreWith?.maxConductedDbm ?? null,
        morePermission: r.moreWith?.rule.stopUntilRecorded ?? null,
      }),
    );
  }
  out.push(...permissionOf(plan, r, shared));
  if (r.radarDetection && !end.radio.radarDetection && !r.radarWaived)
    out.push(observed("radar-missing", "short", 94, { ...shared, radio: end.radio.name }));
  else if (r.radarDetection)
    out.push(observed("radar", "clear", 20, { ...shared, waitS: r.radarWaitS ?? 0, awayMin: r.nonOccupancyMin ?? 0 }));
  return out;
};

/** What the rules cut, forbid, or ask for; what both ends share is said once. */
export const observeRules = (plan: LinkPlan, result: LinkResult): Observation[] => {
  const { toFar, toNear } = result.service;
  const all = [...(toFar === null ? [] : ofEnd(plan, plan.near, toFar)), ...(toNear === null ? [] : ofEnd(plan, plan.far, toNear))];
  const seen = new Set<string>();
  return all.filter((o) => {
    const key = `${o.code}${"rule" in o.values ? o.values.rule : ""}`;
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
};
