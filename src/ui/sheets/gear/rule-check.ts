import { type Asker, channelCentresMhz, type Domain, PLAIN_ASKER, type Radio, regulate, usesOf } from "@/core/radio";

/** A run of channels that the rules treat alike. */
export interface RuleRun {
  readonly lowMhz: number;
  readonly highMhz: number;
  /** Null where it is not allowed. */
  readonly maxConductedDbm: number | null;
  readonly maxEirpDbm: number | null;
  readonly duties: readonly string[];
}

const REASONS = {
  "no-rule": "no rule",
  "indoor-only": "indoor only",
  "gain-too-low": "gain too low",
  "beam-too-wide": "beam too wide",
} as const;

/** What the rules of a domain leave a radio at one width, run by run of its channels. */
export const ruleRuns = (radio: Radio, domain: Domain, widthMhz: number): RuleRun[] => {
  const asker: Asker = {
    ...PLAIN_ASKER,
    use: usesOf(radio, radio)[0],
    gainDbi: radio.antenna.gainDbi ?? 0,
    beamwidthDeg: radio.antenna.azimuthBeamwidthDeg ?? null,
    radarDetection: radio.radarDetection,
    powerControl: radio.automaticPowerControl ?? true,
  };
  const runs: (RuleRun & { readonly key: string })[] = [];
  for (const mhz of channelCentresMhz(radio.bandsMhz, radio.standard, widthMhz)) {
    const r = regulate(domain, mhz, widthMhz, asker);
    const one =
      r.status === "allowed"
        ? {
            maxConductedDbm: r.maxConductedDbm,
            maxEirpDbm: r.limit.maxEirpDbm,
            duties: [
              ...(r.radarDetection ? [radio.radarDetection || r.radarWaived ? "radar duty" : "radar duty, which it cannot keep"] : []),
              ...(r.permission === null ? [] : [r.permission.asks]),
              ...(radio.minTxPowerDbm > r.maxConductedDbm ? ["its lowest power is above that"] : []),
            ],
          }
        : { maxConductedDbm: null, maxEirpDbm: null, duties: [REASONS[r.reason]] };
    const key = JSON.stringify(one);
    const last = runs.at(-1);
    if (last?.key === key) runs[runs.length - 1] = { ...last, highMhz: mhz + widthMhz / 2 };
    else runs.push({ ...one, key, lowMhz: mhz - widthMhz / 2, highMhz: mhz + widthMhz / 2 });
  }
  return runs.map(({ key: _k, ...run }) => run);
};
