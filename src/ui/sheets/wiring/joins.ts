import type { LeadFields } from "@/contract";
import { bestFit, followed, type Lead, type Parts, portKey, powerKind, type Wired } from "@/core/wiring";

/* Which socket may take a lead's end, and what a lead that is newly drawn is of. */

export type JoinFit = "fits" | "no";

type Role = "gives" | "takes" | "data";
const roleOf = (w: Wired, e: Lead["from"]): Role => {
  const port = w.portOf(e);
  return port?.gives !== undefined || port?.passes !== undefined ? "gives" : port?.takes !== undefined ? "takes" : "data";
};

/**
 * Which end of a lead stays and which goes, when the socket that one end is in was picked up and let go over another: a device
 * picked up and led to a port that gives is fed from there; a port that gives, led to another, hands its lead over.
 * @param other where the lead in hand ends; null for a lead that is drawn anew, which begins where it was picked up.
 */
export const leadEnds = (
  w: Wired,
  start: Lead["from"],
  other: Lead["from"] | null,
  to: Lead["from"],
): { readonly stays: Lead["from"]; readonly goes: Lead["from"] } => {
  if (other === null) return { stays: start, goes: start };
  const role = roleOf(w, to);
  const goes = role !== roleOf(w, start) && role === roleOf(w, other) ? other : start;
  return { stays: goes === start ? other : start, goes };
};

/** Whether a lead from one port may go into another: the same medium, free, and not of one thing. The kinds are judged when it lies there. */
export const mayJoin = (w: Wired, from: Lead["from"], to: Lead["from"], moving: string | null): boolean => {
  if (from.placeId === to.placeId) return false;
  const [a, b] = [w.portOf(from), w.portOf(to)];
  if (w.sheetOf(to.placeId) !== null && b === null) return false;
  if (a !== null && b !== null && a.medium !== b.medium) return false;
  const shared = b?.medium === "mains" || b?.medium === "dc";
  return shared || (w.at.get(portKey(to)) ?? []).every((l) => l.id === moving);
};

/** Whether the supplies of two ports suit one another, as far as both are known; data alone always does. */
export const suits = (w: Wired, from: Lead["from"], to: Lead["from"]): JoinFit => {
  const ends = [from, to].map((e) => {
    const lead = w.at.get(portKey(e))?.[0];
    const port = w.portOf(e);
    // A protector is what is beyond it.
    if (port?.straightTo === undefined) return port;
    const beyond = w.at.get(portKey({ placeId: e.placeId, port: port.straightTo }))?.[0];
    return beyond === undefined || beyond === lead
      ? port
      : w.portOf(followed(w, beyond, { placeId: e.placeId, port: port.straightTo }).end);
  });
  const giver = ends.find((p) => p?.gives !== undefined || p?.passes !== undefined);
  const taker = ends.find((p) => p?.takes !== undefined);
  const gives = giver?.gives ?? (giver?.passes === undefined ? undefined : [giver.passes.kind]);
  if (gives === undefined) return "fits";
  const kinds = gives.flatMap((g) => powerKind(g) ?? []);
  if (taker?.takes === undefined)
    return kinds.every((k) => k.scheme === "802.3" || k.scheme === "mains" || k.scheme === "dc") ? "fits" : "no";
  return kinds.some((k) => bestFit(k, taker.takes!).fit === "fits") ? "fits" : "no";
};

const FIRST_M = 5;

/** A lead just drawn: indoors, the cheapest whole cable, a few metres; what is outside goes through a wall. */
export const newLead = (w: Wired, parts: Parts, from: Lead["from"], to: Lead["from"], id: string): LeadFields => {
  const [p, q] = [w.placeOf.get(from.placeId), w.placeOf.get(to.placeId)];
  const medium = w.portOf(from)?.medium ?? w.portOf(to)?.medium ?? "copper";
  const outs = [p, q].filter((x) => x !== undefined && x.where !== "inside").length;
  const way = outs === 0 ? "inside" : outs === 2 ? "outside" : "both";
  const cable = [...parts.values()]
    .filter((c) => c.retired !== true && (medium === "fibre" ? c.kind === "fibre" : c.kind === "cable"))
    .filter(
      (c) =>
        c.cable !== undefined &&
        (medium !== "dc" || c.cable.pairs === 1) &&
        (medium !== "copper" || ((c.cable.pairs ?? 4) === 4 && c.cable.material === "copper")),
    )
    .filter((c) => !c.cable!.cord && (way === "inside" ? !c.cable!.outdoor || medium !== "copper" : c.cable!.outdoor) && !c.cable!.metal)
    .sort((a, b) => (a.cable!.pricePerM ?? 0) - (b.cable!.pricePerM ?? 0))[0];
  return {
    id,
    from,
    to,
    cableId: medium === "mains" ? null : (cable?.id ?? null),
    lengthM: FIRST_M,
    way,
    through: way === "both" ? "the wall" : "",
    temperatureC: way === "inside" ? 40 : 60,
    screen: "one",
    dripLoop: way === "both" ? true : null,
    nearMains: null,
    label: "",
    measuredM: null,
    tested: "not yet",
    testNote: "",
  };
};

/** A lead's end led elsewhere. */
export const led = (lead: LeadFields, from: Lead["from"], to: Lead["from"]): LeadFields =>
  portKey(lead.from) === portKey(from) ? { ...lead, from: to } : { ...lead, to };
