"use client";
import { type HierarchyPointNode, hierarchy, tree as treeLayout } from "d3";
import { TYPE } from "../../drawing/type";
import { rateText } from "../../wording/gear";
import { cutMiddle } from "../../wording/names";
import { VERDICT_WORD } from "../../wording/verdicts";
import { verdictInk } from "../hub/plan-drawing";
import type { TreeNode } from "./load-tree";

const ROW_PX = 26;
const LEFT = 14;
const LABEL_PX = 168;
const LEAST_COLUMN_PX = 150;

/** The whole job as a tree from the feed: each way as wide as what is asked through it, in the colour of its worst place. */
export const TreeDrawing = ({
  root,
  width,
  chosen,
  choose,
}: {
  root: TreeNode;
  width: number;
  chosen: string | null;
  choose: (siteId: string) => void;
}) => {
  const of = hierarchy(root, (n) => [...n.children]);
  const column = Math.max(LEAST_COLUMN_PX, (width - LEFT - LABEL_PX) / Math.max(1, of.height));
  const laid = treeLayout<TreeNode>().nodeSize([ROW_PX, column])(of);
  const nodes = laid.descendants();
  const [low, high] = [Math.min(...nodes.map((n) => n.x)), Math.max(...nodes.map((n) => n.x))];
  const x = (n: HierarchyPointNode<TreeNode>): number => LEFT + n.y;
  const y = (n: HierarchyPointNode<TreeNode>): number => n.x - low + ROW_PX;
  const most = Math.max(1, ...nodes.map((n) => n.data.askedMbps));
  const whole = LEFT + column * of.height + LABEL_PX;
  return (
    // biome-ignore lint/a11y/useSemanticElements: inside a drawing there is no fieldset.
    <svg
      width={Math.max(width, whole)}
      height={high - low + 2 * ROW_PX}
      role="group"
      aria-label="The whole job as a tree from the feed"
      className="block"
      data-testid="tree"
    >
      {laid.links().map(({ source, target }) => (
        <path
          key={target.data.siteId}
          d={`M${x(source)} ${y(source)}C${x(source) + column * 0.5} ${y(source)} ${x(target) - column * 0.5} ${y(target)} ${x(target)} ${y(target)}`}
          fill="none"
          stroke={verdictInk(target.data.verdict)}
          strokeOpacity={target.data.verdict === "clear" ? 0.55 : 0.9}
          strokeWidth={Math.max(1.2, (target.data.askedMbps / most) * 12)}
        />
      ))}
      {nodes.map((n) => (
        // biome-ignore lint/a11y/useSemanticElements: inside a drawing there is no button.
        <g
          key={n.data.siteId}
          role="button"
          tabIndex={0}
          aria-pressed={n.data.siteId === chosen}
          aria-label={`${n.data.name}: ${VERDICT_WORD[n.data.verdict]}, ${rateText(n.data.askedMbps)} Mbps asked on its way`}
          className="cursor-pointer"
          onClick={() => choose(n.data.siteId)}
          onKeyDown={(e) => {
            if (e.key === "Enter" || e.key === " ") {
              e.preventDefault();
              choose(n.data.siteId);
            }
          }}
        >
          <rect x={x(n) - 10} y={y(n) - ROW_PX / 2} width={LABEL_PX} height={ROW_PX} fill="transparent" />
          <circle
            cx={x(n)}
            cy={y(n)}
            r={n.data.siteId === chosen ? 6 : 4.5}
            fill={n.data.siteId === chosen ? verdictInk(n.data.verdict) : "var(--paper)"}
            stroke={verdictInk(n.data.verdict)}
            strokeWidth="2"
          />
          <text x={x(n) + 10} y={y(n) + 4.5} fontSize={TYPE.note} fontWeight={n.data.siteId === chosen ? 700 : 520} className="halo">
            {cutMiddle(n.data.name, 16)}
            <tspan className="mono" fontSize={TYPE.label}>
              {" "}
              {rateText(n.data.askedMbps)}
            </tspan>
          </text>
        </g>
      ))}
    </svg>
  );
};
