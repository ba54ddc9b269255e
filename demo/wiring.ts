import {
  type AddressesFields,
  addressedPlaces,
  addressesSchema,
  type Brief,
  type JobBundle,
  leadSchema,
  type NetworkFields,
  type PlaceFields,
  placeSchema,
  proposedFor,
  type WiringFields,
  wiringSchema,
} from "../src/contract";
import { seededRandom } from "../src/core/units";
import { assignAddresses, type Parts } from "../src/core/wiring";

/* The made-up wiring: one camera fed with the wrong kind, one at the end of 95 m, two earths joined, a light on battery and sun. */

const SEED = 815;

/** Names that look like random ones and are the same in every demo. */
const ids = (): (() => string) => {
  const random = seededRandom(SEED);
  const hex = (n: number): string => Array.from({ length: n }, () => Math.floor(random() * 16).toString(16)).join("");
  return () => `${hex(8)}-${hex(4)}-4${hex(3)}-a${hex(3)}-${hex(12)}`;
};

/** What a visit found at a building that is as it should be. */
const SEEN: WiringFields["earth"] = {
  mains: "TN-S",
  lightning: "none",
  specialist: "",
  bar: "joined",
  mast: "joined",
  rod: "none",
  sizeMm2: 16,
  source: "island council's wiring rules, asked of the electrician",
  screens: "one",
  mainsGapMm: 200,
};
const bonded = (w: Pick<WiringFields, "places">): PlaceFields[] =>
  w.places.map((p) => (p.bond === "unseen" ? { ...p, bond: "joined" } : p));

interface Ask {
  readonly job: JobBundle;
  readonly brief: Brief;
  readonly network: NetworkFields;
  readonly parts: Parts;
  readonly siteId: (key: string) => string;
  readonly sectorOf: (siteId: string) => (linkId: string) => string | null;
}

type Kept = WiringFields & { readonly siteId: string };
type End = `${string}/${string}`;

export const demoWirings = ({ job, brief, network, parts, siteId, sectorOf }: Ask): Kept[] => {
  const newId = ids();
  const proposed = (key: string): WiringFields =>
    wiringSchema.parse(proposedFor(job, brief, network, siteId(key), parts, newId, sectorOf(siteId(key))));
  const named = (w: Pick<WiringFields, "places">, name: string): PlaceFields => {
    const found = w.places.find((p) => p.name === name);
    if (found === undefined) throw new Error(`the demo's wiring has no ${name}: ${w.places.map((p) => p.name).join(", ")}`);
    return found;
  };
  const typed = (w: WiringFields, kind: PlaceFields["kind"], partId: string): PlaceFields[] =>
    w.places.map((p) => (p.kind === kind && p.partId === null ? { ...p, partId } : p));
  const lead = (from: End, to: End, cableId: string, lengthM: number, more: object = {}) => {
    const end = (e: End) => ({ placeId: e.slice(0, e.indexOf("/")), port: e.slice(e.indexOf("/") + 1) });
    return leadSchema.parse({ id: newId(), from: end(from), to: end(to), cableId, lengthM, ...more });
  };

  const office = proposed("office");
  const rope = ((): WiringFields => {
    const w = proposed("rope");
    const radio = w.places.find((p) => p.kind === "radio")!;
    let places = typed({ ...w, places: typed({ ...w, places: typed(w, "camera", "capstan") }, "phone", "conch") }, "access-point", "shoal");
    const camera = named({ places }, "camera 1");
    // Camera 1 on the far gable was led to the radio's second port, which hands on what arrives.
    const leads = w.leads.map((l) =>
      l.to.placeId !== camera.id
        ? l
        : { ...l, from: { placeId: radio.id, port: "2" }, cableId: "kelp-outdoor", lengthM: 12, way: "outside" as const, temperatureC: 60 },
    );
    const hub = w.places.find((p) => p.kind === "switch")!;
    places = places.map((p) =>
      p.id === hub.id ? { ...p, partId: "thrift-8af", countsDrawn: true } : p.id === camera.id ? { ...p, where: "outside", aglM: 6 } : p,
    );
    const yard = placeSchema.parse({ id: newId(), kind: "access-point", partId: "shoal", name: "access point" });
    const free = ["5", "6", "7", "8"].find((port) => !leads.some((l) => l.from.placeId === hub.id && l.from.port === port))!;
    const phone = named({ places }, "phone 1");
    return {
      ...w,
      places: bonded({ places: [...places, yard] }),
      leads: [
        ...leads.map((l) =>
          l.to.placeId === phone.id
            ? { ...l, nearMains: { gapMm: 80, alongM: 3 } }
            : l.way === "both"
              ? { ...l, cableId: "kelp-outdoor-thick" }
              : l,
        ),
        lead(`${hub.id}/${free}`, `${yard.id}/1`, "kelp-indoor", 26),
      ],
      earth: { ...SEEN, bar: "unseen" },
      roofAglM: 6,
    };
  })();
  const exchange = ((): WiringFields => {
    const w = proposed("exchange");
    const mains = w.places.find((p) => p.kind === "mains")!;
    const injector = w.places.find((p) => p.kind === "injector")!;
    const hub = placeSchema.parse({ id: newId(), kind: "switch", partId: "thrift-8p", name: "switch" });
    // The camera hangs on the coal store across the yard, which is fed and earthed apart.
    const camera = placeSchema.parse({
      id: newId(),
      kind: "camera",
      partId: "capstan",
      name: "camera at the coal store",
      earth: "coal store",
    });
    return {
      ...w,
      places: bonded({ places: [...w.places, hub, camera] }),
      leads: [
        ...w.leads,
        leadSchema.parse({ id: newId(), from: { placeId: mains.id, port: "ac" }, to: { placeId: hub.id, port: "ac" }, lengthM: 2 }),
        lead(`${hub.id}/5`, `${injector.id}/lan`, "kelp-cord", 2),
        lead(`${hub.id}/1`, `${camera.id}/1`, "kelp-indoor-screened", 38),
      ],
      earth: SEEN,
    };
  })();
  const net = ((): WiringFields => {
    const w = proposed("net");
    const hub = placeSchema.parse({ id: newId(), kind: "switch", partId: "thrift-passive-4", name: "passive switch" });
    const mains = w.places.find((p) => p.kind === "mains")!;
    const camera = w.places.find((p) => p.kind === "camera")!;
    const injector = w.places.find((p) => p.kind === "injector")!;
    const old = w.places.filter((p) => p.kind === "switch").map((p) => p.id);
    const kept = w.leads.filter((l) => !old.includes(l.from.placeId) && !old.includes(l.to.placeId) && l.to.placeId !== camera.id);
    return {
      ...w,
      places: bonded({
        places: [
          ...w.places
            .filter((p) => !old.includes(p.id))
            .map((p) => (p.id === camera.id ? { ...p, partId: "capstan-24-night", name: "camera on the slip" } : p)),
          hub,
        ],
      }),
      leads: [
        ...kept,
        leadSchema.parse({ id: newId(), from: { placeId: mains.id, port: "ac" }, to: { placeId: hub.id, port: "ac" }, lengthM: 2 }),
        lead(`${hub.id}/5`, `${injector.id}/lan`, "kelp-cord", 2),
        lead(`${hub.id}/1`, `${camera.id}/1`, "kelp-indoor", 95),
      ],
      earth: SEEN,
    };
  })();
  const skarn = ((): WiringFields => {
    const w = proposed("skarn");
    const part: Partial<Record<PlaceFields["kind"], string>> = { battery: "ballast-400", panel: "sundew-400", charger: "sedge-20" };
    return {
      ...w,
      places: bonded({
        places: w.places.filter((p) => p.kind !== "control").map((p) => (part[p.kind] === undefined ? p : { ...p, partId: part[p.kind]! })),
      }),
      leads: w.leads,
      earth: { ...SEEN, mains: "none" },
      sun: {
        hoursByMonth: [1.2, 1.9, 3, 4.1, 4.8, 5, 5.1, 4.6, 3.6, 2.3, 1.4, 1],
        clearShare: 0.35,
        tiltDeg: 65,
        bearingDeg: 180,
        daysWithoutSun: 6,
        lowestC: 2,
        comesBack: null,
        // It sends hard only while the relay is read, every fourth hour.
        shareByHour: Array.from({ length: 24 }, (_, h) => (h % 4 === 0 ? 0.85 : 0.45)),
      },
    };
  })();
  return [
    { siteId: siteId("office"), ...office, places: bonded(office), earth: SEEN, roofAglM: 9 },
    { siteId: siteId("rope"), ...rope },
    { siteId: siteId("exchange"), ...exchange },
    { siteId: siteId("pilot"), ...proposed("pilot") },
    { siteId: siteId("net"), ...net },
    { siteId: siteId("skarn"), ...skarn },
  ];
};

