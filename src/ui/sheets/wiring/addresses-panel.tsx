"use client";
import { useMemo } from "react";
import { type AddressedPlace, type AddressesFields, addressedPlaces, type NetFields } from "@/contract";
import { type AddressFault, addressFaults, assignAddresses, laptopFor, type NetPlan, portVlans, readTaken } from "@/core/wiring";
import { Choice, Field } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { ParsedField } from "../../controls/parsed-field";
import { PasteField, unreadText } from "../../controls/paste-field";
import { RemoveRow } from "../../controls/rows";
import { readAddress, readName, readSubnet } from "../../wording/read";
import type { OpenWiring } from "./use-open-wiring";

const FLAT: readonly NetFields[] = [
  {
    key: "manage",
    name: "all",
    vlan: null,
    subnet: "192.168.41.0/24",
    gateway: "192.168.41.1",
    poolFrom: "192.168.41.100",
    poolTo: "192.168.41.199",
  },
];
const net = (key: string, name: string, vlan: number, third: number): NetFields => ({
  key,
  name,
  vlan,
  subnet: `192.168.${third}.0/24`,
  gateway: `192.168.${third}.1`,
  poolFrom: `192.168.${third}.100`,
  poolTo: `192.168.${third}.199`,
});
const APART: readonly NetFields[] = [
  net("manage", "manage", 10, 41),
  net("cameras", "cameras", 20, 42),
  net("guests", "guests", 30, 43),
  net("voice", "voice", 40, 44),
];

const FAULT_WORDS: Readonly<Record<AddressFault["code"], string>> = {
  "not-an-address": "is no address",
  outside: "lies outside its network",
  network: "is the network's own",
  gateway: "is the gateway's",
  "in-pool": "lies in the pool that is handed out",
  taken: "is taken: somebody answers there",
  twice: "is given twice",
  "no-subnet": "has no network that can be read",
  full: "finds no room in its network",
};

/** Roles of both ends in the words that people use. */
const ROLE_WORDS = [
  ["A, near end", "access point, parent, master, base, transmitter"],
  ["B, far end", "station, child, slave, subscriber, receiver"],
] as const;

