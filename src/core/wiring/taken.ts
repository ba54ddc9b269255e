import { ipv4Text, parseIpv4 } from "./addresses";

/* Addresses that answer already, out of what a machine on the network printed: `ip neigh`, `arp -a`, or a table with commas. */

export interface TakenAddress {
  readonly address: string;
  readonly mac: string;
  readonly name: string;
}

export interface ReadTaken {
  readonly taken: readonly TakenAddress[];
  /** Lines without an address, by their number from 1, with what stands there. */
  readonly faults: readonly { readonly line: number; readonly text: string }[];
}

const ADDRESS = /(?<![\d.])(\d{1,3}(?:\.\d{1,3}){3})(?![\d.])/;
const MAC = /(?<![0-9a-f:.-])([0-9a-f]{1,2}(?:[:-][0-9a-f]{1,2}){5})(?![0-9a-f:-])/i;
/** Entries that nobody answered at. */
const NOBODY = /\b(FAILED|INCOMPLETE|incomplete)\b|<incomplete>|\(incomplete\)/;
const HEADING = /^(address|ip|interface|internet address|host|mac)\b/i;
const MOST_FAULTS = 20;
export const MOST_TAKEN = 1000;

const macText = (text: string): string =>
  text
    .toLowerCase()
    .split(/[:-]/)
    .map((p) => p.padStart(2, "0"))
    .join(":");

/** Reads a list; what names no address is told by its line, an address that is no address too. IPv6 neighbours are passed over. */
export const readTaken = (text: string): ReadTaken => {
  const seen = new Set<string>();
  const taken: TakenAddress[] = [];
  const faults: { line: number; text: string }[] = [];
  for (const [i, raw] of text.split(/\r\n|\r|\n/).entries()) {
    const line = raw.trim();
    if (line === "" || line.startsWith("#") || HEADING.test(line) || NOBODY.test(line)) continue;
    const found = ADDRESS.exec(line)?.[1];
    const at = found === undefined ? null : parseIpv4(found.replace(/(^|\.)0+(?=\d)/g, "$1"));
    if (at === null) {
      if (found === undefined && /^[0-9a-f]{0,4}:/i.test(line)) continue;
      if (faults.length < MOST_FAULTS) faults.push({ line: i + 1, text: line.slice(0, 60) });
      continue;
    }
    const address = ipv4Text(at);
    if (seen.has(address) || taken.length >= MOST_TAKEN) continue;
    seen.add(address);
    const mac = MAC.exec(line)?.[1];
    // "name (address) at mac" of arp -a, or a cell of a table that is neither.
    const named =
      /^([^\s(]+) \(/.exec(line)?.[1] ??
      line
        .split(/[,;\t]/)
        .map((c) => c.trim().replace(/^"(.*)"$/, "$1"))
        .filter((c) => c !== "" && !ADDRESS.test(c) && !MAC.test(c) && /[,;\t]/.test(line))[0];
    taken.push({
      address,
      mac: mac === undefined ? "" : macText(mac),
      name: named === undefined || named === "?" ? "" : named.slice(0, 80),
    });
  }
  return { taken, faults };
};
