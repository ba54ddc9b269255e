/*
 * Addresses of IPv4: each unit its own, by a rule that a person can read off the last figure, never one that is taken, in the pool
 * that the router hands out, or the network's own (RFC 950 clause 2.1: neither all noughts nor all ones).
 */

const MOST = 2 ** 32;

/** @returns the address as a number, or null where it is none: four figures 0 to 255 and dots. */
export const parseIpv4 = (text: string): number | null => {
  const parts = text.trim().split(".");
  if (parts.length !== 4 || !parts.every((p) => /^(0|[1-9]\d{0,2})$/.test(p) && Number(p) <= 255)) return null;
  return parts.reduce((n, p) => n * 256 + Number(p), 0);
};

/** @throws RangeError outside 0 to 2^32 − 1. */
export const ipv4Text = (n: number): string => {
  if (!(Number.isInteger(n) && n >= 0 && n < MOST)) throw new RangeError(`${n} is no address of IPv4`);
  return [24, 16, 8, 0].map((shift) => Math.floor(n / 2 ** shift) % 256).join(".");
};

export interface Subnet {
  readonly base: number;
  readonly bits: number;
  /** First and last that a unit may have. */
  readonly first: number;
  readonly last: number;
}

/** Reads "192.168.41.0/24"; null where it is none, or has room for fewer than two units. */
export const parseSubnet = (text: string): Subnet | null => {
  const [address, bitsText, ...more] = text.trim().split("/");
  const at = parseIpv4(address ?? "");
  if (at === null || more.length > 0 || bitsText === undefined || !/^\d{1,2}$/.test(bitsText)) return null;
  const bits = Number(bitsText);
  if (bits < 8 || bits > 30) return null;
  const size = 2 ** (32 - bits);
  const base = Math.floor(at / size) * size;
  return { base, bits, first: base + 1, last: base + size - 2 };
};

export const inSubnet = (net: Subnet, address: number): boolean => address >= net.first && address <= net.last;

export const UNIT_ROLES = ["router", "switch", "recorder", "radio", "access-point", "camera", "phone", "control", "other"] as const;
export type UnitRole = (typeof UNIT_ROLES)[number];

/** Where each kind begins among 254, so that the last figure tells what it is. */
export const ROLE_FROM: Readonly<Record<UnitRole, number>> = {
  router: 2,
  switch: 3,
  recorder: 5,
  radio: 11,
  "access-point": 21,
  camera: 31,
  phone: 51,
  control: 71,
  other: 81,
};
const RULE_SIZE = 254;

export interface NetPlan {
  readonly key: string;
  readonly subnet: string;
  readonly gateway: string | null;
  readonly poolFrom: string | null;
  readonly poolTo: string | null;
}

export interface AddressAsker {
  readonly id: string;
  readonly role: UnitRole;
  readonly net: string;
  /** As it was typed or given before; null where it has none yet. */
  readonly address: string | null;
}

export type AddressFault =
  | {
      readonly code: "not-an-address" | "outside" | "network" | "gateway" | "in-pool" | "taken";
      readonly id: string;
      readonly address: string;
    }
  | { readonly code: "twice"; readonly id: string; readonly address: string; readonly other: string }
  | { readonly code: "no-subnet" | "full"; readonly id: string };

const poolOf = (net: NetPlan): readonly [number, number] | null => {
  const [from, to] = [parseIpv4(net.poolFrom ?? ""), parseIpv4(net.poolTo ?? "")];
  return from === null || to === null ? null : [Math.min(from, to), Math.max(from, to)];
};