/** Everything that is addressed: networks, what is taken, each unit its own, and how to reach one out of its box. */
export const AddressesPanel = ({ open }: { open: OpenWiring }) => {
  const fields = open.addressFields;
  const change = (set: Partial<AddressesFields>): void => open.addressesRecord.change(set);
  const all = useMemo(() => {
    const here = [open.near, open.far].filter((e) => e.exists).map((e) => ({ ...e.fields, siteId: e.siteId }));
    const others = open.wirings.filter((w) => w.siteId !== open.near.siteId && w.siteId !== open.far.siteId);
    return [...here, ...others];
  }, [open.near, open.far, open.wirings]);
  const places = useMemo(() => addressedPlaces(all, fields), [all, fields]);
  const nets = fields.nets as readonly NetPlan[];
  const taken = useMemo(() => new Set(fields.taken.map((t) => t.address)), [fields.taken]);
  const askers = places.map((p) => ({ id: p.place.id, role: p.role, net: p.net, address: p.address }));
  const faults = nets.length === 0 ? [] : addressFaults(nets, askers, taken);
  const faultOf = (id: string): AddressFault | undefined => faults.find((f) => f.id === id);
  const without = places.filter((p) => p.address === null).length;
  const nameOf = (siteId: string): string => open.job.sites.find((s) => s.id === siteId)?.name ?? "?";
  const setGiven = (p: AddressedPlace, set: Partial<AddressesFields["given"][string]>): void => {
    const { given } = open.addressNow();
    const was = given[p.place.id] ?? { address: null, name: "", net: p.net };
    change({ given: { ...given, [p.place.id]: { ...was, ...set } } });
  };
  const assign = (): void => {
    const { given } = open.addressNow();
    const answer = assignAddresses(nets, askers, taken);
    const next = { ...given };
    for (const p of places) {
      const address = answer.given.get(p.place.id);
      if (address !== undefined) next[p.place.id] = { name: given[p.place.id]?.name ?? "", net: p.net, address };
    }
    change({ given: next });
  };
  const takeList = (text: string): { said: string; isTaken: boolean } => {
    const { taken: list, faults: bad } = readTaken(text);
    if (list.length > 0) change({ taken: [...list], takenOn: new Date().toISOString().slice(0, 10) });
    const found = list.length === 0 ? "No address was found" : `${list.length} addresses are taken`;
    return { said: `${found}${bad.length === 0 ? "." : `; without an address: ${unreadText(bad)}.`}`, isTaken: list.length > 0 };
  };
  const setNet = (key: string, set: Partial<NetFields>): void =>
    change({ nets: open.addressNow().nets.map((n) => (n.key === key ? { ...n, ...set } : n)) });
  const factory = open.ends
    .flatMap((e) => e.fields.places.filter((p) => p.linkId === open.linkId))
    .map((p) => open.hardware.radios.find((r) => r.id === p.partId));
  const box = factory.find((r) => r?.factory !== undefined);
  const laptop = box?.factory === undefined ? null : laptopFor(box.factory);
  const vlans = fields.nets.flatMap((n) => (n.vlan === null ? [] : [n.vlan]));
  const vlanOf = (placeId: string): number | null => {
    const p = places.find((x) => x.place.id === placeId);
    return fields.nets.find((n) => n.key === p?.net)?.vlan ?? null;
  };
  const ports =
    vlans.length === 0
      ? []
      : open.own.flatMap((s) =>
          portVlans(s.judged.wired, vlanOf, vlans, fields.nets.find((n) => n.key === "manage")?.vlan ?? null).map((p) => ({
            ...p,
            siteId: s.siteId,
            name: s.judged.wired.placeOf.get(p.placeId)?.name ?? "?",
          })),
        );
  return (
    <div className="grid gap-3 py-2" data-testid="addresses">
      {fields.nets.length === 0 ? (
        <p className="m-0 flex flex-wrap items-baseline gap-x-4 gap-y-1">
          No network is planned yet. Begin with
          <button type="button" className="press min-h-6 text-line" onClick={() => change({ nets: [...FLAT] })}>
            one flat network
          </button>
          <button type="button" className="press min-h-6 text-line" onClick={() => change({ nets: [...APART] })}>
            cameras, guests, voice and management apart
          </button>
        </p>
      ) : (
        <section aria-label="Networks" className="overflow-x-auto">
          {fields.nets.map((n) => (
            <div key={n.key} className="fields-row grid grid-cols-[110px_80px_170px_130px_130px_130px_28px] gap-x-4 pb-2" data-net={n.key}>
              <ParsedField label="Network" shown={n.name} maxLength={40} read={readName} take={(name) => setNet(n.key, { name })} />
              <NumberField label="VLAN" whole optional value={n.vlan} least={1} most={4094} onChange={(vlan) => setNet(n.key, { vlan })} />
              <ParsedField label="Subnet" shown={n.subnet} read={readSubnet} take={(subnet) => setNet(n.key, { subnet })} />
              <ParsedField
                label="Gateway"
                shown={n.gateway ?? ""}
                read={readAddress("192.168.41.1")}
                take={(gateway) => setNet(n.key, { gateway })}
              />
              <ParsedField
                label="Pool from"
                shown={n.poolFrom ?? ""}
                read={readAddress("192.168.41.100")}
                take={(poolFrom) => setNet(n.key, { poolFrom })}
              />
              <ParsedField
                label="Pool to"
                shown={n.poolTo ?? ""}
                read={readAddress("192.168.41.199")}
                take={(poolTo) => setNet(n.key, { poolTo })}
              />
              <div className="self-end">
                <RemoveRow
                  label={`Take the network ${n.name} away`}
                  onClick={() => change({ nets: open.addressNow().nets.filter((x) => x.key !== n.key) })}
                />
              </div>
            </div>
          ))}
        </section>
      )}
      {nets.length > 0 && (
        <section aria-label="Units with their addresses" className="overflow-x-auto">
          <p className="m-0 flex flex-wrap items-baseline gap-x-4">
            {without > 0 && (
              <button type="button" className="press min-h-6 text-line" onClick={assign}>
                {without === places.length ? "Give every unit an address" : `Give ${without} more an address`}
              </button>
            )}
            <span className="cap">
              Routers at the gateway, switches from 3, recorders from 5, radios from 11, access points 21, cameras 31, phones 51, controls
              71.
            </span>
          </p>
          <table className="mt-1 border-collapse text-line" aria-label="Addresses">
            <thead>
              <tr className="text-left text-label text-ink-2 [&>th]:pr-4 [&>th]:font-said">
                <th>Unit</th>
                <th>At</th>
                <th>Network</th>
                <th>Address</th>
                <th>Name</th>
              </tr>
            </thead>
            <tbody>
              {places.map((p) => {
                const f = faultOf(p.place.id);
                return (
                  <tr key={p.place.id} className="border-t border-rule align-baseline [&>td]:pr-4" data-addressed={p.place.name}>
                    <td>{p.place.name}</td>
                    <td>{nameOf(p.siteId)}</td>
                    <td>
                      <select
                        aria-label={`Network of ${p.place.name}`}
                        className="typed"
                        value={p.net}
                        onChange={(e) => setGiven(p, { net: e.target.value, address: null })}
                      >
                        {fields.nets.map((n) => (
                          <option key={n.key} value={n.key}>
                            {n.name}
                          </option>
                        ))}
                      </select>
                    </td>
                    <td>
                      <ParsedField
                        bare
                        label={`Address of ${p.place.name} at ${nameOf(p.siteId)}`}
                        shown={p.address ?? ""}
                        read={readAddress("192.168.41.11")}
                        take={(address) => setGiven(p, { address })}
                      />
                      {f !== undefined && (
                        <span role="alert" className="v-short block">
                          {f.code === "twice"
                            ? `${FAULT_WORDS.twice}: ${places.find((x) => x.place.id === f.other)?.place.name ?? "another"} has it`
                            : FAULT_WORDS[f.code]}
                        </span>
                      )}
                    </td>
                    <td>
                      <input
                        aria-label={`Name of ${p.place.name} on the network`}
                        className="typed w-36"
                        maxLength={63}
                        value={fields.given[p.place.id]?.name ?? ""}
                        onChange={(e) => setGiven(p, { name: e.target.value })}
                      />
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </section>
      )}
      <section aria-label="Taken addresses">
        <PasteField
          label={
            <>
              Taken already: paste what <code>ip neigh</code> or <code>arp -a</code> printed, or a table{" "}
              {fields.taken.length > 0 && `(${fields.taken.length} kept${fields.takenOn === null ? "" : ` on ${fields.takenOn}`})`}
            </>
          }
          button="Take the list"
          most={200_000}
          take={takeList}
        />
      </section>
      <div className="grid gap-x-8 gap-y-2 min-[900px]:grid-cols-2">
        <section aria-label="Laptop" className="text-line">
          <h3 className="m-0 text-body font-bold">Laptop</h3>
          <p className="m-0">
            {box?.factory === undefined || laptop === null
              ? "The sheet of the radios does not say where they answer as they come from the box."
              : `${laptop}/${box.factory.bits} reaches a ${box.name} as it comes from its box, at ${box.factory.address}. Afterwards back to automatic.`}
          </p>
          <h3 className="m-0 mt-2 text-body font-bold">Roles</h3>
          {ROLE_WORDS.map(([end, words]) => (
            <p key={end} className="m-0">
              {end}: {words}.
            </p>
          ))}
          <p className="m-0">
            The end that feeds gives the network, the other joins it. Both are bridges: no second server of addresses behind them.
          </p>
          <div className="mt-2 grid max-w-[340px] gap-2">
            <Field label="Time server" value={fields.timeServer} maxLength={80} onChange={(e) => change({ timeServer: e.target.value })} />
            <Choice
              label="Does the internet reach controls of a plant?"
              value={fields.plantControls ?? ""}
              onChange={(e) => change({ plantControls: e.target.value === "" ? null : (e.target.value as "no" | "yes") })}
            >
              <option value="">not asked yet</option>
              <option value="no">no</option>
              <option value="yes">yes</option>
            </Choice>
            {fields.plantControls === "yes" && (
              <Field
                label="Who of the plant signs that it may"
                value={fields.plantSigned}
                maxLength={120}
                fault={fields.plantSigned === "" ? "Open until somebody of the plant has signed." : undefined}
                onChange={(e) => change({ plantSigned: e.target.value })}
              />
            )}
            <Field
              label="Wiring accepted at hand-over by"
              value={fields.acceptedBy}
              maxLength={120}
              onChange={(e) => change({ acceptedBy: e.target.value })}
            />
          </div>
        </section>
        {ports.length > 0 && (
          <section aria-label="Ports and VLANs" className="text-line">
            <h3 className="m-0 text-body font-bold">Ports and VLANs</h3>
            <ul className="m-0 list-none p-0" data-testid="vlans">
              {ports.map((p) => (
                <li key={`${p.placeId}${p.port}`}>
                  {nameOf(p.siteId)}, {p.name} {p.port} to {p.to}: {p.untagged === null ? "" : `untagged ${p.untagged}`}
                  {p.untagged !== null && p.tagged.length > 0 ? ", " : ""}
                  {p.tagged.length > 0 ? `tagged ${p.tagged.join(", ")}` : ""}
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </div>
  );
};
