import { expose, transfer } from "comlink";
import { raiseSurface } from "@/core/obstacles";
import { neededAmslAt, viewshed } from "@/core/terrain";
import type { ViewAnswer, ViewRequest, ViewWorker } from "./messages";

const heightAt = (ground: Float32Array, cols: number, rows: number, col: number, row: number): number => {
  const c = Math.min(cols - 2, Math.max(0, Math.floor(col)));
  const r = Math.min(rows - 2, Math.max(0, Math.floor(row)));
  const [u, v] = [col - c, row - r];
  const at = (i: number, k: number): number => ground[k * cols + i]!;
  return (at(c, r) * (1 - u) + at(c + 1, r) * u) * (1 - v) + (at(c, r + 1) * (1 - u) + at(c + 1, r + 1) * u) * v;
};

const view = (q: ViewRequest, onProgress: (share: number) => void): ViewAnswer => {
  const { cols, rows, groundAmslM } = q;
  const surfaceAmslM = Float32Array.from(groundAmslM);
  raiseSurface(surfaceAmslM, cols, rows, q.bodies);
  const window = { surfaceAmslM, cols, rows, stepM: q.stepM };
  const from = { col: q.from.col, row: q.from.row, amslM: heightAt(groundAmslM, cols, rows, q.from.col, q.from.row) + q.from.aglM };
  const mask = new Uint8Array(cols * rows);
  let seen = 0;
  let known = 0;
  if (!Number.isNaN(from.amslM)) {
    const needed = viewshed(window, from, q.effectiveRadiusM, onProgress);
    for (let i = 0; i < mask.length; i++) {
      const ground = groundAmslM[i]!;
      const need = needed[i]!;
      if (Number.isNaN(ground) || Number.isNaN(need)) continue;
      known++;
      mask[i] = ground + q.targetAglM >= need ? 2 : 1;
      if (mask[i] === 2) seen++;
    }
  }
  const places = q.places.map((p) => {
    const own = heightAt(groundAmslM, cols, rows, p.col, p.row) + p.aglM;
    const need = Number.isNaN(from.amslM) ? Number.NaN : neededAmslAt(window, from, p.col, p.row, q.effectiveRadiusM);
    return { id: p.id, spareM: Number.isNaN(own) || Number.isNaN(need) ? null : Math.min(1000, own - need) };
  });
  const answer: ViewAnswer = { mask, seenShare: known === 0 ? 0 : seen / known, places };
  return transfer(answer, [mask.buffer as ArrayBuffer]);
};

expose({ view } satisfies ViewWorker);
