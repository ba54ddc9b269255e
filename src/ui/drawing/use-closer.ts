"use client";
import { select, type ZoomBehavior, zoom, zoomIdentity } from "d3";
import { type RefObject, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { type Closer, WHOLE } from "./section-scale";

const MOST = 60;
const STEP = 1.5;
const PAN_SHARE = 0.15;

export interface CloserControls {
  readonly closer: Closer;
  readonly nearer: (atPx?: number) => void;
  readonly wider: (atPx?: number) => void;
  readonly whole: () => void;
  /** Moves the view along the path by a share of its width. */
  readonly pan: (way: 1 | -1) => void;
}

/** Wheel, pinch, drag and keys look closer at a drawing; what carries data-handle keeps its own drag. */
export const useCloser = (target: RefObject<HTMLElement | null>, width: number, height: number): CloserControls => {
  const [closer, setCloser] = useState<Closer>(WHOLE);
  const behaviour = useRef<ZoomBehavior<HTMLElement, unknown> | null>(null);
  useEffect(() => {
    const element = target.current;
    if (element === null || width === 0 || height === 0) return;
    const own = zoom<HTMLElement, unknown>()
      .scaleExtent([1, MOST])
      .extent([
        [0, 0],
        [width, height],
      ])
      .translateExtent([
        [0, 0],
        [width, height],
      ])
      .filter((event: Event) => {
        const on = event.target instanceof Element ? event.target.closest("[data-handle], [role=slider], input, button") : null;
        return on === null && !(event instanceof MouseEvent && event.type === "mousedown" && event.button !== 0);
      })
      .on("zoom", ({ transform }: { transform: { k: number; x: number; y: number } }) =>
        setCloser({ k: transform.k, tx: transform.x, ty: transform.y }),
      );
    behaviour.current = own;
    select(element).call(own);
    return () => {
      select(element).on(".zoom", null);
      behaviour.current = null;
    };
  }, [target, width, height]);
  const by = useCallback(
    (factor: number, atPx?: number): void => {
      if (target.current === null || behaviour.current === null) return;
      select(target.current).call(behaviour.current.scaleBy, factor, [atPx ?? width / 2, height * 0.45]);
    },
    [target, width, height],
  );
  return useMemo(
    () => ({
      closer,
      nearer: (atPx) => by(STEP, atPx),
      wider: (atPx) => by(1 / STEP, atPx),
      whole: () => {
        if (target.current !== null && behaviour.current !== null) select(target.current).call(behaviour.current.transform, zoomIdentity);
      },
      pan: (way) => {
        if (target.current !== null && behaviour.current !== null)
          select(target.current).call(behaviour.current.translateBy, (-way * PAN_SHARE * width) / closer.k, 0);
      },
    }),
    [closer, by, target, width],
  );
};
