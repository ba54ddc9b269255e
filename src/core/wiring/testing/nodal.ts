/* A circuit solved node by node: conductances, Newton on the currents, elimination by Gauss. Shares nothing with the sweeps. */

export interface NodalBranch {
  readonly from: number;
  readonly to: number;
  readonly ohm: number;
}

/** @param watts drawn at each node; node 0 is the source and holds its volts. @returns volts by node, or null where Newton finds none. */
export const solveNodal = (sourceV: number, watts: readonly number[], branches: readonly NodalBranch[]): number[] | null => {
  const n = watts.length;
  const v = new Array<number>(n).fill(sourceV);
  for (let turn = 0; turn < 200; turn++) {
    const jacobian = Array.from({ length: n - 1 }, () => new Array<number>(n - 1).fill(0));
    const residual = new Array<number>(n - 1).fill(0);
    for (let i = 1; i < n; i++) {
      residual[i - 1] = watts[i]! / v[i]!;
      jacobian[i - 1]![i - 1]! -= watts[i]! / v[i]! ** 2;
    }
    for (const { from, to, ohm } of branches)
      for (const [a, b] of [
        [from, to],
        [to, from],
      ] as const) {
        if (a === 0) continue;
        residual[a - 1]! += (v[a]! - v[b]!) / ohm;
        jacobian[a - 1]![a - 1]! += 1 / ohm;
        if (b !== 0) jacobian[a - 1]![b - 1]! -= 1 / ohm;
      }
    const step = eliminate(jacobian, residual);
    if (step === null) return null;
    let moved = 0;
    for (let i = 1; i < n; i++) {
      const next = v[i]! - step[i - 1]!;
      if (!(next > 0)) return null;
      moved = Math.max(moved, Math.abs(step[i - 1]!));
      v[i] = next;
    }
    if (moved < 1e-12) return v;
  }
  return null;
};

const eliminate = (matrix: readonly (readonly number[])[], right: readonly number[]): number[] | null => {
  const m = matrix.map((row, i) => [...row, right[i]!]);
  const n = m.length;
  for (let col = 0; col < n; col++) {
    let pivot = col;
    for (let row = col + 1; row < n; row++) if (Math.abs(m[row]![col]!) > Math.abs(m[pivot]![col]!)) pivot = row;
    if (Math.abs(m[pivot]![col]!) < 1e-14) return null;
    [m[col], m[pivot]] = [m[pivot]!, m[col]!];
    for (let row = 0; row < n; row++) {
      if (row === col) continue;
      const f = m[row]![col]! / m[col]![col]!;
      for (let k = col; k <= n; k++) m[row]![k]! -= f * m[col]![k]!;
    }
  }
  return m.map((row, i) => row[n]! / row[i]!);
};
