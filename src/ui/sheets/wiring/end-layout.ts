import { type Lead, type Place, portKey, type Wired } from "@/core/wiring";
import { routedLeads } from "./lead-routes";

/* Where the things of one end stand in the drawing: mast, wall, boxes in columns from the mast inward, sockets, leads. */

export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface Socket extends Point {
  readonly placeId: string;
  readonly port: string;
  readonly name: string;
  /** Which way a lead leaves it. */
  readonly out: "left" | "right" | "down";
  readonly shape: "passive" | "poe" | "data" | "dc" | "mains" | "fibre";
  readonly gives: boolean;
  readonly used: boolean;
}

export interface Box {
  readonly place: Place;
  /** Others of its kind that are drawn as one with it. */
  readonly folded: readonly Place[];
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
  readonly sockets: readonly Socket[];
  /** Ports that are not drawn, for there are too many. */
  readonly more: number;
}

export interface DrawnLead {
  readonly lead: Lead;
  readonly points: readonly Point[];
  readonly kind: "power" | "data" | "mains";
  readonly label: Point;
}

export interface EndLayout {
  readonly boxes: readonly Box[];
  readonly leads: readonly DrawnLead[];
  readonly groundY: number;
  readonly roofY: number;
  readonly wall: { readonly left: number; readonly right: number };
  readonly mast: { readonly x: number; readonly top: number; readonly foot: number } | null;
  readonly bar: { readonly x0: number; readonly x1: number; readonly y: number };
  /** Bonds to the bar: from where, and how that stands. */
  readonly bonds: readonly { readonly placeId: string | null; readonly points: readonly Point[]; readonly state: Place["bond"] }[];
  /** The walls are higher than the scale says. */
  readonly broken: boolean;
  readonly height: number;
}

export interface LayoutAsk {
  readonly w: Wired;
  readonly shown: ReadonlySet<string>;
  readonly linkId: string;
  readonly x0: number;
  readonly width: number;
  /** Where the mast stands: towards the other end. */
  readonly mastSide: "left" | "right";
  /** Of places drawn as one, by the first of them. */
  readonly folds: ReadonlyMap<string, readonly Place[]>;
  /** Height of the whole drawing, and of the radio above the ground in it. */
  readonly height: number;
  readonly radioPx: number;
  readonly roofPx: number;
  /** Heights are not to one scale. */
  readonly broken: boolean;
  readonly powered: ReadonlySet<string>;
}

const BOX_H = 34;
const ROW = 42;
const SOCKET = 13;
const MOST_SOCKETS = 16;
const COLUMN_GAP = 26;
export const GROUND_PX = 42;
/** Room for the mains, the bar and what leads to it, beneath the boxes. */
const FLOOR_PX = 30;
const MAST_PX = 84;
/** Above the radio: its name and height. */
export const HEAD_PX = 60;
/** Narrower than this an end is not drawn: the page moves sideways instead. */
export const LEAST_END_PX = 352;
/** From one thing on the mast to the next. */
const MAST_STEP = 50;
const MOST_RADIO_PX = 520;
const HIGHER_PX = 24;
const MOST_APART_PX = 22;

/** More devices than this are drawn as few as their kinds allow. */
const MOST_DEVICES = 5;

/** Devices of one type, fed from one thing and with nothing to be said of them, drawn as one. @param apart places that stay by themselves. */
export const foldsOf = (w: Wired, shown: ReadonlySet<string>, apart: ReadonlySet<string>): ReadonlyMap<string, readonly Place[]> => {
  const devices = w.graph.places.filter((p) => shown.has(p.id) && p.where === "inside" && columnOf(w, p) === 3);
  const out = new Map<string, readonly Place[]>();
  if (devices.length <= MOST_DEVICES) return out;
  const groups = new Map<string, Place[]>();
  for (const p of devices) {
    if (apart.has(p.id)) continue;
    const from = w.graph.leads.find((l) => l.from.placeId === p.id || l.to.placeId === p.id);
    const other = from === undefined ? "" : from.from.placeId === p.id ? from.to.placeId : from.from.placeId;
    const key = `${p.kind}|${p.partId}|${other}|${p.earth}`;
    groups.set(key, [...(groups.get(key) ?? []), p]);
  }
  for (const list of groups.values()) if (list.length > 1) out.set(list[0]!.id, list.slice(1));
  return out;
};

