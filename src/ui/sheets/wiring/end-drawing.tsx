"use client";
import { type KeyboardEvent, type PointerEvent, useMemo, useRef, useState } from "react";
import type { JudgedSite } from "@/contract";
import { judgeWiring, type Lead, portKey } from "@/core/wiring";
import { TYPE } from "../../drawing/type";
import { figure, lengthText } from "../../wording/numbers";
import { voltsText, wattsText } from "../../wording/wiring";
import type { Box, DrawnLead, EndLayout, Socket } from "./end-layout";
import { leadEnds, mayJoin, suits } from "./joins";
import { SocketMark } from "./socket-mark";
import type { OpenWiring } from "./use-open-wiring";

interface Held {
  /** The socket that was picked up. */
  readonly start: Lead["from"];
  /** The lead that is in it, and where that ends. */
  readonly moving: string | null;
  readonly other: Lead["from"] | null;
  readonly at: { readonly x: number; readonly y: number };
  /** The socket under the hand. */
  readonly over: Lead["from"] | null;
}

const pathOf = (points: readonly { readonly x: number; readonly y: number }[]): string =>
  points.map((p, i) => `${i === 0 ? "M" : "L"}${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join("");

const cut = (text: string, width: number): string => {
  const most = Math.max(3, Math.floor(width / 6.1));
  return text.length <= most ? text : `${text.slice(0, most - 1)}…`;
};

const near = (s: Socket, x: number, y: number): number => Math.hypot(s.x - x, s.y - y);
const CATCH_PX = 16;

/** One end cut open: things, sockets, leads; a lead is drawn from socket to socket by pointer or by keys. */
export const EndDrawing = ({ open, site, layout, hatch }: { open: OpenWiring; site: JudgedSite; layout: EndLayout; hatch: string }) => {
  const [held, setHeld] = useState<Held | null>(null);
  const svg = useRef<SVGGElement>(null);
  const { wired: w, feeds } = site.judged;
  const sockets = useMemo(() => layout.boxes.flatMap((b) => b.sockets), [layout]);
  const siteId = site.siteId;
  const bad = useMemo(() => {
    const places = new Map<string, "short" | "unknown" | "tight">();
    const leads = new Map<string, "short" | "unknown" | "tight">();
    for (const f of [...site.findings].reverse()) {
      if (f.placeId !== null) places.set(f.placeId, f.verdict);
      if (f.leadId !== null) leads.set(f.leadId, f.verdict);
    }
    return { places, leads };
  }, [site.findings]);
  const planned = open.endOf(siteId).fields;
  const plannedLeads = useMemo(() => new Map(planned.leads.map((l) => [l.id, l])), [planned.leads]);
  const decides = open.decides?.site.siteId === siteId ? open.decides.arrival : null;

  /** The end that stays and the one that goes elsewhere, were the lead let into a socket: of a lead that is there the end of the same role goes. */
  const endsFor = (h: Held, to: Lead["from"]) => leadEnds(w, h.start, h.other, to);
  /** What a lead would bring, were it let go here. */
  const droppedOf = (h: Held): { readonly text: string; readonly bad: boolean } | null => {
    if (h.over === null) return null;
    const { stays, goes } = endsFor(h, h.over);
    const leads = open.joined(planned.leads, w, goes, h.over, h.moving, h.moving ?? "drawn");
    const then = judgeWiring({ ...w.graph, leads }, open.all);
    const arrival = [stays, h.over].map((e) => then.feeds.arrivals.get(portKey(e))).find((a) => a !== undefined);
    if (arrival === undefined) return { text: "data only", bad: false };
    const { volts, window } = arrival;
    const isOutside = volts !== null && window !== null && (volts < window.low || volts > window.high);
    return { text: volts === null ? "?" : voltsText(volts), bad: arrival.fit !== "fits" || arrival.collapses || isOutside };
  };
  const dropped = held === null ? null : droppedOf(held);

  const place = (e: PointerEvent): { x: number; y: number } => {
    // In the group's own coordinates: it may stand lower than the drawing begins.
    const m = svg.current!.getScreenCTM()!.inverse();
    return { x: m.a * e.clientX + m.e, y: m.d * e.clientY + m.f };
  };
  const candidates = (h: Held): Socket[] =>
    sockets.filter((s) => {
      const to = { placeId: s.placeId, port: s.port };
      return portKey(to) !== portKey(h.start) && mayJoin(w, endsFor(h, to).stays, to, h.moving);
    });
  const start = (s: Socket): Held => {
    const end = { placeId: s.placeId, port: s.port };
    const lead = s.shape === "mains" && s.gives ? undefined : w.at.get(portKey(end))?.[0];
    const other = lead === undefined ? null : portKey(lead.from) === portKey(end) ? lead.to : lead.from;
    return { start: end, moving: lead?.id ?? null, other, at: s, over: null };
  };
  const drop = (h: Held): void => {
    setHeld(null);
    if (h.over !== null) open.join(siteId, endsFor(h, h.over).goes, h.over, h.moving);
  };
  const nameOf = (e: Lead["from"]): string => `${w.placeOf.get(e.placeId)?.name ?? "?"}, port ${w.portOf(e)?.name ?? e.port}`;
  const focusOn = (e: Lead["from"]): void => {
    svg.current?.querySelector<SVGGElement>(`[data-socket="${CSS.escape(portKey(e))}"]`)?.focus();
  };
  const onKey = (e: KeyboardEvent, s: Socket): void => {
    if (held === null) {
      if (e.key === "Enter" || e.key === " ") {
        e.preventDefault();
        e.stopPropagation();
        setHeld(start(s));
      } else if ((e.key === "Delete" || e.key === "Backspace") && s.used) {
        e.preventDefault();
        const lead = w.at.get(portKey({ placeId: s.placeId, port: s.port }))?.[0];
        if (lead !== undefined)
          open.change(siteId, {
            leads: open
              .endOf(siteId)
              .now()
              .leads.filter((l) => l.id !== lead.id),
          });
      }
      return;
    }
    const list = candidates(held);
    const by = e.key === "ArrowRight" || e.key === "ArrowDown" ? 1 : e.key === "ArrowLeft" || e.key === "ArrowUp" ? -1 : 0;
    if (by !== 0 && list.length > 0) {
      e.preventDefault();
      e.stopPropagation();
      const at = held.over === null ? -1 : list.findIndex((x) => portKey(x) === portKey(held.over!));
      const next = list[(at + by + list.length) % list.length] ?? list[0]!;
      const over = { placeId: next.placeId, port: next.port };
      setHeld({ ...held, over, at: next });
      focusOn(over);
    } else if (e.key === "Enter" || e.key === " ") {
      e.preventDefault();
      e.stopPropagation();
      drop(held);
    } else if (e.key === "Escape") {
      e.preventDefault();
      e.stopPropagation();
      setHeld(null);
    }
  };
  const onDown = (e: PointerEvent<SVGGElement>, s: Socket): void => {
    if (e.button !== 0) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    setHeld({ ...start(s), at: place(e) });
  };
  const onMove = (e: PointerEvent<SVGGElement>): void => {
    if (held === null || !e.currentTarget.hasPointerCapture(e.pointerId)) return;
    const at = place(e);
    const nearest = candidates(held)
      .filter((s) => near(s, at.x, at.y) < CATCH_PX)
      .sort((a, b) => near(a, at.x, at.y) - near(b, at.x, at.y))[0];
    setHeld({ ...held, at, over: nearest === undefined ? null : { placeId: nearest.placeId, port: nearest.port } });
  };
  const heldFrom =
    held === null
      ? null
      : (sockets.find((s) => portKey(s) === portKey(held.over === null ? (held.other ?? held.start) : endsFor(held, held.over).stays)) ??
        null);
  const may = held === null ? null : new Set(candidates(held).map((s) => portKey(s)));

  const colourOf = (verdict: "short" | "unknown" | "tight" | undefined): string =>
    verdict === "short" ? "var(--short)" : verdict === "tight" ? "var(--tight)" : "var(--ink)";
  const leadPath = (d: DrawnLead) => {
    const was = plannedLeads.get(d.lead.id);
    const isTried =
      open.tried?.siteId === siteId &&
      (was === undefined ||
        portKey(was.from) !== portKey(d.lead.from) ||
        portKey(was.to) !== portKey(d.lead.to) ||
        was.cableId !== d.lead.cableId);
    const verdict = bad.leads.get(d.lead.id);
    const isChosen = open.chosen?.id === d.lead.id;
    const width = d.kind === "power" ? 2.4 : d.kind === "mains" ? 1 : 1.3;
    return (
      // biome-ignore lint/a11y/noStaticElementInteractions: the same is in the list of leads, by keys too
      <g
        key={d.lead.id}
        className="cursor-pointer"
        onClick={() => open.setChosen({ siteId, kind: "lead", id: d.lead.id })}
        data-lead={d.lead.id}
      >
        <path d={pathOf(d.points)} fill="none" stroke="var(--paper)" strokeWidth={width + 2} strokeLinejoin="round" />
        <path
          d={pathOf(d.points)}
          fill="none"
          stroke={colourOf(verdict)}
          strokeWidth={isChosen ? width + 1.4 : width}
          strokeLinejoin="round"
          strokeDasharray={isTried ? "6 4" : undefined}
        />
        <path d={pathOf(d.points)} fill="none" stroke="transparent" strokeWidth={10} />
        <title>{`${nameOf(d.lead.from)} to ${nameOf(d.lead.to)}, ${lengthText(open.fieldUnits, d.lead.lengthM)}`}</title>
      </g>
    );
  };
  const wattsOf = (b: Box): string => {
    const sheet = w.sheetOf(b.place.id);
    const given = feeds.given.filter((g) => g.end.placeId === b.place.id && g.kind.scheme !== "mains");
    if (given.length > 0 && given.every((g) => g.drawnW !== null && Number.isFinite(g.drawnW))) {
      const sum = given.reduce((s, g) => s + g.drawnW!, 0);
      const most = sheet?.totalGiveW ?? given[0]!.mostW;
      return most === null || most === undefined ? wattsText(sum) : `${figure(sum, 1)} of ${figure(most)} W`;
    }
    return sheet?.name ?? "which one?";
  };
  const boxOf = (b: Box) => {
    const verdict = bad.places.get(b.place.id);
    const isChosen = open.chosen?.id === b.place.id;
    const isTried = open.tried?.siteId === siteId && !planned.places.some((p) => p.id === b.place.id && p.partId === b.place.partId);
    const isSurge = b.place.kind === "surge";
    const isRadio = b.place.kind === "radio";
    return (
      <g key={b.place.id} data-place={b.place.id}>
        {/* biome-ignore lint/a11y/noStaticElementInteractions: the same is in the list of units, by keys too */}
        <g className="cursor-pointer" onClick={() => open.setChosen({ siteId, kind: "place", id: b.place.id })}>
          <rect
            x={b.x}
            y={b.y}
            width={b.w}
            height={b.h}
            fill="var(--paper)"
            stroke={colourOf(verdict)}
            strokeWidth={isChosen ? 2.6 : 1.4}
            strokeDasharray={isTried ? "6 4" : b.place.partId === null ? "4 3" : undefined}
          />
          <title>{`${b.place.name}${w.sheetOf(b.place.id) === null ? "" : `: ${w.sheetOf(b.place.id)!.name}`}`}</title>
          {isSurge ? (
            <text x={b.x + b.w / 2} y={b.y + b.h / 2 + 4.5} textAnchor="middle" fontSize={TYPE.line} fontWeight={700}>
              S
            </text>
          ) : isRadio ? null : (
            <>
              <text x={b.x + b.w / 2} y={b.y + 13} textAnchor="middle" fontSize={TYPE.note} fontWeight={650}>
                {cut(
                  b.folded.length === 0 ? b.place.name.split(",")[0]! : `${b.folded.length + 1} × ${b.place.name.replace(/ \d+$/, "")}`,
                  b.w - 6,
                )}
              </text>
              {b.sockets.length <= 3 && b.place.kind !== "mains" && (
                <text x={b.x + b.w / 2} y={b.y + 27} textAnchor="middle" fontSize={TYPE.label} fill="var(--ink-2)">
                  {cut(wattsOf(b), b.w - 6)}
                </text>
              )}
            </>
          )}
        </g>
        {b.more > 0 && (
          <text x={b.x + b.w - 5} y={b.y + 13} textAnchor="end" fontSize={TYPE.label} fill="var(--ink-2)">
            +{b.more}
            <title>{b.more} more free ports: in the list of a lead</title>
          </text>
        )}
        {b.sockets.map((s) => socketOf(s, b))}
      </g>
    );
  };
  const socketOf = (s: Socket, b: Box) => {
    const end = { placeId: s.placeId, port: s.port };
    const isOver = held?.over !== null && held?.over !== undefined && portKey(held.over) === portKey(end);
    const isOff = may !== null && !may.has(portKey(end));
    const fits = held !== null && !isOff ? suits(w, endsFor(held, end).stays, end) : "fits";
    const arrival = feeds.arrivals.get(portKey(end));
    const verdict =
      decides !== null && portKey(decides.end) === portKey(end) && arrival !== undefined && bad.places.get(s.placeId) === "short"
        ? "short"
        : undefined;
    return (
      // biome-ignore lint/a11y/useSemanticElements: there is no button within a drawing
      <g
        key={s.port}
        role="button"
        tabIndex={0}
        aria-label={`${b.place.name}, port ${s.name}${s.used ? ", in use" : ", free"}${s.gives ? ", gives power" : ""}`}
        aria-pressed={held !== null && portKey(held.start) === portKey(end)}
        data-socket={portKey(end)}
        style={{ touchAction: "none", cursor: "crosshair" }}
        opacity={isOff ? 0.25 : 1}
        onKeyDown={(e) => onKey(e, s)}
        onPointerDown={(e) => onDown(e, s)}
        onPointerMove={onMove}
        onPointerUp={() => held !== null && drop(held)}
        onPointerCancel={() => setHeld(null)}
        onLostPointerCapture={() => setHeld((h) => (h?.over === null ? null : h))}
      >
        <circle cx={s.x} cy={s.y} r={9} fill="transparent" />
        {isOver && <circle cx={s.x} cy={s.y} r={9} fill="none" stroke={fits === "fits" ? "var(--ink)" : "var(--short)"} strokeWidth={2} />}
        {verdict === "short" && <circle cx={s.x} cy={s.y} r={12} fill="none" stroke="var(--short)" strokeWidth={2.2} />}
        <g
          transform={
            held !== null && !isOff && fits === "fits" ? `translate(${s.x} ${s.y}) scale(1.35) translate(${-s.x} ${-s.y})` : undefined
          }
        >
          <SocketMark
            socket={s}
            colour={verdict === "short" || (held !== null && !isOff && fits === "no") ? "var(--short)" : "var(--ink)"}
          />
        </g>
        <title>{nameOf(end)}</title>
      </g>
    );
  };
  const radioBox =
    layout.boxes.find((b) => b.place.kind === "radio" && b.place.linkId === open.linkId) ??
    layout.boxes.find((b) => b.place.kind === "radio");
  const radioArrival = radioBox === undefined ? undefined : [...feeds.arrivals.values()].find((a) => a.end.placeId === radioBox.place.id);
  const { bar, wall, roofY, groundY, mast } = layout;
  const barState = w.graph.earth.bar;
  return (
    <g ref={svg} data-testid={`end-${siteId === open.near.siteId ? "near" : "far"}`}>
      <path d={`M${wall.left} ${groundY}V${roofY}H${wall.right}V${groundY}`} fill="none" stroke="var(--block-line)" strokeWidth={7} />
      <path d={`M${wall.left} ${groundY}V${roofY}H${wall.right}V${groundY}`} fill="none" stroke={`url(#${hatch}-block)`} strokeWidth={5} />
      {layout.broken && (
        <path
          d={`M${wall.left - 7} ${groundY - 30}l7 -4l-7 -4M${wall.right + 7} ${groundY - 30}l-7 -4l7 -4`}
          stroke="var(--paper)"
          strokeWidth={4}
          fill="none"
        />
      )}
      {mast !== null && (
        <g>
          <rect
            x={mast.x - 2.5}
            y={mast.top}
            width={5}
            height={mast.foot - mast.top}
            fill="var(--paper)"
            stroke="var(--ink)"
            strokeWidth={1.2}
          />
        </g>
      )}
      {layout.bonds.map((b) => (
        <path
          key={b.placeId ?? "mast"}
          d={pathOf(b.points)}
          fill="none"
          stroke={b.state === "open" ? "var(--short)" : b.state === "unseen" ? "var(--unknown)" : "var(--ink)"}
          strokeWidth={1.1}
          strokeDasharray={b.state === "unseen" ? "2 4" : "6 3"}
        >
          <title>
            {b.state === "joined" ? "joined to the bar" : b.state === "open" ? "not joined to the bar" : "joined to the bar? not seen"}
          </title>
        </path>
      ))}
      <line x1={bar.x0} x2={bar.x1} y1={bar.y} y2={bar.y} stroke="var(--ink-2)" strokeWidth={5} />
      <path
        d={`M${(bar.x0 + bar.x1) / 2} ${bar.y}V${groundY + 10}`}
        stroke={barState === "open" ? "var(--short)" : "var(--ink)"}
        strokeWidth={1.1}
        strokeDasharray={barState === "unseen" ? "2 4" : "6 3"}
      />
      <path d={`M${(bar.x0 + bar.x1) / 2 - 9} ${groundY + 10}h18m-15 4h12m-9 4h6`} stroke="var(--ink)" strokeWidth={1.2} />
      <text
        x={(bar.x0 + bar.x1) / 2 + 14}
        y={groundY + 17}
        fontSize={TYPE.label}
        className={barState === "open" ? "v-short" : ""}
        fill={barState === "joined" ? "var(--ink-2)" : undefined}
      >
        {barState === "joined" ? "main earth" : barState === "open" ? "not joined to the main earth" : "to the main earth? not seen"}
      </text>
      {layout.leads.map(leadPath)}
      {layout.boxes.map(boxOf)}
      {radioBox !== undefined && (
        <g>
          <text
            x={radioBox.x + radioBox.w / 2}
            y={radioBox.y - 8}
            textAnchor="middle"
            fontSize={TYPE.press}
            fontWeight={750}
            fill={siteId === open.near.siteId ? "var(--near)" : "var(--far)"}
            style={{ fill: siteId === open.near.siteId ? "var(--near)" : "var(--far)" }}
          >
            {siteId === open.near.siteId ? "A" : "B"}
          </text>
          {radioArrival?.volts != null && (
            <text
              x={siteId === open.near.siteId ? (mast?.x ?? radioBox.x) - 12 : (mast?.x ?? radioBox.x) + 12}
              y={radioBox.y + 14}
              textAnchor={siteId === open.near.siteId ? "end" : "start"}
              fontSize={TYPE.line}
              fontWeight={650}
              className="mono halo"
            >
              {voltsText(radioArrival.volts)}
            </text>
          )}
          {radioBox.place.aglM !== null && (
            <text
              x={siteId === open.near.siteId ? (mast?.x ?? radioBox.x) - 12 : (mast?.x ?? radioBox.x) + 12}
              y={radioBox.y + 30}
              textAnchor={siteId === open.near.siteId ? "end" : "start"}
              fontSize={TYPE.label}
              className="halo"
            >
              {lengthText(open.fieldUnits, radioBox.place.aglM)} up
            </text>
          )}
        </g>
      )}
      {held !== null && heldFrom !== null && (
        <g pointerEvents="none">
          <line x1={heldFrom.x} y1={heldFrom.y} x2={held.at.x} y2={held.at.y} stroke="var(--ink)" strokeWidth={2} strokeDasharray="6 4" />
          {dropped !== null && (
            <text
              x={held.at.x + 12}
              y={held.at.y - 8}
              fontSize={TYPE.line}
              fontWeight={700}
              className={`mono halo ${dropped.bad ? "v-short" : ""}`}
              style={dropped.bad ? { fill: "var(--short-figure)" } : undefined}
            >
              {dropped.text}
            </text>
          )}
        </g>
      )}
    </g>
  );
};
