"use client";
import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import { type Channel, centresOf, ruledChannel } from "@/core/air";
import { TYPE } from "../../drawing/type";
import { VERDICT_WORD } from "../../wording/verdicts";
import type { BandScale } from "./air-scale";
import type { MastRow } from "./air-view";
import { channelText } from "./air-words";
import { cut, LANE_PX, namePlace } from "./band-frame";
import type { OpenAir } from "./use-open-air";

/** A unit on its channel: dragged or stepped to another, wider or narrower, locked. What is moved is drawn, and planned apart. */
export const ChannelBlock = ({
  open,
  block: b,
  y,
  scale,
  meet,
  width,
  plan,
  mates,
}: {
  open: OpenAir;
  block: MastRow["blocks"][number];
  y: number;
  scale: BandScale;
  meet: string;
  width: number;
  plan: () => void;
  /** Others of its lane. */
  mates: readonly MastRow["blocks"][number][];
}) => {
  const drag = useRef<{ px: number; mhz: number } | null>(null);
  const unit = open.built.job.units.find((u) => u.id === b.unitId)!;
  const [x0, x1] = [scale.x(b.channel.centreMhz - b.channel.widthMhz / 2), scale.x(b.channel.centreMhz + b.channel.widthMhz / 2)];
  const permitted = (widthMhz: number): number[] =>
    centresOf(unit, widthMhz).filter((centreMhz) => unit.links.every((l) => ruledChannel(l.plan, { centreMhz, widthMhz }).allowed));
  const move = (channel: Channel): void => {
    if (b.locked || (channel.centreMhz === b.channel.centreMhz && channel.widthMhz === b.channel.widthMhz)) return;
    const channels = new Map(open.tried?.channels ?? []);
    channels.set(b.unitId, channel);
    open.setUnit(b.unitId);
    open.setTried({ words: `${b.name} on ${channelText(channel)} MHz`, channels });
  };
  const step = (by: number): void => {
    const list = permitted(b.channel.widthMhz);
    const next =
      by > 0 ? list.find((c) => c > b.channel.centreMhz + 1e-6) : [...list].reverse().find((c) => c < b.channel.centreMhz - 1e-6);
    if (next !== undefined) move({ centreMhz: next, widthMhz: b.channel.widthMhz });
  };
  const widen = (by: number): void => {
    const all = [...new Set(unit.links.flatMap((l) => l.plan.near.radio.channelWidthsMhz))].sort((a, c) => a - c);
    const at = all.indexOf(b.channel.widthMhz) + by;
    const widthMhz = all[at];
    if (widthMhz === undefined) return;
    const list = permitted(widthMhz);
    if (list.length === 0) return;
    const centreMhz = list.reduce((a, c) => (Math.abs(c - b.channel.centreMhz) < Math.abs(a - b.channel.centreMhz) ? c : a));
    move({ centreMhz, widthMhz });
  };
  const lock = (): void => {
    const { locks } = open.fields;
    open.change({ locks: locks.includes(b.unitId) ? locks.filter((k) => k !== b.unitId) : [...locks, b.unitId] });
  };
  const onKeyDown = (e: KeyboardEvent): void => {
    const by = e.key === "ArrowLeft" ? -1 : e.key === "ArrowRight" ? 1 : 0;
    const isLock = e.key === "k" || e.key === "K";
    const isPlan = e.key === "Enter" && open.tried !== null;
    if (by === 0 && !isLock && !isPlan) return;
    e.preventDefault();
    e.stopPropagation();
    if (isPlan) plan();
    else if (isLock) lock();
    else if (e.shiftKey) widen(by);
    else step(by);
  };
  const onPointerDown = (e: PointerEvent<SVGGElement>): void => {
    if (b.locked || e.button !== 0) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    drag.current = { px: e.clientX, mhz: b.channel.centreMhz };
    open.setUnit(b.unitId);
  };
  const onPointerMove = (e: PointerEvent<SVGGElement>): void => {
    const from = drag.current;
    if (from === null || Math.abs(e.clientX - from.px) < 3) return;
    const wanted = scale.mhzAt(scale.x(from.mhz) + e.clientX - from.px);
    const list = permitted(b.channel.widthMhz);
    if (list.length === 0) return;
    move({ centreMhz: list.reduce((a, c) => (Math.abs(c - wanted) < Math.abs(a - wanted) ? c : a)), widthMhz: b.channel.widthMhz });
  };
  const moved = open.tried?.channels.has(b.unitId) === true;
  const name = namePlace(
    x0,
    x1,
    mates.map((m) => [scale.x(m.channel.centreMhz - m.channel.widthMhz / 2), scale.x(m.channel.centreMhz + m.channel.widthMhz / 2)]),
    width,
  );
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`${b.name}${b.locked ? ", locked" : ""}: ${VERDICT_WORD[b.verdict]}`}
      aria-valuenow={b.channel.centreMhz}
      aria-valuetext={`${channelText(b.channel)} MHz wide${b.meets.length > 0 ? `, meets ${b.meets.length} on its mast` : ""}`}
      className={b.locked ? "" : "cursor-ew-resize"}
      style={{ touchAction: "none" }}
      onKeyDown={onKeyDown}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      // Also where the pointer is taken away without having been lifted.
      onLostPointerCapture={() => {
        drag.current = null;
      }}
      onFocus={() => open.setUnit(b.unitId)}
      data-unit={b.unitId}
      data-testid="block"
    >
      <title>{`${b.name}: ${channelText(b.channel)} MHz wide`}</title>
      <rect
        x={x0}
        y={y}
        width={Math.max(4, x1 - x0)}
        height={LANE_PX - 4}
        fill={b.meets.length > 0 ? `url(#${meet})` : "var(--lens)"}
        stroke={b.meets.length > 0 ? "var(--short)" : "var(--ink)"}
        strokeWidth={open.unitId === b.unitId ? 2.4 : 1.4}
        strokeDasharray={moved ? "4 3" : undefined}
      />
      {b.locked && <rect x={x0} y={y + LANE_PX - 4} width={Math.max(4, x1 - x0)} height={3} fill="var(--ink)" />}
      <text
        x={name.x}
        y={y + 12.5}
        textAnchor={name.anchor}
        fontSize={TYPE.label}
        fontWeight={open.unitId === b.unitId ? 720 : 520}
        className="halo"
      >
        {cut(b.name, name.most)}
      </text>
    </g>
  );
};
