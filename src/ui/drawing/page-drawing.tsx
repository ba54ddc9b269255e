import { useId } from "react";
import { hatchStrokes, type Mark, type Page, textWidthPt } from "@/core/page";

/* A page of paper on the screen: the same marks as the file's. Paper stays black on white in every mode. */

const INK = "#000";
const PAPER = "#fff";

const Drawn = ({ mark, id }: { mark: Mark; id: string }) => {
  if (mark.kind === "text")
    return (
      <text
        x={mark.x}
        y={mark.y}
        fontSize={mark.sizePt}
        fontWeight={mark.face === "bold" ? 700 : 400}
        textAnchor={mark.anchor}
        style={{ fill: mark.inverse === true ? PAPER : INK }}
        // As wide as it was measured when the page was laid out.
        textLength={mark.text.length > 1 ? textWidthPt(mark.text, mark.sizePt, mark.face) : undefined}
        xmlSpace="preserve"
      >
        {mark.text}
      </text>
    );
  if (mark.kind === "hatch")
    return (
      <g>
        <clipPath id={id}>
          <path d={mark.d} />
        </clipPath>
        <path
          clipPath={`url(#${id})`}
          d={hatchStrokes(mark)
            .map(([x1, y1, x2, y2]) => `M${x1.toFixed(1)} ${y1.toFixed(1)}L${x2.toFixed(1)} ${y2.toFixed(1)}`)
            .join("")}
          stroke={INK}
          strokeWidth={0.35}
          fill="none"
        />
      </g>
    );
  return (
    <path
      d={mark.d}
      fill={mark.fill === "ink" ? INK : mark.fill === "paper" ? PAPER : "none"}
      stroke={mark.widthPt > 0 ? INK : "none"}
      strokeWidth={mark.widthPt}
      strokeLinejoin="round"
      strokeDasharray={mark.dash?.join(" ")}
    />
  );
};

export const PageDrawing = ({ page, label }: { page: Page; label: string }) => {
  const own = useId().replace(/[^\w]/g, "");
  let n = 0;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing with figures of its own within is no fieldset
    <svg
      role="group"
      aria-label={label}
      viewBox={`0 0 ${page.widthPt} ${page.heightPt}`}
      className="block h-auto w-full"
      style={{ background: PAPER }}
    >
      {page.blocks.map((b, i) => {
        const marks = [...b.marks, ...(b.rows ?? []).flat(2)].map((m) => <Drawn key={n} mark={m} id={`${own}-${n++}`} />);
        if (b.role === "Figure" && b.alt !== undefined)
          return (
            // biome-ignore lint/a11y/noInteractiveElementToNoninteractiveRole: a part of a drawing is no control
            <g key={i} role="img" aria-label={b.alt}>
              {marks}
            </g>
          );
        return <g key={i}>{marks}</g>;
      })}
    </svg>
  );
};
