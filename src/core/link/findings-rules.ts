import type { Finding } from "./finding-types";
import type { Direction, LinkPlan, LinkResult } from "./types";

/** What the rules cut, forbid, or ask for. */
export const ruleFindings = (plan: LinkPlan, result: LinkResult): Finding[] => {
  const { toFar, toNear } = result.service;
  const out: Finding[] = [];
  const seen = new Set<string>();
  for (const [end, d] of [
    [plan.near, toFar],
    [plan.far, toNear],
  ] as const) {
    if (d === null) continue;
    const r = d.regulation;
    const add = (f: Finding): void => {
      const key = `${f.code}${f.values.rule ?? ""}`;
      if (!seen.has(key)) out.push(f);
      seen.add(key);
    };
    if (r.status === "forbidden") {
      add({
        code: "rule-forbids",
        verdict: "short",
        weight: 97,
        values: {
          reason: r.reason,
          rule: r.rule?.id ?? null,
          domain: plan.policy.domain,
          source: r.rule?.source ?? null,
          minGainDbi: r.rule?.minGainDbi ?? null,
        },
        mends: [],
      });
      continue;
    }
    const { rule, cutBy, maxEirpDbm } = r.limit;
    const shared = { rule: rule.id, source: rule.source, asOf: rule.asOf, confidence: rule.confidence, domain: plan.policy.domain };
    if (end.txPowerDbm > r.maxConductedDbm + 1e-9) {
      if (end.radio.minTxPowerDbm > r.maxConductedDbm) {
        add({
          code: "rule-below-radio",
          verdict: "short",
          weight: 96,
          values: { ...shared, limitDbm: r.maxConductedDbm, minDbm: end.radio.minTxPowerDbm, radio: end.radio.name },
          mends: [],
        });
      } else {
        const step = end.radio.txPowerStepDb;
        const legal = (e: typeof end, limit: Direction | null): number =>
          limit?.regulation.status === "allowed"
            ? Math.min(e.txPowerDbm, Math.floor(limit.regulation.maxConductedDbm / step + 1e-9) * step)
            : e.txPowerDbm;
        add({
          code: "power-cut",
          verdict: "clear",
          weight: 30,
          values: { ...shared, cutBy, setDbm: end.txPowerDbm, limitDbm: r.maxConductedDbm, eirpDbm: maxEirpDbm },
          mends: [
            {
              code: "legal-power",
              action: { type: "power", nearDbm: legal(plan.near, toFar), farDbm: legal(plan.far, toNear) },
              amount: legal(end, d),
              amountToday: null,
              name: null,
              lastYear: null,
              beyondStructure: false,
            },
          ],
        });
      }
    }
    if (r.permission !== null && !plan.permissionRecorded) {
      add({
        code: "permission",
        verdict: "unknown",
        weight: 75,
        values: { ...shared, permission: r.permission },
        mends: [
          {
            code: "record-permission",
            action: { type: "permission" },
            amount: 0,
            amountToday: null,
            name: null,
            lastYear: null,
            beyondStructure: false,
          },
        ],
      });
    }
    if (r.radarDetection) {
      add(
        end.radio.radarDetection
          ? { code: "radar", verdict: "clear", weight: 20, values: shared, mends: [] }
          : { code: "radar-missing", verdict: "short", weight: 94, values: { ...shared, radio: end.radio.name }, mends: [] },
      );
    }
  }
  return out;
};
