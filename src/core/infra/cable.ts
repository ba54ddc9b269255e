/*
 * Copper cable as a resistance: American wire gauge (ASTM B258) and annealed copper (IACS, 20 C,
 * 0.017241 ohm mm2/m, +0.393 % a degree). For PoE two or four pairs share the current.
 */
import { needAtLeast, needInRange, needPositive } from "../units";

const IACS_OHM_MM2_M = 0.017241;
const PER_DEGREE = 0.00393;

/** Diameter of a gauge, 0.127 mm x 92^((36 - n) / 39). */
export const awgDiameterMm = (gauge: number): number => 0.127 * 92 ** ((36 - needInRange("gauge, AWG", gauge, 0, 40)) / 39);

/** Resistance of one solid copper wire per metre. */
export const awgOhmPerM = (gauge: number, temperatureC = 20): number =>
  (IACS_OHM_MM2_M / (Math.PI * (awgDiameterMm(gauge) / 2) ** 2)) * (1 + PER_DEGREE * (temperatureC - 20));

export interface CableRun {
  readonly loopOhm: number;
  readonly deviceV: number;
  readonly currentA: number;
  readonly dropV: number;
  readonly lostW: number;
  /** False when the load asks for more than the run can carry: the voltage then collapses. */
  readonly carries: boolean;
  /** Copper Ethernet ends at 100 m. */
  readonly withinEthernetLength: boolean;
}

/** Longest copper Ethernet run, ISO/IEC 11801 channel. */
export const ETHERNET_MOST_M = 100;

/**
 * A load of constant power behind a run: V = Vs/2 + sqrt(Vs^2/4 - R P).
 * @param pairs wire pairs carrying the supply, 2 or 4 (passive and 802.3af/at mode: 2; bt: 4); 1 for a two-core cable.
 */
export const cableRun = (sourceV: number, loadW: number, lengthM: number, gauge: number, pairs: number, temperatureC = 20): CableRun => {
  needPositive("source, V", sourceV);
  needAtLeast("load, W", loadW, 0);
  needAtLeast("length, m", lengthM, 0);
  needInRange("pairs", pairs, 1, 4);
  // Each pair is two wires; out on half of all wires, back on the other half.
  const loopOhm = (2 * awgOhmPerM(gauge, temperatureC) * lengthM) / pairs;
  const inside = (sourceV * sourceV) / 4 - loopOhm * loadW;
  const carries = inside >= 0;
  const deviceV = carries ? sourceV / 2 + Math.sqrt(inside) : sourceV / 2;
  const currentA = loadW / deviceV;
  return {
    loopOhm,
    deviceV,
    currentA,
    dropV: sourceV - deviceV,
    lostW: currentA * currentA * loopOhm,
    carries,
    withinEthernetLength: lengthM <= ETHERNET_MOST_M,
  };
};
