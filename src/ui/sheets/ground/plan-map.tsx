"use client";
import { useGroundMap } from "./use-ground-map";
import type { OpenGround } from "./use-open-ground";

/** The plan drawing itself. */
export const PlanMap = ({ ground }: { ground: OpenGround }) => {
  useGroundMap(ground.drawn);
  return (
    <div
      ref={ground.drawn.target}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: an application takes the keys itself.
      tabIndex={0}
      role="application"
      aria-label="Ground: plan drawing. Arrow keys move it, plus and minus zoom."
      className="map absolute inset-0"
      data-testid="map"
    />
  );
};
