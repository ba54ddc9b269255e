import { hostname, type NetworkInterfaceInfo, networkInterfaces } from "node:os";
import type { Names } from "./authority";

/* By which names and addresses this machine is reached. */

const NAME = /^(?=.{1,253}$)[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?(\.[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?)*$/;

/** Private addresses of this machine's interfaces, the likeliest first: what a phone in the same network reaches. */
export const ownAddresses = (all = networkInterfaces()): string[] =>
  Object.values(all)
    .flatMap((list) => list ?? [])
    .filter(
      (i: NetworkInterfaceInfo) =>
        !i.internal && i.family === "IPv4" && /^(10|192\.168|172\.(1[6-9]|2\d|3[01])|169\.254)\./.test(i.address),
    )
    .map((i) => i.address);

/**
 * @param asked.name the name that stays, where one is given: of one's own DNS, or as the network announces it.
 * @throws RangeError for what is no name.
 */
export const namesOf = (asked: { readonly name: string; readonly address: string }, machine = hostname()): Names => {
  const plain = machine.toLowerCase().split(".")[0] ?? "";
  const own = asked.name === "" ? (NAME.test(plain) ? `${plain}.local` : "") : asked.name.toLowerCase();
  if (asked.name !== "" && !NAME.test(own)) throw new RangeError(`${asked.name} is no name for a machine`);
  const dns = [...new Set([own, "localhost"].filter((n) => n !== ""))];
  return { dns, addresses: [...new Set([asked.address, "127.0.0.1", "::1"].filter((a) => a !== ""))] };
};

/** As names stand in the header Host: with the port. */
export const hostsOf = (names: Names, port: number): string[] =>
  [...names.dns, ...names.addresses.map((a) => (a.includes(":") ? `[${a}]` : a))].flatMap((n) =>
    port === 443 ? [n, `${n}:443`] : [`${n}:${port}`],
  );
