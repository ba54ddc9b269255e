import { isSpan, isVegetation } from "../obstacles";
import type { Finding, Mend } from "./finding-types";
import { ruleFindings } from "./findings-rules";
import { HIGHEST_RAISE_M } from "./limits";
import { type Ends, lowerToMeet, powerForCeiling, raiseToMeet, trimToMeet, withMounts } from "./mends";
import type { PreparedPath } from "./prepare";
import { meansRemoval, trimList } from "./trim-list";
import type { LinkPlan, LinkResult, Verdict } from "./types";

const beyond = (maxM: number | null, heightM: number): boolean => maxM !== null && heightM > maxM + 1e-9;

const raiseMends = (plan: LinkPlan, path: PreparedPath): Mend[] => {
  const { year, horizonYears } = plan.policy;
  const lastYear = year + horizonYears;
  const mends: Mend[] = [];
  for (const [ends, code] of [
    ["far", "raise-far"],
    ["near", "raise-near"],
    ["both", "raise-both"],
  ] as const satisfies readonly (readonly [Ends, string])[]) {
    const raiseM = raiseToMeet(plan, path, ends, lastYear);
    if (raiseM === null || raiseM <= 0) continue;
    const raised = withMounts(plan, ends, raiseM);
    const end = ends === "far" ? plan.far : plan.near;
    mends.push({
      code,
      action:
        ends === "both"
          ? { type: "mounts", nearMountAglM: raised.near.mountAglM, farMountAglM: raised.far.mountAglM }
          : { type: "mount", end: ends, mountAglM: ends === "far" ? raised.far.mountAglM : raised.near.mountAglM },
      amount: raiseM,
      amountToday: raiseToMeet(plan, path, ends, year),
      name: ends === "both" ? null : end.name,
      lastYear,
      beyondStructure: beyond(plan.near.mountMaxAglM, raised.near.mountAglM) || beyond(plan.far.mountMaxAglM, raised.far.mountAglM),
    });
  }
  return mends;
};

/** Beneath an overhead line or a jib a lower mount may pass: the mend that raising is for everything else. */
const lowerMends = (plan: LinkPlan, path: PreparedPath): Mend[] => {
  const { year, horizonYears } = plan.policy;
  return (["far", "near"] as const).flatMap((end): Mend[] => {
    const dropM = lowerToMeet(plan, path, end, year + horizonYears);
    if (dropM === null) return [];
    const own = plan[end];
    return [
      {
        code: `lower-${end}`,
        action: { type: "mount", end, mountAglM: own.mountAglM - dropM },
        amount: dropM,
        amountToday: lowerToMeet(plan, path, end, year),
        name: own.name,
        lastYear: year + horizonYears,
        beyondStructure: false,
      },
    ];
  });
};

const look = (code: "see-heights" | "see-water" | "look-elsewhere", view: "heights" | "water" | "elsewhere"): Mend => ({
  code,
  action: { type: "look", view },
  amount: 0,
  amountToday: null,
  name: null,
  lastYear: null,
  beyondStructure: false,
});

/** Where no cut of one tree is enough: all of them, when that is. */
const trimSeveral = (plan: LinkPlan, path: PreparedPath): Mend[] => {
  const lastYear = plan.policy.year + plan.policy.horizonYears;
  const list = trimList(plan, path, lastYear);
  if (!list.enough || list.rows.length < 2) return [];
  return [
    {
      code: "trim-several",
      action: { type: "trims", trimsM: list.trims },
      amount: list.rows.length,
      amountToday: null,
      name: null,
      lastYear,
      beyondStructure: false,
    },
  ];
};

const trimMend = (plan: LinkPlan, path: PreparedPath, bodyId: string, name: string | null): Mend[] => {
  const lastYear = plan.policy.year + plan.policy.horizonYears;
  const heightM = trimToMeet(plan, path, bodyId, lastYear);
  if (heightM === null) return trimSeveral(plan, path);
  const todayM = path.profile.bodies.find((b) => b.id === bodyId)?.heightM ?? heightM;
  return [
    {
      code: "trim",
      action: { type: "trim", bodyId, heightM },
      amount: heightM,
      amountToday: trimToMeet(plan, path, bodyId, plan.policy.year),
      name,
      lastYear,
      beyondStructure: false,
      removal: meansRemoval(Math.min(plan.trims[bodyId] ?? todayM, todayM), heightM),
    },
  ];
};

