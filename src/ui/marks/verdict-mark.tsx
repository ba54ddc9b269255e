import type { Verdict } from "@/core/link";

/** The four verdicts as one scene: the line of the ray over something standing under it. `a` is half the width. */
export const VerdictShape = ({ verdict, a }: { verdict: Verdict; a: number }) => {
  const w = Math.max(1.5, 0.085 * a);
  const line = -0.28 * a;
  const foot = 0.62 * a;
  const stroke = { stroke: "currentColor", strokeWidth: w, fill: "none" } as const;
  if (verdict === "clear") {
    return (
      <g>
        <path d={`M${-a} ${line}H${a}`} {...stroke} />
        <path d={`M${-0.62 * a} ${foot}Q${-0.4 * a} ${0.02 * a} 0 ${0.02 * a}T${0.62 * a} ${foot}Z`} {...stroke} />
      </g>
    );
  }
  if (verdict === "tight") {
    return (
      <g>
        <path d={`M${-a} ${line}H${a}`} {...stroke} />
        <path d={`M${-0.6 * a} ${foot}L0 ${-0.16 * a}L${0.6 * a} ${foot}Z`} {...stroke} />
        <path d={`M${-0.6 * a} ${foot}L0 ${-0.16 * a}V${foot}Z`} fill="currentColor" />
      </g>
    );
  }
  if (verdict === "short") {
    return (
      <g>
        <path d={`M${-a} ${line}H${-0.52 * a}`} {...stroke} />
        <path d={`M${0.5 * a} ${line}h${0.17 * a}M${0.82 * a} ${line}h${0.17 * a}`} {...stroke} />
        <path d={`M${-0.6 * a} ${foot}L0 ${-0.78 * a}L${0.6 * a} ${foot}Z`} fill="currentColor" />
      </g>
    );
  }
  return (
    <g>
      <path d={`M${-a} ${line}h${0.44 * a}M${-0.22 * a} ${line}h${0.44 * a}M${0.56 * a} ${line}h${0.44 * a}`} {...stroke} />
      <path d={`M${-0.6 * a} ${foot}L${-0.2 * a} ${0.04 * a}M${0.6 * a} ${foot}L${0.2 * a} ${0.04 * a}`} {...stroke} strokeDasharray={`${0.18 * a} ${0.12 * a}`} />
      <circle cx={0} cy={foot - w / 2} r={w * 0.8} fill="currentColor" />
    </g>
  );
};

export const VerdictMark = ({ verdict, a = 9, inverted = false }: { verdict: Verdict; a?: number; inverted?: boolean }) => (
  <svg
    aria-hidden="true"
    width={2 * a + 2}
    height={1.6 * a}
    viewBox={`${-a - 1} ${-0.86 * a} ${2 * a + 2} ${1.6 * a}`}
    className={inverted ? "text-paper" : `mark-${verdict}`}
    style={{ display: "inline-block", verticalAlign: "middle", flex: "none" }}
  >
    <VerdictShape verdict={verdict} a={a} />
  </svg>
);
