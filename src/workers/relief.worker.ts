import { expose, transfer } from "comlink";
import { contours as contourMaker } from "d3";
import { reliefShade } from "@/core/terrain";
import type { ContourLine, ReliefAnswer, ReliefRequest, ReliefWorker } from "./messages";

const WATER_M = 0.005;
const STEPS = [0.62, 0.5, 0.36];

const relief = (q: ReliefRequest): ReliefAnswer => {
  const shade = reliefShade(q.heightsM, q.cols, q.rows, q.stepM);
  const tint = new Uint8Array(q.heightsM.length);
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  const filled = new Array<number>(q.heightsM.length);
  for (let i = 0; i < tint.length; i++) {
    const h = q.heightsM[i]!;
    const known = !Number.isNaN(h);
    filled[i] = known ? h : -1e6;
    if (!known) continue;
    if (h < low) low = h;
    if (h > high) high = h;
    if (Math.abs(h) < WATER_M) tint[i] = 1;
    else {
      const s = shade[i]!;
      tint[i] = s >= STEPS[0]! || Number.isNaN(s) ? 2 : s >= STEPS[1]! ? 3 : s >= STEPS[2]! ? 4 : 5;
    }
  }
  const lines: ContourLine[] = [];
  if (high > low) {
    // The first threshold is the shore, a hand's breadth above the water.
    const thresholds = [0.05];
    for (let t = Math.ceil((low + 1e-6) / q.intervalM) * q.intervalM; t < high; t += q.intervalM) if (t > 0.05) thresholds.push(t);
    const make = contourMaker().size([q.cols, q.rows]).smooth(true).thresholds(thresholds);
    for (const shape of make(filled)) {
      for (const polygon of shape.coordinates) {
        for (const ring of polygon) {
          let piece: number[] = [];
          const flush = (): void => {
            if (piece.length >= 6) lines.push({ heightM: shape.value, points: Float64Array.from(piece) });
            piece = [];
          };
          for (const [cx, cy] of ring as [number, number][]) {
            // Runs along the rim of the window are no contours.
            if (cx <= 0.5 || cy <= 0.5 || cx >= q.cols - 0.5 || cy >= q.rows - 0.5) {
              flush();
              continue;
            }
            piece.push(q.x0 + (cx - 0.5) * q.stepM, q.y0 - (cy - 0.5) * q.stepM);
          }
          flush();
        }
      }
    }
  }
  return transfer({ tint, contours: lines }, [tint.buffer as ArrayBuffer]);
};

expose({ relief } satisfies ReliefWorker);