const clearanceFindings = (plan: LinkPlan, path: PreparedPath, result: LinkResult): Finding[] => {
  const { clearance: c } = result;
  const out: Finding[] = [];
  if (c.unknownGroundM > 0) {
    out.push({ code: "ground-unknown", verdict: "unknown", weight: 80, values: { unknownM: c.unknownGroundM }, mends: [] });
  }
  const w = c.worst;
  if (w === null) return out;
  const values = {
    name: w.ownerName,
    kind: w.owner.kind === "ground" ? "ground" : w.owner.bodyKind,
    atM: w.atM,
    missM: w.missM,
    side: w.side,
    acrossM: w.acrossM,
    share: w.share,
    policyShare: c.policyShare,
    probability: c.probability,
    sigmaM: c.sigmaM,
    bySigma: c.sigmaOf === null ? null : c.sigmaOf.obstacleM >= c.sigmaOf.groundM ? "obstacle" : "ground",
  };
  const tree = w.owner.kind === "body" && isVegetation(w.owner.bodyKind) ? w.owner.id : null;
  const needsMend = c.verdict === "short" || (c.verdict === "unknown" && w.missM > -c.policyShare * w.f1M);
  const span = w.owner.kind === "body" && isSpan(w.owner.bodyKind);
  const mends = needsMend
    ? [
        ...(tree === null ? [] : trimMend(plan, path, tree, w.ownerName)),
        ...(span ? lowerMends(plan, path) : []),
        ...raiseMends(plan, path),
      ]
    : [];
  if (c.verdict === "short") {
    const noAnswer = mends.length === 0;
    out.push({
      code: noAnswer ? "blocked-no-height" : "short",
      verdict: "short",
      weight: 100,
      values: { ...values, limitM: HIGHEST_RAISE_M },
      mends: noAnswer ? [look("look-elsewhere", "elsewhere")] : mends,
    });
  } else if (c.verdict === "unknown" && c.unknownGroundM === 0) {
    out.push({ code: "unsure", verdict: "unknown", weight: 70, values, mends });
  } else if (c.verdict === "tight" && c.lostInYear === null) {
    out.push({ code: "little-spare", verdict: "tight", weight: 50, values, mends: raiseMends(plan, path) });
  } else if (c.verdict === "clear") {
    const grows = path.near.some((b) => b.body.growthMPerYear > 0);
    const untilYear = grows ? plan.policy.year + plan.policy.horizonYears : null;
    out.push({ code: "clear", verdict: "clear", weight: 0, values: { ...values, untilYear }, mends: [] });
  }
  if (c.lostInYear !== null && c.worstAtHorizon !== null) {
    const later = c.worstAtHorizon;
    const bodyId = later.owner.kind === "body" ? later.owner.id : null;
    const growth = path.profile.bodies.find((b) => b.id === bodyId)?.growthMPerYear ?? 0;
    out.push({
      code: "grows",
      verdict: "tight",
      weight: 60,
      values: { name: later.ownerName, growthM: growth, year: c.lostInYear, missM: later.missM, atM: later.atM },
      mends: [...(bodyId === null ? [] : trimMend(plan, path, bodyId, later.ownerName)), ...raiseMends(plan, path)],
    });
  }
  return out;
};

const structureFindings = (plan: LinkPlan): Finding[] =>
  [plan.near, plan.far].flatMap((end) =>
    beyond(end.mountMaxAglM, end.mountAglM)
      ? [
          {
            code: "beyond-structure",
            verdict: "tight" as const,
            weight: 55,
            values: { name: end.name, mountM: end.mountAglM, maxM: end.mountMaxAglM },
            mends: [],
          },
        ]
      : [],
  );

const levelFindings = (plan: LinkPlan, result: LinkResult): Finding[] => {
  const { toFar, toNear } = result.service;
  if (toFar === null || toNear === null) return [];
  const out: Finding[] = [];
  const hot = toFar.levelDbm >= toNear.levelDbm ? toFar : toNear;
  const overDb = hot.levelDbm - hot.ceilingDbm;
  const advice = powerForCeiling(plan, result);
  if (overDb > 0 && advice !== null) {
    const fault = hot.levelDbm > hot.maxOperatingInputDbm;
    const lower = advice.nearDbm < plan.near.txPowerDbm || advice.farDbm < plan.far.txPowerDbm;
    out.push({
      code: hot.levelDbm > hot.damageInputDbm ? "damaging" : fault ? "overloaded" : "too-strong",
      verdict: fault ? "short" : "tight",
      weight: fault ? 95 : 58,
      values: {
        levelDbm: hot.levelDbm,
        ceilingDbm: hot.ceilingDbm,
        maxDbm: hot.maxOperatingInputDbm,
        overDb,
        reachable: advice.reachable ? "yes" : "no",
        tooHotDb: advice.tooHotDb,
        tooHotMildDb: advice.tooHotMildDb,
        densest: hot.ladder[hot.ladder.length - 1]?.modulation ?? "",
      },
      mends: lower
        ? [
            {
              code: "lower-power",
              action: { type: "power", nearDbm: advice.nearDbm, farDbm: advice.farDbm },
              amount: Math.max(advice.nearDbm, advice.farDbm),
              amountToday: null,
              name: null,
              lastYear: null,
              beyondStructure: false,
            },
          ]
        : [],
    });
  }
  const weak = toFar.levelDbm <= toNear.levelDbm ? toFar : toNear;
  const last = weak.ladder[0];
  if (overDb <= 0 && !weak.heldWithMargin && last !== undefined) {
    const more = Math.min(plan.near.radio.modulations[0]?.maxTxPowerDbm ?? 0, plan.far.radio.modulations[0]?.maxTxPowerDbm ?? 0);
    const narrower = [...plan.near.radio.channelWidthsMhz].filter((x) => x < plan.widthMhz).sort((a, b) => b - a)[0];
    out.push({
      code: weak.held === null ? "too-weak" : "thin-margin",
      verdict: weak.held === null ? "short" : "tight",
      weight: weak.held === null ? 90 : 52,
      values: {
        levelDbm: weak.levelDbm,
        needsDbm: last.needsDbm,
        marginDb: weak.held?.marginDb ?? last.marginDb,
        wantedDb: plan.policy.marginDb,
      },
      mends: [
        ...(weak.setPowerDbm < more && weak.regulation.status === "allowed" && weak.setPowerDbm < weak.regulation.maxConductedDbm - 0.5
          ? [
              {
                code: "raise-power" as const,
                action: { type: "power" as const, nearDbm: more, farDbm: more },
                amount: more,
                amountToday: null,
                name: null,
                lastYear: null,
                beyondStructure: false,
              },
            ]
          : []),
        ...(narrower === undefined
          ? []
          : [
              {
                code: "narrower" as const,
                action: { type: "width" as const, widthMhz: narrower },
                amount: narrower,
                amountToday: null,
                name: null,
                lastYear: null,
                beyondStructure: false,
              },
            ]),
      ],
    });
  }
  return out;
};

