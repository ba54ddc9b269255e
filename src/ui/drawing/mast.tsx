"use client";
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import { HIGHEST_TYPED_MOUNT_M } from "@/core/link";
import { rayBulgeM } from "@/core/obstacles";
import { lengthText, metresFrom } from "../wording/numbers";
import type { SectionProps } from "./section-props";
import { TYPE } from "./type";

const NUDGE = { metric: [0.1, 1], imperial: [0.1524, 0.9144] } as const;

/** A mast with its handle: dragged, nudged by arrow keys, flagged with where it clears from and what the structure carries. */
export const Mast = ({ end, props }: { end: "near" | "far"; props: SectionProps }) => {
  const { ray, scale, plan, units, result, settled } = props;
  const [held, setHeld] = useState(false);
  const drag = useRef<{ y: number; aglM: number } | null>(null);
  const own = end === "near" ? plan.near : plan.far;
  const colour = `var(--${end})`;
  const atM = end === "near" ? ray.startM : ray.endM;
  const groundM = (end === "near" ? result.geometry.nearAmslM : result.geometry.farAmslM) - own.mountAglM;
  const x = scale.x(atM);
  const foot = scale.y(groundM + rayBulgeM(ray, atM));
  const top = scale.y(groundM + own.mountAglM + rayBulgeM(ray, atM));
  const oldAgl = end === "near" ? settled.nearAglM : settled.farAglM;
  const oldTop = scale.y(groundM + oldAgl + rayBulgeM(ray, atM));
  const out = end === "near" ? 1 : -1;
  const set = (aglM: number): void => props.onMount(end, Math.round(Math.min(HIGHEST_TYPED_MOUNT_M, Math.max(0, aglM)) * 100) / 100);
  const [small, big] = NUDGE[units];
  const onPointerDown = (event: PointerEvent<SVGGElement>): void => {
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { y: event.clientY, aglM: own.mountAglM };
    setHeld(true);
    props.onBegin();
  };
  const onPointerMove = (event: PointerEvent<SVGGElement>): void => {
    if (drag.current === null) return;
    const raw = drag.current.aglM + (drag.current.y - event.clientY) * scale.metresPerPxY;
    const stepM = units === "metric" ? 0.1 : metresFrom("imperial", 0.5);
    set(Math.round(raw / stepM) * stepM);
  };
  const release = (): void => {
    if (drag.current === null) return;
    drag.current = null;
    setHeld(false);
    props.onEnd();
  };
  const onKeyDown = (event: KeyboardEvent<SVGGElement>): void => {
    const by = { ArrowUp: 1, ArrowDown: -1, PageUp: 10, PageDown: -10 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    set(own.mountAglM + by * (event.shiftKey ? big : small));
  };
  const clears = end === "near" ? props.clearsFrom.nearAglM : props.clearsFrom.farAglM;
  const clearsY = clears === null ? null : scale.y(groundM + clears + rayBulgeM(ray, atM));
  const limit = own.mountMaxAglM;
  const limitY = limit === null ? null : scale.y(groundM + limit + rayBulgeM(ray, atM));
  const ringY = top - 20;
  return (
    <g>
      {Math.abs(oldTop - top) > 1 && (
        <path
          d={`M${x} ${Math.max(oldTop, top)}V${oldTop}M${x - 7} ${oldTop}h14`}
          stroke="var(--ink-2)"
          strokeWidth="1.2"
          strokeDasharray="3 2"
          className="ghost"
        />
      )}
      <path d={`M${x} ${foot}V${top}`} stroke="var(--ink)" strokeWidth="2.1" />
      {clearsY !== null && clearsY > 12 && clearsY < top - 4 && (
        <g aria-hidden="true">
          <path d={`M${x} ${Math.min(ringY - 9, top)}V${clearsY}`} stroke={colour} strokeWidth="1" strokeDasharray="3 3" />
          <path d={`M${x - 6} ${clearsY}h12`} stroke={colour} strokeWidth="2" />
          {/* Another design looked at draws its own ray here, and says its own figure. */}
          {props.ghost === null && (
            <text
              x={x + 14 * out}
              y={Math.max(56, clearsY < ringY - 14 ? clearsY + 4 : ringY - 12)}
              fontSize={TYPE.tick}
              textAnchor={end === "near" ? "start" : "end"}
              className="halo"
            >
              clears from {lengthText(units, clears!)}
            </text>
          )}
        </g>
      )}
      {limitY !== null && limitY > 8 && (
        <g aria-hidden="true">
          <path d={`M${x} ${limitY}h${-16 * out}`} stroke="var(--ink-2)" strokeWidth="1" strokeDasharray="2 2" />
          <text
            x={x - 18 * out}
            y={limitY + 4}
            fontSize={TYPE.label}
            textAnchor={end === "near" ? "end" : "start"}
            className="halo"
            style={{ fill: "var(--ink-2)" }}
          >
            limit
          </text>
        </g>
      )}
      <rect
        x={x + (end === "near" ? 1 : -8)}
        y={top - 11}
        width="7"
        height="22"
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      <g
        role="slider"
        tabIndex={0}
        aria-label={`${own.name}: mount height above ground`}
        aria-orientation="vertical"
        aria-valuemin={0}
        aria-valuemax={HIGHEST_TYPED_MOUNT_M}
        aria-valuenow={own.mountAglM}
        aria-valuetext={lengthText(units, own.mountAglM)}
        data-testid={`mast-${end}`}
        className="handle"
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={release}
        onPointerCancel={release}
        onKeyDown={onKeyDown}
      >
        <rect x={x - 16} y={ringY - 16} width="32" height="48" fill="transparent" />
        <circle cx={x} cy={ringY} r="8.5" fill={held ? colour : "var(--paper)"} stroke={colour} strokeWidth="2.2" />
        <path
          d={`M${x - 3} ${ringY - 1.6}l3 -3l3 3M${x - 3} ${ringY + 1.6}l3 3l3 -3`}
          fill="none"
          stroke={held ? "var(--paper)" : colour}
          strokeWidth="1.6"
        />
      </g>
    </g>
  );
};
