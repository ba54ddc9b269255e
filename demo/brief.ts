import { type Brief, type BriefDevice, briefSchema } from "../src/contract";

/** What the made-up customer asked for, written as an enquiry stands half way: some things settled, some open. */
export const demoBrief = (siteId: (key: string) => string): Brief => {
  const device = (id: string, key: string, kind: BriefDevice["kind"], fields: Partial<BriefDevice>) => ({
    id,
    siteId: siteId(key),
    kind,
    count: 1,
    ...fields,
  });
  return briefSchema.parse({
    customer: "Merrow Harbour Trust",
    contact: "the harbour master, at the office most mornings",
    purpose:
      "Cameras and internet for the buildings round the dock, and for the stations out on the water, from the fibre at the Harbour Office.",
    recorder: "near",
    devices: [
      device("d1", "ice", "camera", { count: 6, widthPx: 2560, heightPx: 1440, framesPerS: 15 }),
      device("d2", "ice", "access-point", { users: 6 }),
      device("d3", "rope", "camera", { count: 4, framesPerS: 25 }),
      device("d4", "rope", "phone", { count: 2 }),
      device("d5", "pilot", "camera", { count: 3, framesPerS: 15, scene: "busy" }),
      device("d6", "pilot", "internet", { downMbps: 25, upMbps: 5 }),
      device("d7", "skarn", "control", { count: 2 }),
      // Behind the tower: what its links were asked to carry, by what hangs there.
      device("d8", "fuel", "camera", { count: 2, framesPerS: 25 }),
      device("d9", "fuel", "internet", { downMbps: 4.9, upMbps: 4.4 }),
      device("d10", "ferry", "camera", { count: 2, framesPerS: 25 }),
      device("d11", "ferry", "internet", { downMbps: 4.9, upMbps: 4.4 }),
      device("d12", "net", "camera", { framesPerS: 25 }),
      device("d13", "net", "internet", { downMbps: 4.9, upMbps: 7.2 }),
      device("d14", "weigh", "camera", { framesPerS: 25 }),
      device("d15", "weigh", "internet", { downMbps: 4.9, upMbps: 2.2 }),
      device("d16", "hulk", "camera", { framesPerS: 25 }),
      device("d17", "hulk", "internet", { downMbps: 4.9, upMbps: 7.2 }),
      device("d18", "sailing", "internet", { downMbps: 10, upMbps: 10 }),
    ],
    feed: { name: "fibre of the Harbour Office", downMbps: 500, upMbps: 500, freePorts: 2 },
    source: { freePort: "yes", adapter: "", negotiated: "1 Gbps" },
    wifiChannels: "1 and 11 in the office, 36 to 48 on the quay",
    shapes: {
      duct: "none",
      suppliedApart: true,
      trenchPerM: 140,
      subscriptionPerMonth: 45,
      chosen: "pair",
      reason:
        "The quay is granite and the dock lies between: no duct, and the trench was quoted at more than ten years of the lines it would save.",
    },
    inventory: [
      { id: "i1", what: "old dish and 30 m of cable", where: "Ice House, east gable", fate: "remove" },
      { id: "i3", what: "old hub with its clients", where: "Water Tower, north rail", fate: "move" },
      { id: "i2", what: "bracket, 50 mm pole", where: "Rope Walk, chimney", fate: "keep" },
    ],
    oldFailure: "water",
    oldFailureNote: "The gland of the old dish stood open at the top; the plug is green.",
    photoRequests: [
      {
        id: "p1",
        siteId: siteId("rope"),
        what: "From the loft window towards the Harbour Office, with the poplars",
        bearingDeg: 259,
        askedOn: "2026-11-20",
        got: false,
      },
    ],
    permissions: [
      { key: "landlord", state: "granted", who: "the Trust", note: "owns every building named" },
      { key: "planning", state: "asked", who: "island council", note: "" },
      { key: "heritage", state: "open", who: "", note: "Water Tower is listed" },
      { key: "tree-owner", state: "asked", who: "the ropeworks", note: "" },
      { key: "line-terms", state: "not-needed", who: "", note: "" },
      { key: "privacy", state: "granted", who: "the Trust", note: "signs at both gates" },
      { key: "controls", state: "not-needed", who: "", note: "" },
      { key: "supplies", state: "granted", who: "electrician", note: "fed apart: no copper between" },
      { key: "heights", state: "open", who: "", note: "" },
      { key: "mains", state: "granted", who: "electrician", note: "" },
      { key: "roadside", state: "not-needed", who: "", note: "" },
    ],
  });
};