const columnOf = (w: Wired, place: Place): number => {
  switch (place.kind) {
    case "surge":
      return 0;
    case "injector":
    case "charger":
    case "converter":
    case "splitter":
    case "fuse":
      return place.where === "inside" ? 1 : 3;
    case "switch":
    case "router":
    case "recorder":
    case "battery":
    case "media":
      return 2;
    case "mains":
      return 1;
    default:
      return w.sheetOf(place.id)?.kind === "panel" ? 1 : 3;
  }
};
const WIDTHS = [24, 78, 118, 98] as const;

const shapeOf = (port: {
  readonly medium: string;
  readonly gives?: readonly string[] | undefined;
  readonly takes?: readonly string[] | undefined;
  readonly passes?: { readonly kind: string } | undefined;
}): Socket["shape"] => {
  if (port.medium === "mains") return "mains";
  if (port.medium === "fibre") return "fibre";
  if (port.medium === "dc") return "dc";
  const key = port.gives?.[0] ?? port.passes?.kind ?? port.takes?.[0];
  if (key === undefined) return "data";
  return key.startsWith("802.3") ? "poe" : "passive";
};

/** Sockets of a box: those in use, and of the free ones the first of each kind where there are many. */
const socketsOf = (w: Wired, place: Place): { readonly ports: readonly Omit<Socket, "x" | "y" | "out">[]; readonly more: number } => {
  const sheet = w.sheetOf(place.id);
  const used = new Set(
    w.graph.leads
      .flatMap((l) => [l.from, l.to])
      .filter((e) => e.placeId === place.id)
      .map((e) => e.port),
  );
  const known = sheet?.ports ?? [...used].map((id) => ({ id, name: id, medium: "copper" as const, speedMbps: 0 }));
  const all = known.map((p) => ({
    placeId: place.id,
    port: p.id,
    name: p.name,
    shape: shapeOf(p),
    gives: "gives" in p && p.gives !== undefined ? true : "passes" in p && p.passes !== undefined,
    used: used.has(p.id),
  }));
  if (sheet === null && all.length === 0)
    return { ports: [{ placeId: place.id, port: "1", name: "1", shape: "data", gives: false, used: false }], more: 0 };
  if (all.length <= MOST_SOCKETS) return { ports: all, more: 0 };
  const seen = new Set<string>();
  const kept = all.filter((s) => {
    const kind = `${s.shape}${s.gives}`;
    if (s.used) return true;
    if (seen.has(kind)) return false;
    seen.add(kind);
    return true;
  });
  return { ports: kept, more: all.length - kept.length };
};

/** Rows a box takes: a switch with two rows of sockets is taller. */
const boxHeight = (sockets: number, width: number): number => {
  const perRow = Math.max(1, Math.floor((width - 8) / SOCKET));
  return sockets <= 3 ? BOX_H : 22 + Math.ceil(sockets / perRow) * SOCKET + 4;
};

const placeHeight = (p: Place, ports: number, width: number): number => (p.kind === "surge" ? 24 : boxHeight(ports, width));

/** Columns from the mast inward; mains stand last of theirs. */
const columnsOf = (w: Wired, inner: readonly Place[]): readonly (readonly Place[])[] => {
  const columns: Place[][] = [[], [], [], []];
  for (const p of inner) columns[columnOf(w, p)]!.push(p);
  columns[1] = [...columns[1]!.filter((p) => p.kind !== "mains"), ...columns[1]!.filter((p) => p.kind === "mains")];
  return columns;
};

const widthScale = (width: number): number =>
  Math.max(0.62, Math.min(1.35, (width - MAST_PX - 8) / (WIDTHS.reduce((s, x) => s + x, 0) + 3 * COLUMN_GAP + 20)));

/** How high the walls must be drawn for all that stands inside. */
export const wallNeeds = (a: Pick<LayoutAsk, "w" | "shown" | "folds" | "width">): number => {
  const away = new Set([...a.folds.values()].flat().map((p) => p.id));
  const inner = a.w.graph.places.filter((p) => a.shown.has(p.id) && !away.has(p.id) && p.where !== "mast");
  const scale = widthScale(a.width);
  const heights = columnsOf(a.w, inner).map((list, c) =>
    list.reduce((s, p) => s + placeHeight(p, socketsOf(a.w, p).ports.length, c === 0 ? WIDTHS[0] : WIDTHS[c]! * scale) + (ROW - BOX_H), 0),
  );
  return Math.max(120, ...heights) + 18 + FLOOR_PX;
};

