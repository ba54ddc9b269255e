import { describe, expect, test } from "vitest";
import { inverse, kFromGradient, referenceRefractivityN } from "./geo";
import { awgDiameterMm, awgOhmPerM } from "./infra";
import {
  freeSpaceLossDb,
  freeSpaceLossRoundedDb,
  gasSpecificAttenuation,
  knifeEdgeLossDb,
  knifeEdgeLossExactDb,
  rainCoefficients,
  seaWaterConductivity,
  wavelengthM,
  zoneRainRateMmH,
} from "./propagation";
import {
  adRateMbps,
  localLimitWm2,
  type OfdmStandard,
  ofdmMinSensitivityDbm,
  ofdmRateMbps,
  thermalNoiseDbm,
  wholeBodyLimitWm2,
} from "./radio";
import published from "./testdata/published-check-values.json" with { type: "json" };

type Inputs = Record<string, number & string>;
type Outputs = number | readonly number[];

/** Which public function answers each quantity of the published rows. */
const FUNCTIONS: Record<string, (i: Inputs) => Outputs> = {
  "p525.fspl_db": (i) => freeSpaceLossDb(i.f_ghz!, i.d_km! * 1000),
  "p525.fspl_rounded_db": (i) => freeSpaceLossRoundedDb(i.f_ghz!, i.d_km! * 1000),
  "p526.j_exact": (i) => knifeEdgeLossExactDb(i.v!),
  "p526.j_approx": (i) => knifeEdgeLossDb(i.v!),
  "p526.fresnel_radius_m": (i) => Math.sqrt((wavelengthM(i.f_ghz!) * i.d1_km! * i.d2_km! * 1e3) / (i.d1_km! + i.d2_km!)),
  "p676.gamma": (i) => {
    const g = gasSpecificAttenuation(i.f_ghz!, i.p_dry_hpa!, i.t_k!, i.rho_g_m3!);
    return [g.oxygenDbPerKm, g.waterDbPerKm];
  },
  "p838.k_alpha_hv": (i) => {
    const c = rainCoefficients(i.f_ghz!);
    return [c.kH, c.alphaH, c.kV, c.alphaV];
  },
  "p453.k_factor": (i) => kFromGradient(i.dn_dh_per_km!),
  "radio.thermal_noise_dbm": (i) => thermalNoiseDbm(i.bandwidth_mhz!),
  "radio.ofdm_rate_mbps": (i) => ofdmRateMbps(i.standard as unknown as OfdmStandard, i.width_mhz!, i.mcs!, i.nss!, i.gi_us!),
  "radio.min_sensitivity_dbm": (i) => ofdmMinSensitivityDbm(i.standard as unknown as OfdmStandard, i.width_mhz!, i.mcs!),
  "radio.ad_rate_mbps": (i) => adRateMbps(i.mcs!),
  "p837.rain_rate": (i) => zoneRainRateMmH(i.zone as unknown as string, i.percent!),
  "p453.reference_n": (i) => referenceRefractivityN(i.h_km!),
  "p527.water_conductivity": (i) => seaWaterConductivity(i.t_c!, i.s!),
  "rf_exposure.whole_body_limit_w_m2": (i) => wholeBodyLimitWm2(i.f_ghz!),
  "rf_exposure.local_limit_w_m2": (i) => localLimitWm2(i.f_ghz!),
  "infra.awg_diameter_mm": (i) => awgDiameterMm(i.awg!),
  "infra.awg_ohm_per_m": (i) => awgOhmPerM(i.awg!),
  "geometry.inverse": (i) => {
    const r = inverse({ latDeg: i.lat1!, lonDeg: i.lon1! }, { latDeg: i.lat2!, lonDeg: i.lon2! });
    return [r.distanceM / 1000, r.azimuthAtADeg];
  },
};

describe("published check values", () => {
  const rows = published.vectors;

  test("every quantity is computed", () => {
    expect(rows.filter((v) => FUNCTIONS[v.fn] === undefined).map((v) => v.fn)).toEqual([]);
    expect(rows.length).toBeGreaterThan(100);
  });

  test.each(rows.map((v) => [v.id, v.clause, v] as const))("%s %s", (_id, _clause, v) => {
    const got = FUNCTIONS[v.fn]!(v.in as unknown as Inputs);
    for (const [key, want] of Object.entries(v.out as unknown as Record<string, { value: number; abs: number; rel: number }>)) {
      const value = key === "value" ? (got as number) : (got as number[])[Number(key.slice(1, -1))]!;
      expect(Math.abs(value - want.value)).toBeLessThanOrEqual(Math.max(want.abs, want.rel * Math.abs(want.value)) + 1e-12);
    }
  });
});
