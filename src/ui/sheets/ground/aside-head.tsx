"use client";
import type { MapMode } from "../../map/ground-map";
import { DRAWERS, MODES, type Panel } from "./ground-modes";

type Drawer = (typeof DRAWERS)[number]["kind"];

/** What the pointer does in a mode, in a sentence. */
export const hintOf = (mode: MapMode): string | undefined => {
  if (mode === "edit") return "Drag a corner; press an edge to add one; Alt and press takes one out.";
  if (mode === "cut") return "Draw a line right across the outline.";
  return MODES.find((m) => m.mode === mode)?.hint;
};

/** The head of what stands beside the drawing: what can be opened there, what the pointer does, what went wrong. */
export const AsideHead = ({
  open,
  wide,
  toggle,
  hint,
  fault,
  forget,
}: {
  open: Panel["kind"];
  wide: boolean;
  toggle: (kind: Drawer) => void;
  hint: string | undefined;
  fault: string | null;
  forget: () => void;
}) => (
  <>
    <div
      role="toolbar"
      aria-label="Bring in, take out, look up"
      className={`no-print gap-x-3 gap-y-1 border-b border-ink px-3.5 py-2 ${wide ? "flex justify-between" : "grid grid-cols-2"}`}
    >
      {DRAWERS.map((d) => (
        <button
          key={d.kind}
          type="button"
          aria-pressed={open === d.kind}
          className={`min-h-6 text-left text-line ${open === d.kind ? "font-bold underline decoration-2 underline-offset-4" : ""}`}
          onClick={() => toggle(d.kind)}
        >
          {d.name}
        </button>
      ))}
    </div>
    {!DRAWERS.some((d) => d.kind === open) && <p className="cap m-0 border-b border-rule px-3.5 py-2">{hint}</p>}
    {fault !== null && (
      <div role="alert" className="flex gap-2 border-b border-short px-3.5 py-2 text-short-figure">
        <span className="flex-1">{fault}</span>
        <button type="button" className="press" onClick={forget}>
          Close
        </button>
      </div>
    )}
  </>
);