/** Least height of a radio above its ground in the drawing: over its roof, with room for what hangs beneath it. */
export const radioNeeds = (a: Pick<LayoutAsk, "w" | "shown" | "folds" | "width">): number => {
  const onMast = a.w.graph.places.filter((p) => a.shown.has(p.id) && p.where === "mast").length;
  return wallNeeds(a) + 30 + Math.max(1, onMast) * MAST_STEP;
};

/** Both radios at one scale where that can be drawn; else each as high as it must be, the higher one higher. */
export const heightsFor = (
  ends: readonly { readonly needs: number; readonly aglM: number }[],
): { readonly px: readonly number[]; readonly pxPerM: number | null } => {
  const perM = Math.max(...ends.map((e) => e.needs / Math.max(1, e.aglM)));
  const tallest = perM * Math.max(...ends.map((e) => Math.max(1, e.aglM)));
  if (tallest <= MOST_RADIO_PX) return { px: ends.map((e) => perM * Math.max(1, e.aglM)), pxPerM: perM };
  const px = ends.map((e) => e.needs);
  const [a, b] = ends;
  if (a !== undefined && b !== undefined && a.aglM !== b.aglM) {
    const high = a.aglM > b.aglM ? 0 : 1;
    px[high] = Math.max(px[high]!, px[1 - high]! + HIGHER_PX);
  }
  return { px, pxPerM: null };
};

