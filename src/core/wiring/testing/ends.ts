import catalogue from "../../../../demo/hardware.json" with { type: "json" };
import shipped from "../../../../demo/parts.json" with { type: "json" };
import type { EarthPlan, Lead, Place, WiringGraph } from "../graph";
import type { PartSheet } from "../part";
import { type PoweredRadio, partsOf } from "../radio-part";

/** All parts that ship, with the radios. */
export const PARTS = partsOf(shipped.parts as unknown as PartSheet[], catalogue.radios as unknown as PoweredRadio[]);

export const EARTH_DONE: EarthPlan = {
  mains: "TN-S",
  lightning: "none",
  specialist: "",
  bar: "joined",
  mast: "joined",
  rod: "none",
  sizeMm2: 6,
  source: "local code",
  screens: "one",
  mainsGapMm: 200,
};

export const place = (id: string, kind: Place["kind"], partId: string | null, more: Partial<Place> = {}): Place => ({
  id,
  partId,
  kind,
  name: id,
  where: "inside",
  aglM: null,
  linkId: null,
  deviceId: null,
  earth: "",
  countsDrawn: false,
  bond: "none",
  ...more,
});

/** @param from and @param to as "place/port". */
export const lead = (id: string, from: string, to: string, cableId: string | null, lengthM: number, more: Partial<Lead> = {}): Lead => {
  const end = (text: string): Lead["from"] => {
    const [placeId, port] = text.split("/");
    return { placeId: placeId!, port: port! };
  };
  return {
    id,
    from: end(from),
    to: end(to),
    cableId,
    lengthM,
    way: "inside",
    through: "",
    temperatureC: 40,
    screen: "one",
    dripLoop: null,
    nearMains: null,
    ...more,
  };
};

/** A far end as it should be: switch, injector, protectors, radio, three cameras and a phone. */
export const cleanEnd = (): WiringGraph => ({
  places: [
    place("mains", "mains", "socket"),
    place("switch", "switch", "thrift-8af"),
    place("injector", "injector", "samphire-24-four"),
    place("entry", "surge", "limpet-60", { bond: "joined" }),
    place("top", "surge", "limpet-60", { where: "mast", bond: "joined" }),
    place("radio", "radio", "kittiwake-panel", { where: "mast" }),
    place("camera-1", "camera", "capstan"),
    place("camera-2", "camera", "capstan"),
    place("camera-3", "camera", "capstan-night"),
    place("phone", "phone", "conch"),
  ],
  leads: [
    lead("m1", "mains/ac", "switch/ac", null, 1),
    lead("m2", "mains/ac", "injector/ac", null, 1),
    lead("l1", "switch/9", "injector/lan", "kelp-cord", 2),
    lead("l2", "injector/fed", "entry/1", "kelp-cord", 2),
    lead("l3", "entry/2", "top/1", "kelp-outdoor", 20, { way: "both", dripLoop: true, temperatureC: 60, through: "the wall" }),
    lead("l4", "top/2", "radio/1", "kelp-outdoor", 2, { way: "outside", temperatureC: 60 }),
    lead("c1", "switch/1", "camera-1/1", "kelp-indoor", 25),
    lead("c2", "switch/2", "camera-2/1", "kelp-indoor", 30),
    lead("c3", "switch/3", "camera-3/1", "kelp-indoor", 35),
    lead("p1", "switch/4", "phone/1", "kelp-indoor", 12),
  ],
  earth: EARTH_DONE,
});
