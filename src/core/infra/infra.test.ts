import { expect, test } from "vitest";
import { batteryHours, cableRun, SOLAR_DEFAULTS, solarSupply, windLoad } from ".";

test("9 W for ever at one sun-hour needs about 310 W of panel (the demo's light)", () => {
  const s = solarSupply({ loadW: 9, sunHours: 1, daysWithoutSun: 5, ...SOLAR_DEFAULTS });
  expect(s.panelW).toBeCloseTo(310, 0);
  expect(s.batteryAh).toBeCloseTo((9 * 24 * 5) / 0.5 / 12, 9);
  expect(batteryHours(s.batteryWh, 9, SOLAR_DEFAULTS.depthOfDischarge)).toBeCloseTo(5 * 24, 9);
});

test("passive 24 V over 60 m of 24 AWG: by hand, the loop of two pairs is one wire's resistance", () => {
  const run = cableRun(24, 8, 60, 24, 2);
  expect(run.loopOhm).toBeCloseTo(0.0842 * 60, 1);
  // V = Vs - R P / V, checked by putting the answer back.
  expect(run.deviceV).toBeCloseTo(24 - (run.loopOhm * 8) / run.deviceV, 6);
  expect(run.lostW).toBeCloseTo(run.currentA ** 2 * run.loopOhm, 9);
  expect(cableRun(24, 8, 60, 24, 4).loopOhm).toBeCloseTo(run.loopOhm / 2, 9);
  expect(cableRun(24, 60, 100, 24, 2).carries).toBe(false);
  expect([cableRun(48, 8, 100, 24, 2).withinEthernetLength, cableRun(48, 8, 100.1, 24, 2).withinEthernetLength]).toEqual([true, false]);
});

test("wind: 40 m/s on 0.33 m2 of dish is about 450 N, four times that at twice the wind", () => {
  expect(windLoad("dish", 0.33, 40, 1).forceN).toBeCloseTo(0.5 * 1.225 * 1600 * 1.4 * 0.33, 6);
  expect(windLoad("dish", 0.33, 80, 2).momentNm).toBeCloseTo(8 * windLoad("dish", 0.33, 40, 1).momentNm, 6);
});