/** Every unit its own, as the rule gives them. */
export const demoAddresses = (wirings: readonly Kept[]): AddressesFields => {
  const plan = planned();
  const places = addressedPlaces(wirings, plan);
  const askers = places.map((p) => ({ id: p.place.id, role: p.role, net: p.net, address: null }));
  const { given } = assignAddresses(plan.nets, askers, new Set(plan.taken.map((t) => t.address)));
  return {
    ...plan,
    given: Object.fromEntries(places.map((p) => [p.place.id, { address: given.get(p.place.id) ?? null, name: "", net: p.net }])),
  };
};

const planned = (): AddressesFields =>
  addressesSchema.parse({
    nets: [
      {
        key: "manage",
        name: "manage",
        vlan: 10,
        subnet: "192.168.41.0/24",
        gateway: "192.168.41.1",
        poolFrom: "192.168.41.100",
        poolTo: "192.168.41.199",
      },
      {
        key: "cameras",
        name: "cameras",
        vlan: 20,
        subnet: "192.168.42.0/24",
        gateway: "192.168.42.1",
        poolFrom: "192.168.42.100",
        poolTo: "192.168.42.199",
      },
      {
        key: "guests",
        name: "guests",
        vlan: 30,
        subnet: "192.168.43.0/24",
        gateway: "192.168.43.1",
        poolFrom: "192.168.43.100",
        poolTo: "192.168.43.199",
      },
      {
        key: "voice",
        name: "voice",
        vlan: 40,
        subnet: "192.168.44.0/24",
        gateway: "192.168.44.1",
        poolFrom: "192.168.44.100",
        poolTo: "192.168.44.199",
      },
    ],
    taken: [
      { address: "192.168.41.12", mac: "02:00:5e:00:53:61", name: "printer" },
      { address: "192.168.42.31", mac: "02:00:5e:00:53:62", name: "old camera" },
    ],
    takenOn: "2026-11-24",
    timeServer: "192.168.41.1",
    plantControls: "no",
  });
