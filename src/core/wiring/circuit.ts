/*
 * Volts in a tree of leads with loads of constant power: at each node V = V(above) - R I, and each load draws I = P / V. Of the two
 * solutions the one with more volts is what a supply that comes up slowly settles on. Sweeps from the source's volts downward
 * fall towards it and never pass it; where they fall without end there is none, and nothing starts.
 */

export interface CircuitNode {
  /** Index of the node above; -1 for one that hangs at the source. Nodes stand after the one above. */
  readonly above: number;
  /** Loop resistance of the lead from above, ohm. */
  readonly ohm: number;
  /** What is drawn here, W. */
  readonly loadW: number;
}

export interface Circuit {
  /** Volts at each node; null when no solution holds. */
  readonly volts: Float64Array | null;
  /** Amperes in the lead that leads to each node. */
  readonly amps: Float64Array;
  /** Drawn from the source, W. */
  readonly sourceW: number;
}

const MOST_SWEEPS = 20_000;
const STILL_V = 1e-10;

/** @throws RangeError for a node that stands before the one above, or figures below 0. */
export const solveCircuit = (sourceV: number, nodes: readonly CircuitNode[]): Circuit => {
  const n = nodes.length;
  nodes.forEach((node, i) => {
    if (node.above >= i || node.above < -1) throw new RangeError(`node ${i} must stand after the one above it`);
    if (!(node.ohm >= 0) || !(node.loadW >= 0)) throw new RangeError(`node ${i} must have ohms and watts of 0 or more`);
  });
  const volts = new Float64Array(n).fill(sourceV);
  const amps = new Float64Array(n);
  for (let sweep = 0; sweep < MOST_SWEEPS; sweep++) {
    for (let i = 0; i < n; i++) amps[i] = nodes[i]!.loadW / volts[i]!;
    for (let i = n - 1; i >= 0; i--) {
      const { above } = nodes[i]!;
      if (above >= 0) amps[above]! += amps[i]!;
    }
    let moved = 0;
    for (let i = 0; i < n; i++) {
      const { above, ohm } = nodes[i]!;
      const v = (above < 0 ? sourceV : volts[above]!) - ohm * amps[i]!;
      if (!(v > 0)) return { volts: null, amps, sourceW: Number.POSITIVE_INFINITY };
      moved = Math.max(moved, Math.abs(v - volts[i]!));
      volts[i] = v;
    }
    if (moved < STILL_V) {
      let sourceA = 0;
      for (let i = 0; i < n; i++) if (nodes[i]!.above < 0) sourceA += amps[i]!;
      return { volts, amps, sourceW: sourceA * sourceV };
    }
  }
  return { volts: null, amps, sourceW: Number.POSITIVE_INFINITY };
};