const capacityFindings = (plan: LinkPlan, result: LinkResult): Finding[] => {
  const { airtimeUsedShare, toFar, toNear } = result.service;
  if (toFar === null || toNear === null) return [];
  if (airtimeUsedShare === null) return [{ code: "no-need", verdict: "unknown", weight: 15, values: {}, mends: [] }];
  if (airtimeUsedShare <= 1 || toFar.held === null) return [];
  return [
    {
      code: "too-slow",
      verdict: "short",
      weight: 85,
      values: {
        usedShare: airtimeUsedShare,
        plannedMbps: Math.min(toFar.plannedMbps, toNear.plannedMbps),
        needToFarMbps: plan.needToFarMbps ?? 0,
        needToNearMbps: plan.needToNearMbps ?? 0,
        capped: toFar.airtime?.cappedByPort === true ? "port" : null,
      },
      mends: [],
    },
  ];
};

/** How far people keep from the antennas: the farther of both ends, when any distance is needed. */
const exposureFinding = (plan: LinkPlan, result: LinkResult): Finding[] => {
  const [a, b] = [result.service.toFar?.exposure?.distanceM ?? 0, result.service.toNear?.exposure?.distanceM ?? 0];
  const distanceM = Math.max(a, b);
  if (distanceM <= 0) return [];
  const name = a >= b ? plan.near.name : plan.far.name;
  return [{ code: "exposure", verdict: "clear", weight: 12, values: { name, distanceM }, mends: [] }];
};

/** Warnings that weigh more than a remark. */
const GRAVER_NOTES: Readonly<Record<string, { verdict: Verdict; weight: number }>> = {
  "barrier-unknown": { verdict: "unknown", weight: 78 },
  "out-of-beam": { verdict: "tight", weight: 57 },
  "elevation-mask": { verdict: "tight", weight: 54 },
  reflection: { verdict: "tight", weight: 46 },
  "beyond-radio-range": { verdict: "clear", weight: 45 },
  "through-refused": { verdict: "clear", weight: 44 },
  "power-control": { verdict: "clear", weight: 18 },
};

/** What stands against the design, worst first, each with what would mend it. Always at least one. */
export const findings = (plan: LinkPlan, path: PreparedPath, result: LinkResult): Finding[] => {
  const faults = result.service.faults.map((f): Finding => {
    const { code, ...rest } = f;
    const values: Record<string, number | string | null> = {};
    for (const [key, value] of Object.entries(rest)) values[key] = Array.isArray(value) ? value.join(", ") : (value as number | string);
    return { code: `pairing-${code}`, verdict: "short", weight: 99, values, mends: [] };
  });
  const notes = result.warnings.map((w): Finding => {
    const graver = GRAVER_NOTES[w.code];
    const mends = w.code === "reflection" ? [look("see-water", "water")] : [];
    return { code: w.code, verdict: graver?.verdict ?? "clear", weight: graver?.weight ?? 10, values: w.values, mends };
  });
  return [
    ...faults,
    ...clearanceFindings(plan, path, result),
    ...structureFindings(plan),
    ...levelFindings(plan, result),
    ...ruleFindings(plan, result),
    ...capacityFindings(plan, result),
    ...exposureFinding(plan, result),
    ...notes,
  ].sort((a, b) => b.weight - a.weight);
};
