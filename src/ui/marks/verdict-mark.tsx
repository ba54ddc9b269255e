import type { Verdict } from "@/core/link";
import { markWidth, verdictPaths } from "./verdict-paths";

export const VerdictShape = ({ verdict, a }: { verdict: Verdict; a: number }) => (
  <g>
    {verdictPaths(verdict, a).map((s) => (
      <path
        key={s.d}
        d={s.d}
        fill={s.fill ? "currentColor" : "none"}
        stroke={s.fill ? "none" : "currentColor"}
        strokeWidth={markWidth(a)}
        strokeDasharray={s.dash?.join(" ")}
      />
    ))}
  </g>
);

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
