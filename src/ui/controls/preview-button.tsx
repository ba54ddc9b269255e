"use client";
import type { ReactNode } from "react";
import type { DesignAction } from "@/core/link";

export interface Taking {
  readonly apply: (action: DesignAction) => void;
  /** Draws an action on the section without taking it; null takes the drawing back. */
  readonly preview: (action: DesignAction | null) => void;
}

/** An action of a design: pointed at or focused it is drawn, pressed it is taken. */
export const PreviewButton = ({
  action,
  apply,
  preview,
  className = "text-line",
  children,
}: Taking & { action: DesignAction; className?: string; children: ReactNode }) => (
  <button
    type="button"
    className={`press ${className}`}
    onMouseEnter={() => preview(action)}
    onMouseLeave={() => preview(null)}
    onFocus={() => preview(action)}
    onBlur={() => preview(null)}
    onClick={() => {
      preview(null);
      apply(action);
    }}
  >
    {children}
  </button>
);
