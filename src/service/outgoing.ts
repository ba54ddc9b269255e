import { lookup as lookUp } from "node:dns";
import http from "node:http";
import https from "node:https";
import type { LookupFunction } from "node:net";
import { BlockList, isIP } from "node:net";

/*
 * The one way out: what the server fetches because somebody named an address. It must not be led to what only it can reach. An address
 * is looked at where it is connected to, after its name was looked up; a redirect, which could lead anywhere, is not followed; what comes
 * back is limited in size and time.
 */

/** Addresses that lead to this machine, or to whatever happens to be beside it (RFC 6890 and its registry): never, unless listed. */
const here = new BlockList();
for (const [net, bits] of [
  ["0.0.0.0", 8],
  ["127.0.0.0", 8],
  ["169.254.0.0", 16],
  ["192.0.0.0", 24],
  ["224.0.0.0", 3],
] as const)
  here.addSubnet(net, bits, "ipv4");
for (const [net, bits] of [
  ["::", 127],
  ["fe80::", 10],
  ["ff00::", 8],
] as const)
  here.addSubnet(net, bits, "ipv6");

/** Addresses within the network that this machine stands in. */
const inside = new BlockList();
for (const [net, bits] of [
  ["10.0.0.0", 8],
  ["100.64.0.0", 10],
  ["172.16.0.0", 12],
  ["192.168.0.0", 16],
  ["198.18.0.0", 15],
] as const)
  inside.addSubnet(net, bits, "ipv4");
for (const [net, bits] of [
  ["64:ff9b::", 96],
  ["fc00::", 7],
] as const)
  inside.addSubnet(net, bits, "ipv6");

/** An IPv4 address that is written as IPv6 leads to the same place. */
const plain = (address: string): string => {
  const mapped = /^::(?:ffff:)?(\d+\.\d+\.\d+\.\d+)$/i.exec(address);
  if (mapped !== null) return mapped[1]!;
  const hex = /^::ffff:([0-9a-f]{1,4}):([0-9a-f]{1,4})$/i.exec(address);
  if (hex === null) return address;
  const [hi, lo] = [Number.parseInt(hex[1]!, 16), Number.parseInt(hex[2]!, 16)];
  return `${hi >> 8}.${hi & 255}.${lo >> 8}.${lo & 255}`;
};
const within = (list: BlockList, address: string): boolean => {
  const a = plain(address);
  const family = isIP(a);
  return family !== 0 && list.check(a, family === 4 ? "ipv4" : "ipv6");
};

/** Where an address leads: to this machine, into its network, or out. What is no address leads nowhere that is known to be out. */
export const leadsTo = (address: string): "here" | "inside" | "outside" =>
  isIP(plain(address)) === 0 || within(here, address) ? "here" : within(inside, address) ? "inside" : "outside";

/** What may be reached. */
export interface Reach {
  /** Anything beyond the network. */
  readonly outside: boolean;
  /** Hosts, or host:port, that an operator lists by name: wherever they lead. */
  readonly hosts?: readonly string[];
  /** Networks as address/bits that may be reached though they lie within: those of a job's radios. */
  readonly subnets?: readonly string[];
}

/** Why nothing came back. */
export class OutFault extends Error {
  constructor(readonly why: "not-allowed" | "unreachable" | "too-large" | "too-slow" | "redirect") {
    super(why);
  }
}

const listOf = (subnets: readonly string[]): BlockList => {
  const list = new BlockList();
  for (const subnet of subnets) {
    const [net, bits] = subnet.split("/") as [string, string | undefined];
    const family = isIP(net);
    if (family !== 0) list.addSubnet(net, Number(bits ?? (family === 4 ? 32 : 128)), family === 4 ? "ipv4" : "ipv6");
  }
  return list;
};

/** Whether an address may be connected to. A subnet opens what lies within, never this machine. */
const mayReach = (address: string, reach: Reach, subnets: BlockList): boolean => {
  const to = leadsTo(address);
  if (to === "here") return false;
  return (to === "outside" && reach.outside) || within(subnets, address);
};

export interface Answer {
  readonly status: number;
  /** Media type without its parameters. */
  readonly type: string;
  readonly bytes: Uint8Array;
}

export interface Asking {
  readonly method?: "GET" | "POST";
  readonly headers?: Readonly<Record<string, string>>;
  readonly body?: string;
  readonly mostBytes?: number;
  readonly timeMs?: number;
  /** How names are looked up; the system's, unless a test says otherwise. */
  readonly lookup?: typeof lookUp;
}

const MOST_BYTES = 65_536;
const TIME_MS = 3000;

/**
 * Asks an address that somebody named.
 * @throws OutFault: not-allowed where it leads elsewhere than may be reached; redirect; too-large; too-slow; unreachable.
 */
export const callOut = (url: URL, reach: Reach, asking: Asking = {}): Promise<Answer> =>
  new Promise((resolve, reject) => {
    const { method = "GET", headers = {}, body, mostBytes = MOST_BYTES, timeMs = TIME_MS, lookup = lookUp } = asking;
    if (url.protocol !== "http:" && url.protocol !== "https:") return reject(new OutFault("not-allowed"));
    const host = url.hostname.replace(/^\[|\]$/g, "");
    const listed = (reach.hosts ?? []).some((h) => h === url.hostname || h === url.host);
    const subnets = listOf(reach.subnets ?? []);
    // A number is connected to without a look-up.
    if (!listed && (isIP(host) !== 0 ? !mayReach(host, reach, subnets) : /(^|\.)localhost\.?$/i.test(host)))
      return reject(new OutFault("not-allowed"));
    /** Looks a name up, once: the address that was looked at is the one that is connected to. */
    const guarded: LookupFunction = (hostname, options, callback) => {
      lookup(hostname, { ...options, all: true }, (error, addresses) => {
        if (error !== null) return callback(error, "", 0);
        const first = addresses[0];
        if (first === undefined || !addresses.every((a) => mayReach(a.address, reach, subnets)))
          return callback(new OutFault("not-allowed"), "", 0);
        if (options.all === true) return callback(null, addresses);
        callback(null, first.address, first.family);
      });
    };
    const signal = AbortSignal.timeout(timeMs);
    const client = url.protocol === "https:" ? https : http;
    const fail = (why: OutFault["why"]): void => {
      request.destroy();
      reject(new OutFault(why));
    };
    const request = client.request(url, { method, headers, signal, agent: false, ...(listed ? {} : { lookup: guarded }) }, (response) => {
      const status = response.statusCode ?? 0;
      if (status >= 300 && status < 400) return fail("redirect");
      const pieces: Buffer[] = [];
      let bytes = 0;
      response.on("data", (piece: Buffer) => {
        bytes += piece.length;
        if (bytes > mostBytes) fail("too-large");
        else pieces.push(piece);
      });
      response.on("end", () =>
        resolve({
          status,
          type: (response.headers["content-type"] ?? "").split(";")[0]!.trim(),
          bytes: new Uint8Array(Buffer.concat(pieces)),
        }),
      );
      response.on("error", () => reject(new OutFault(signal.aborted ? "too-slow" : "unreachable")));
    });
    request.on("error", (error) => reject(error instanceof OutFault ? error : new OutFault(signal.aborted ? "too-slow" : "unreachable")));
    request.end(body);
  });