/** What is wrong with addresses as they stand. @param taken addresses that others on the network answer at. */
export const addressFaults = (nets: readonly NetPlan[], askers: readonly AddressAsker[], taken: ReadonlySet<string>): AddressFault[] => {
  const seen = new Map<number, string>();
  return askers.flatMap((a): AddressFault[] => {
    const net = nets.find((n) => n.key === a.net);
    const subnet = net === undefined ? null : parseSubnet(net.subnet);
    if (subnet === null) return [{ code: "no-subnet", id: a.id }];
    if (a.address === null) return [];
    const at = parseIpv4(a.address);
    if (at === null) return [{ code: "not-an-address", id: a.id, address: a.address }];
    const { address } = a;
    const other = seen.get(at);
    if (other !== undefined) return [{ code: "twice", id: a.id, address, other }];
    seen.set(at, a.id);
    if (at === subnet.base || at === subnet.last + 1) return [{ code: "network", id: a.id, address }];
    if (!inSubnet(subnet, at)) return [{ code: "outside", id: a.id, address }];
    if (a.role !== "router" && net?.gateway != null && at === parseIpv4(net.gateway)) return [{ code: "gateway", id: a.id, address }];
    const pool = poolOf(net!);
    if (pool !== null && at >= pool[0] && at <= pool[1]) return [{ code: "in-pool", id: a.id, address }];
    return taken.has(ipv4Text(at)) ? [{ code: "taken", id: a.id, address }] : [];
  });
};

/** Gives each that has none an address: from where its kind begins upward, then wherever there is room. Those that have one keep it. */
export const assignAddresses = (
  nets: readonly NetPlan[],
  askers: readonly AddressAsker[],
  taken: ReadonlySet<string>,
): { readonly given: ReadonlyMap<string, string>; readonly faults: readonly AddressFault[] } => {
  const used = new Set<number>([...taken].flatMap((t) => parseIpv4(t) ?? []));
  for (const n of nets) {
    const gateway = parseIpv4(n.gateway ?? "");
    if (gateway !== null) used.add(gateway);
  }
  for (const a of askers) {
    const at = parseIpv4(a.address ?? "");
    if (at !== null) used.add(at);
  }
  const given = new Map<string, string>();
  const faults: AddressFault[] = [];
  for (const a of askers) {
    if (a.address !== null) continue;
    const net = nets.find((n) => n.key === a.net);
    const subnet = net === undefined ? null : parseSubnet(net.subnet);
    if (net === undefined || subnet === null) {
      faults.push({ code: "no-subnet", id: a.id });
      continue;
    }
    const gateway = parseIpv4(net.gateway ?? "");
    if (
      a.role === "router" &&
      gateway !== null &&
      inSubnet(subnet, gateway) &&
      ![...given.values()].includes(ipv4Text(gateway)) &&
      !taken.has(ipv4Text(gateway)) &&
      !askers.some((o) => o.address !== null && parseIpv4(o.address) === gateway)
    ) {
      given.set(a.id, ipv4Text(gateway));
      continue;
    }
    const pool = poolOf(net);
    const room = subnet.last - subnet.first + 1;
    const from = subnet.first - 1 + Math.max(1, Math.floor((ROLE_FROM[a.role] * Math.min(room, RULE_SIZE)) / RULE_SIZE));
    let at: number | null = null;
    for (let i = 0; i < room; i++) {
      const n = subnet.first + ((from - subnet.first + i) % room);
      if (used.has(n) || (pool !== null && n >= pool[0] && n <= pool[1])) continue;
      at = n;
      break;
    }
    if (at === null) {
      faults.push({ code: "full", id: a.id });
      continue;
    }
    used.add(at);
    given.set(a.id, ipv4Text(at));
  }
  return { given, faults };
};

/** How a laptop must be set to reach a unit as it comes from its box: in the same subnet, and not at the unit's own place. */
export const laptopFor = (factory: { readonly address: string; readonly bits: number }): string | null => {
  const net = parseSubnet(`${factory.address}/${factory.bits}`);
  const unit = parseIpv4(factory.address);
  if (net === null || unit === null) return null;
  const LAPTOP = 10;
  for (let i = 0; i < net.last - net.first; i++) {
    const n = net.first + ((LAPTOP - 1 + i) % (net.last - net.first + 1));
    if (n !== unit) return ipv4Text(n);
  }
  return null;
};
