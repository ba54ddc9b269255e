"use client";
import { select, type ZoomBehavior, zoom, zoomIdentity } from "d3";
import { type RefObject, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { type Closer, WHOLE } from "./section-scale";

const MOST = 60;
const STEP = 1.5;
const PAN_SHARE = 0.15;
const DRIFT = 0.35;
const MIDDLE = 0.45;

export interface CloserControls {
  readonly closer: Closer;
  readonly nearer: (atPx?: number) => void;
  readonly wider: (atPx?: number) => void;
  readonly whole: () => void;
  /** Moves the view along the path by a share of its width. */
  readonly pan: (way: 1 | -1) => void;
}

/**
 * Wheel, pinch, drag and keys look closer at a drawing; sliders, fields and buttons in it keep their own drag.
 * @param heightAt where what matters is drawn at a place of the whole view, both in pixels: the view grows about it.
 */
export const useCloser = (
  target: RefObject<HTMLElement | null>,
  width: number,
  height: number,
  heightAt: (px: number) => number,
): CloserControls => {
  const [closer, setCloser] = useState<Closer>(WHOLE);
  const now = useRef<Closer>(WHOLE);
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
        if (event.type === "wheel") return false;
        const on = event.target instanceof Element ? event.target.closest("[role=slider], input, button") : null;
        return on === null && !(event instanceof MouseEvent && event.type === "mousedown" && event.button !== 0);
      })
      .on("zoom", ({ transform }: { transform: { k: number; x: number; y: number } }) => {
        now.current = { k: transform.k, tx: transform.x, ty: transform.y };
        setCloser(now.current);
      });
    behaviour.current = own;
    select(element).call(own);
    return () => {
      select(element).on(".zoom", null);
      behaviour.current = null;
    };
  }, [target, width, height]);
  const centre = useRef(heightAt);
  centre.current = heightAt;
  const by = useCallback(
    (factor: number, atPx?: number): void => {
      const element = target.current;
      const own = behaviour.current;
      if (element === null || own === null) return;
      const px = atPx ?? width / 2;
      const { k, tx, ty } = now.current;
      const py = centre.current((px - tx) / k) * k + ty;
      select(element).call(own.scaleBy, factor, [px, py]);
      // What matters drifts to the middle of the view as it grows.
      const grown = now.current;
      if (factor > 1) select(element).call(own.translateBy, 0, (DRIFT * (height * MIDDLE - py)) / grown.k);
    },
    [target, width, height],
  );
  useEffect(() => {
    const element = target.current;
    if (element === null) return;
    const onWheel = (event: WheelEvent): void => {
      event.preventDefault();
      const box = element.getBoundingClientRect();
      by(2 ** (-event.deltaY * (event.deltaMode === 1 ? 0.05 : 0.002)), event.clientX - box.left);
    };
    element.addEventListener("wheel", onWheel, { passive: false });
    return () => element.removeEventListener("wheel", onWheel);
  }, [target, by]);
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
