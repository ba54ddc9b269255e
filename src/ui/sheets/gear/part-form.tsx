"use client";
import Papa from "papaparse";
import { useState } from "react";
import { PART_KIND_WORDS, SUPPLY_KINDS } from "@/contract";
import type { PartKind } from "@/core/wiring";
import { Choice, Field } from "../../controls/field";
import { supplyText } from "../../wording/gear";

/* A part of one's own by form: the columns that its kind has, sent as the one-row table that a file would be. */

type Column =
  | "takes"
  | "gives"
  | "port_w"
  | "total_w"
  | "ports"
  | "powered_ports"
  | "port_mbps"
  | "draw_w"
  | "start_w"
  | "poe_class"
  | "low_v"
  | "high_v"
  | "most_v"
  | "pairs"
  | "schemes"
  | "awg"
  | "ohm_per_km"
  | "material"
  | "category"
  | "shield"
  | "outdoor"
  | "cord"
  | "metal"
  | "hole_mm"
  | "price_eur"
  | "price_per_m"
  | "stock";

/** What is asked of a column: its words, and what may be chosen; a figure where nothing is to choose. */
const ASKS: Readonly<Record<Column, { readonly words: string; readonly options?: readonly (readonly [string, string])[] }>> = {
  takes: { words: "Takes", options: SUPPLY_KINDS.map((k) => [k, supplyText(k)]) },
  gives: { words: "Gives", options: SUPPLY_KINDS.map((k) => [k, supplyText(k)]) },
  port_w: { words: "Most of one port, W" },
  total_w: { words: "Most in all, W" },
  ports: { words: "Ports" },
  powered_ports: { words: "Ports that give power" },
  port_mbps: { words: "Speed of a port, Mbps" },
  draw_w: { words: "Draws at most, W" },
  start_w: { words: "While it starts, W" },
  poe_class: { words: "Class, 1 to 8" },
  low_v: { words: "Works from, V" },
  high_v: { words: "Works to, V" },
  most_v: { words: "Bears, V" },
  pairs: {
    words: "Pairs",
    options: [
      ["2", "two"],
      ["4", "four"],
    ],
  },
  schemes: {
    words: "Made for",
    options: [
      ["802.3", "negotiated supply"],
      ["passive", "passive supply"],
      ["802.3;passive", "both"],
      ["none", "data only"],
    ],
  },
  awg: { words: "Gauge, AWG" },
  ohm_per_km: { words: "Ω per km of one wire, at 20 °C" },
  material: {
    words: "Wire of",
    options: [
      ["copper", "copper"],
      ["copper-clad", "copper-clad aluminium"],
      ["glass", "glass"],
    ],
  },
  category: { words: "Category", options: ["5e", "6", "6A", "7"].map((c) => [c, c]) },
  shield: { words: "Screened", options: [["yes", "yes"]] },
  outdoor: { words: "For outdoors", options: [["yes", "yes"]] },
  cord: { words: "A thin or flat cord", options: [["yes", "yes"]] },
  metal: { words: "Metal beside its wires", options: [["yes", "yes"]] },
  hole_mm: { words: "Hole it needs, mm" },
  price_eur: { words: "Price of one, €" },
  price_per_m: { words: "Price of a metre, €" },
  stock: { words: "In stock" },
};

const DEVICE = ["takes", "draw_w", "start_w", "poe_class", "low_v", "high_v", "port_mbps", "outdoor", "price_eur", "stock"] as const;
const COUNTED = ["price_eur", "stock"] as const;
const KINDS: Partial<Record<PartKind, readonly Column[]>> = {
  switch: ["ports", "powered_ports", "gives", "port_w", "total_w", "port_mbps", "draw_w", ...COUNTED],
  injector: ["gives", "port_w", "port_mbps", ...COUNTED],
  surge: ["most_v", "pairs", "schemes", "port_mbps", "outdoor", ...COUNTED],
  cable: ["awg", "ohm_per_km", "material", "category", "pairs", "shield", "outdoor", "cord", "metal", "price_per_m", "stock"],
  fibre: ["outdoor", "metal", "price_per_m", "stock"],
  plug: ["shield", ...COUNTED],
  gland: ["hole_mm", ...COUNTED],
  box: COUNTED,
  camera: DEVICE,
  "access-point": DEVICE,
  phone: DEVICE,
  control: DEVICE,
  other: DEVICE,
};

export const PartForm = ({
  take,
  faults,
}: {
  /** Takes a table in. @returns whether it was taken. */
  take: (text: string) => Promise<boolean>;
  /** What stood against the last one. */
  faults: readonly { readonly where: string; readonly reason: string }[];
}) => {
  const [kind, setKind] = useState<PartKind>("switch");
  const [name, setName] = useState("");
  const [values, setValues] = useState<Partial<Record<Column, string>>>({});
  const [busy, setBusy] = useState(false);
  const [tried, setTried] = useState(false);
  const faultOf = (column: string): string | undefined => {
    const reason = tried ? faults.find((f) => f.where.endsWith(`, ${column}`))?.reason : undefined;
    return reason === undefined ? undefined : `${reason.charAt(0).toUpperCase()}${reason.slice(1)}.`;
  };
  const columns = KINDS[kind] ?? [];
  const submit = async (): Promise<void> => {
    setBusy(true);
    setTried(true);
    const row = { part_kind: kind, name, ...Object.fromEntries(columns.map((c) => [c, values[c] ?? ""])) };
    const isTaken = await take(Papa.unparse([row]));
    setBusy(false);
    if (!isTaken) return;
    setName("");
    setValues({});
    setTried(false);
  };
  const set = (column: Column, text: string): void => setValues({ ...values, [column]: text });
  return (
    <form
      noValidate
      aria-label="Own part"
      className="grid grid-cols-2 items-end gap-x-4 gap-y-2"
      onSubmit={(e) => {
        e.preventDefault();
        void submit();
      }}
    >
      <Choice label="Kind" value={kind} onChange={(e) => setKind(e.target.value as PartKind)}>
        {(Object.keys(KINDS) as PartKind[]).map((k) => (
          <option key={k} value={k}>
            {PART_KIND_WORDS[k]}
          </option>
        ))}
      </Choice>
      <Field label="Name" value={name} maxLength={80} fault={faultOf("name") ?? faultOf("id")} onChange={(e) => setName(e.target.value)} />
      {columns.map((column) => {
        const { words, options } = ASKS[column];
        return options === undefined ? (
          <Field
            key={column}
            label={words}
            inputMode="decimal"
            value={values[column] ?? ""}
            fault={faultOf(column)}
            onChange={(e) => set(column, e.target.value)}
          />
        ) : (
          <div key={column}>
            <Choice label={words} value={values[column] ?? ""} onChange={(e) => set(column, e.target.value)}>
              <option value="">{options.length === 1 ? "no" : "not stated"}</option>
              {options.map(([value, text]) => (
                <option key={value} value={value}>
                  {text}
                </option>
              ))}
            </Choice>
            {faultOf(column) !== undefined && (
              <span role="alert" className="text-note text-short-figure">
                {faultOf(column)}
              </span>
            )}
          </div>
        );
      })}
      <p className="cap col-span-2 m-0">
        One of the same name is replaced. What has other ports, batteries and panels come in by file; the shape is the one of Save own as a
        file.
      </p>
      <button type="submit" className="main-action col-span-2 justify-self-start" disabled={busy || name.trim() === ""}>
        Add the part
      </button>
    </form>
  );
};