export const layoutEnd = (a: LayoutAsk): EndLayout => {
  const { w } = a;
  const away = new Map([...a.folds].flatMap(([id, list]) => list.map((p) => [p.id, id] as const)));
  const places = w.graph.places.filter((p) => a.shown.has(p.id) && !away.has(p.id));
  const onMast = places.filter((p) => p.where === "mast");
  const inner = places.filter((p) => p.where !== "mast");
  const mirror = a.mastSide === "right";
  // Laid out with the mast at the left; turned round where it stands at the right.
  const bodyWidth = a.width - MAST_PX - 8;
  const scale = widthScale(a.width);
  const widths = WIDTHS.map((x, i) => (i === 0 ? x : x * scale));
  const starts = widths.map((_, i) => MAST_PX + 10 + widths.slice(0, i).reduce((s, x) => s + x, 0) + i * COLUMN_GAP * scale);
  const columns = columnsOf(w, inner);
  const sockets = new Map(inner.concat(onMast).map((p) => [p.id, socketsOf(w, p)]));
  const heightOf = (p: Place, column: number): number => placeHeight(p, sockets.get(p.id)!.ports.length, widths[column]!);
  const wallPx = Math.max(wallNeeds(a), Math.min(a.roofPx, a.radioPx - 64));
  const { height } = a;
  const groundY = height - GROUND_PX;
  const roofY = groundY - wallPx;
  const flip = (x: number, width = 0): number => a.x0 + (mirror ? a.width - x - width : x);

  const boxes: Box[] = [];
  const put = (place: Place, x: number, y: number, width: number, h: number): void => {
    const { ports, more } = sockets.get(place.id)!;
    const bx = flip(x, width);
    const towardsMast = mirror ? bx + width : bx;
    const outward = mirror ? bx : bx + width;
    const many = ports.length > 3;
    const perRow = Math.max(1, Math.floor((width - 8) / SOCKET));
    const list = ports.map((s, i): Socket => {
      if (many)
        return {
          ...s,
          x: bx + 10 + (i % perRow) * SOCKET,
          y: y + h - 8 - (Math.ceil(ports.length / perRow) - 1 - Math.floor(i / perRow)) * SOCKET,
          out: "down",
        };
      // What is fed stands towards the mast, the network away from it; mains beneath.
      const isMast =
        s.shape === "mains"
          ? false
          : place.kind === "injector" || place.kind === "charger"
            ? s.gives
            : place.kind === "surge"
              ? i === 1
              : columnOf(w, place) === 3 || (ports.length > 1 && i === 0);
      if (s.shape === "mains") return { ...s, x: bx + width / 2, y: y + h, out: "down" };
      const side = place.kind === "radio" ? (i === 0 ? -1 : 1) : 0;
      if (place.kind === "radio") return { ...s, x: bx + width / 2 + side * 10, y: y + h, out: "down" };
      const left = isMast !== mirror;
      return { ...s, x: isMast ? towardsMast : outward, y: y + h / 2, out: left ? "left" : "right" };
    });
    boxes.push({ place, folded: a.folds.get(place.id) ?? [], x: bx, y, w: width, h, sockets: list, more });
  };
  for (const [c, list] of columns.entries()) {
    const filled = list.reduce((sum, p) => sum + heightOf(p, c) + (ROW - BOX_H), 0);
    // A high wall lets them stand further apart.
    const apart = list.length < 2 ? 0 : Math.max(0, Math.min(MOST_APART_PX, (wallPx - 18 - FLOOR_PX - filled) / list.length));
    let y = roofY + 14;
    for (const p of list) {
      const h = heightOf(p, c);
      put(p, starts[c]!, y, widths[c]!, h);
      y += h + (ROW - BOX_H) + apart;
    }
  }
  const mastX = flip(MAST_PX - 26, 0);
  const mastTop = groundY - a.radioPx;
  const order = [...onMast].sort(
    (p, q) => Number(q.linkId === a.linkId) - Number(p.linkId === a.linkId) || Number(q.kind === "radio") - Number(p.kind === "radio"),
  );
  for (const [i, p] of order.entries()) {
    const isRadio = p.kind === "radio";
    put(p, MAST_PX - 26 - (isRadio ? 36 : 30), mastTop + i * MAST_STEP, isRadio ? 28 : 24, isRadio ? 34 : 24);
  }

  const socketAt = new Map(boxes.flatMap((b) => b.sockets).map((s) => [portKey({ placeId: s.placeId, port: s.port }), s]));
  const wallX = { left: flip(MAST_PX, bodyWidth), right: flip(MAST_PX, bodyWidth) + bodyWidth };
  const leads = routedLeads(w.graph.leads, {
    boxes,
    columns,
    gapAfter: (column) => starts[column]! + widths[column]! + 6,
    flip,
    mirror,
    mastX,
    powered: a.powered,
    // Leads of what is folded go into the one that is drawn for all.
    socketOf: (end) => socketAt.get(portKey(end)) ?? boxes.find((b) => b.place.id === away.get(end.placeId))?.sockets[0],
  });

  const barY = groundY - 14;
  const bar = { x0: flip(starts[0]! + 2, 0), x1: flip(starts[0]! + 64, 0), y: barY };
  const barX = (bar.x0 + bar.x1) / 2;
  const bonds = boxes
    .filter((b) => b.place.kind === "surge")
    .map((b, i) => {
      const x = b.x + b.w / 2;
      const outside = b.place.where === "mast";
      const side = outside ? mastX + (mirror ? 5 : -5) + (mirror ? 3 : -3) * i : x;
      return {
        placeId: b.place.id,
        state: b.place.bond,
        points: outside
          ? [
              { x, y: b.y + b.h },
              { x, y: b.y + b.h + 4 },
              { x: side, y: b.y + b.h + 4 },
              { x: side, y: barY },
              { x: barX, y: barY },
            ]
          : [
              { x, y: b.y + b.h },
              { x, y: barY },
              { x: barX, y: barY },
            ],
      };
    });
  return {
    boxes,
    leads,
    groundY,
    roofY,
    wall: wallX,
    mast: onMast.length === 0 ? null : { x: mastX, top: mastTop - 8, foot: groundY },
    bar: { x0: Math.min(bar.x0, bar.x1), x1: Math.max(bar.x0, bar.x1), y: barY },
    bonds: [
      ...bonds,
      ...(onMast.length === 0
        ? []
        : [
            {
              placeId: null,
              state: w.graph.earth.mast,
              points: [
                { x: mastX, y: groundY - 4 },
                { x: barX, y: groundY - 4 },
                { x: barX, y: barY },
              ],
            },
          ]),
    ],
    broken: a.broken,
    height,
  };
};
