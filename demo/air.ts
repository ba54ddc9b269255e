import { type AirFields, airSchema, type ScanFields, scanSchema } from "../src/contract";
import { type HeardNetwork, iwScanText, iwSurveyText, readScan } from "../src/formats";

/* What is about in the made-up air: strangers' networks as a scanner wrote them, an old hub of the customer's, radar at the harbour. */

export const SCANNED_ON = "2026-11-24";

const network = (
  n: number,
  name: string,
  mhz: number,
  widthMhz: HeardNetwork["widthMhz"],
  levelDbm: number,
  busyShare: number | null,
): HeardNetwork => ({
  // Addresses that nobody was given: locally administered.
  address: `02:00:5e:00:53:${n.toString(16).padStart(2, "0")}`,
  name,
  primaryMhz: mhz,
  centreMhz: widthMhz === 20 ? mhz : widthMhz === 40 ? mhz + 10 : mhz + 30,
  widthMhz,
  levelDbm,
  busyShare,
});

const QUAY = [
  network(1, "Quay guests", 5180, 20, -70, 0.32),
  network(2, "Quay guests", 5200, 20, -75, 0.2),
  network(3, "Chandlery", 5220, 20, -73, 0.28),
  network(4, "Fish market", 5240, 20, -79, 0.12),
  network(5, "Ice works", 5320, 20, -88, 0.05),
];
const CAFE = network(9, "Cafe on the quay", 2412, 20, -66, 0.4);

/** The neighbour's network that reaches only the ropeworks: its channel is the planned one, its building hides it from the office. */
export const NEIGHBOUR = network(20, "Sail loft", 5500, 40, -80, 0.45);

export const scanTexts = (): Readonly<Record<"scan-harbour-office.txt" | "scan-rope-walk.txt" | "scan-water-tower.txt", string>> => ({
  "scan-harbour-office.txt":
    iwScanText("wlan0", [...QUAY, CAFE]) +
    iwSurveyText("wlan0", [
      { mhz: 5180, noiseDbm: -94, activeMs: 4000, busyMs: 1300 },
      { mhz: 5500, noiseDbm: -95, activeMs: 4000, busyMs: 60 },
      { mhz: 5580, noiseDbm: -95, activeMs: 4000, busyMs: 210 },
    ]),
  "scan-rope-walk.txt": iwScanText("wlan0", [NEIGHBOUR, { ...QUAY[2]!, levelDbm: -86 }]),
  "scan-water-tower.txt": iwScanText("wlan0", [
    ...QUAY.slice(0, 4).map((q, i) => ({ ...q, levelDbm: [-84, -88, -85, -90][i]! })),
    network(30, "Mast of the ferry line", 5785, 20, -86, 0.1),
  ]),
});

/** The same texts read as a user would bring them in. */
export const demoScans = (siteId: (key: string) => string): (ScanFields & { readonly siteId: string })[] => {
  const texts = scanTexts();
  return (
    [
      ["office", "scan-harbour-office.txt"],
      ["rope", "scan-rope-walk.txt"],
      ["tower", "scan-water-tower.txt"],
    ] as const
  ).map(([key, file]) => ({
    siteId: siteId(key),
    ...scanSchema.parse({ heardOn: SCANNED_ON, gainDbi: 5, rows: readScan(texts[file], false).rows, note: file }),
  }));
};

/** @param aside links that are alternatives of others, or wait for a relay. */
export const demoAir = (siteId: (key: string) => string, aside: readonly string[]): AirFields =>
  airSchema.parse({
    aside,
    // Measured between the brackets of both masts when the old hub was looked at.
    isolations: { [siteId("tower")]: 70, [siteId("office")]: 75 },
    others: [
      {
        id: "o1",
        name: "Old hub on the north rail",
        siteId: siteId("tower"),
        aglM: 8,
        centreMhz: 5590,
        widthMhz: 40,
        eirpDbm: 20,
        bearingDeg: 215,
        beamwidthDeg: 90,
        activity: 0.4,
      },
    ],
    detections: [
      {
        id: "r1",
        on: "2026-11-20",
        at: "09:12",
        siteId: siteId("tower"),
        centreMhz: 5590,
        widthMhz: 40,
        note: "ship's radar off the mole",
      },
      { id: "r2", on: "2026-11-20", at: "16:40", siteId: siteId("tower"), centreMhz: 5590, widthMhz: 40, note: "the same, leaving" },
    ],
    watchedDays: 45,
  });
