import type { Lead, Place, Wired, WiringGraph } from "./graph";
import type { JudgedWiring } from "./judge";
import type { PartSheet, Parts } from "./part";

/* A mend before and after it is worked out on the whole end. */

export type MendKind =
  | "other-port"
  | "converter"
  | "other-cable"
  | "other-part"
  | "count-drawn"
  | "protector"
  | "other-protector"
  | "drip-loop"
  | "away-from-mains"
  | "take-off"
  | "turn-injector"
  | "glass";

export interface WiringMend {
  readonly id: string;
  readonly kind: MendKind;
  /** What it is done with: a part, a place, a port. */
  readonly part: PartSheet | null;
  readonly placeName: string;
  readonly portName: string;
  readonly graph: WiringGraph;
  readonly judged: JudgedWiring;
  /** Volts where they were too few or too many. */
  readonly volts: number | null;
  readonly costEur: number | null;
}

/** An end as its mends are looked for. */
export interface Context {
  readonly w: Wired;
  readonly parts: Parts;
  readonly newId: () => string;
}

/** A mend before it is worked out. */
export type Draft = Omit<WiringMend, "judged" | "volts" | "id"> & { readonly id: string };

export const withLead = (g: WiringGraph, lead: Lead): WiringGraph => ({ ...g, leads: g.leads.map((l) => (l.id === lead.id ? lead : l)) });
export const withPlace = (g: WiringGraph, place: Place): WiringGraph => ({
  ...g,
  places: g.places.map((p) => (p.id === place.id ? place : p)),
});
export const plain = { part: null, placeName: "", portName: "", costEur: null } as const;
