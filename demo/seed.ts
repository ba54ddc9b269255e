import { eq } from "drizzle-orm";
import { type InputOf, type JobBundle, NO_SITE_LIMITS, networkSchema, sectorsShared } from "../src/contract";
import { partsOf } from "../src/core/wiring";
import { asAsker, programFor } from "../src/data/actor";
import type { Db } from "../src/data/client";
import { SHIPPED, saveHardware } from "../src/data/hardware";
import { getJob, type JobRow, linksOf, sitesOf } from "../src/data/jobs";
import { createLink } from "../src/data/links";
import { insertFeatures, insertObstacles } from "../src/data/obstacles";
import { edit, makeJob } from "../src/data/records";
import { job } from "../src/data/schema";
import { NO_FIRM, terrainDataset } from "../src/data/schema-shared";
import { insertDataset } from "../src/data/terrain-store";
import { type HardwareFile, hardwareFileSchema } from "../src/formats";
import { jobDto } from "../src/service/dto";
import { demoAir, demoScans } from "./air";
import { demoBrief } from "./brief";
import type { DemoJob } from "./generate";
import hardware from "./hardware.json" with { type: "json" };
import { demoDays, demoKit, demoSafety } from "./kit";
import parts from "./parts.json" with { type: "json" };
import { demoRoof } from "./roof";
import { demoAddresses, demoWirings } from "./wiring";

const SURVEYED_ON = "2026-07-15";
const VISIT_ON = "2026-12-03";
export const DEMO_SOURCE = "made up for the demo";

export const demoHardware = (): HardwareFile => hardwareFileSchema.parse({ ...hardware, parts: parts.parts });

/** What a survey added to some of the sites. */
const MORE_OF_SITE: Readonly<Record<string, Partial<InputOf<"site">>>> = {
  office: {
    material: "granite, slate",
    cableEntry: "duct beside the gable window",
    access: "roof hatch, key at the desk",
    owner: "Merrow Harbour Trust",
    mastCostPerM: 240,
  },
  rope: {
    mastCostPerM: 95,
    mountingPoints: [
      { id: "north", name: "North gable", aglM: 7, maxAglM: 9, behind: "timber frame", eastM: 3, northM: 18 },
      { id: "south", name: "South gable", aglM: 7, maxAglM: 9, behind: "timber frame", eastM: 3, northM: -19 },
    ],
  },
  ice: {
    material: "sheet steel on rails, foam behind",
    cableEntry: "north door frame",
    access: "ladder 8 m, quay to be kept clear of vehicles",
    owner: "Merrow Harbour Trust",
    mountingPoints: [
      { id: "gable", name: "West gable", aglM: 7, maxAglM: 8.5, behind: "steel rail at 6.8 m", eastM: -4, northM: 3 },
      { id: "plant", name: "Plant room roof", aglM: 4.5, maxAglM: 6, behind: "brick parapet", eastM: 2, northM: -6 },
    ],
    ticks: ["bracket place chosen", "behind the cladding known"],
  },
};

/** What lies on the made-up van: some types only. */
const STOCK: Readonly<Record<string, number>> = {
  "razorbill-small": 4,
  "kittiwake-panel": 6,
  "skua-remote": 3,
  "eider-small": 2,
  "tramontane-400": 1,
  "thrift-8af": 0,
  "kelp-indoor": 60,
  "limpet-60": 4,
  "whelk-25": 1,
  "kelp-outdoor": 300,
};
const SLOW_SWITCH_MBPS = 100;
/** What owners of sites want: no face over so many centimetres. */
const FACES_CM: Readonly<Record<string, number>> = { rope: 30 };

/** Writes the hardware catalogue and the demo job into an empty or used database. */
export const seedDemo = async (db: Db, demo: DemoJob): Promise<JobRow> => {
  const catalogue = demoHardware();
  const { radios, antennas, parts: others } = catalogue;
  await asAsker(programFor(NO_FIRM), () => saveHardware(db, { radios, antennas, parts: others, source: SHIPPED }));
  // What the firm counts of it stands in copies of its own.
  const counted = <T extends { readonly id: string }>(sheets: readonly T[]): T[] =>
    sheets.filter((s) => STOCK[s.id] !== undefined).map((s) => ({ ...s, stock: STOCK[s.id] }));
  await saveHardware(db, { radios: counted(radios), antennas: counted(antennas), parts: counted(others), source: SHIPPED });
  for (const g of demo.grids) {
    await insertDataset(
      db,
      {
        name: g.name,
        kind: "dtm",
        crs: g.crs,
        originX: g.originX,
        originY: g.originY,
        stepX: g.cellM,
        stepY: -g.cellM,
        cols: g.cols,
        rows: g.rows,
        cellM: g.cellM,
        sigmaM: g.sigmaM,
        verticalDatum: "mean sea level",
        source: DEMO_SOURCE,
      },
      g.values,
    );
  }
  const office = demo.sites[0]!;
  const made = await makeJob(db, {
    name: demo.name,
    place: demo.place,
    visitOn: VISIT_ON,
    centreLatDeg: office.position.latDeg,
    centreLonDeg: office.position.lonDeg,
    ruleDomain: "FCC-like",
    rainRate001MmH: 28,
    tideRangeM: 1.5,
    // An hour behind universal time, all the year.
    timeZone: "Etc/GMT+1",
    stage: "Survey, planning",
  });
  const siteIds = new Map<string, string>();
  for (const s of demo.sites) {
    const row = await edit(db, made.id, (door) =>
      door.create("site", {
        name: s.name,
        latDeg: s.position.latDeg,
        lonDeg: s.position.lonDeg,
        mountAglM: s.mountAglM,
        mountMaxAglM: s.mountMaxAglM,
        structure: s.structure,
        power: s.power,
        ...(MORE_OF_SITE[s.key] ?? {}),
      }),
    );
    siteIds.set(s.key, row.id);
  }
  const sites = Object.fromEntries(
    Object.entries(FACES_CM).map(([key, faceMostCm]) => [siteIds.get(key)!, { ...NO_SITE_LIMITS, faceMostCm }]),
  );
  await edit(db, made.id, (door) => door.patch("limits", made.id, 0, { sites }));
  await insertObstacles(
    db,
    made.id,
    demo.obstacles.map((o) => ({ ...o, source: DEMO_SOURCE, surveyedOn: SURVEYED_ON })),
  );
  await insertFeatures(db, made.id, demo.features);
  const mountOf = (key: string): number => demo.sites.find((s) => s.key === key)!.mountAglM;
  const aside: string[] = [];
  for (const l of demo.links) {
    const link = await createLink(db, made.id, {
      nearSiteId: siteIds.get(l.near)!,
      farSiteId: siteIds.get(l.far)!,
      label: l.label,
      stage: l.stage,
      design: {
        nearMountAglM: mountOf(l.near),
        farMountAglM: mountOf(l.far),
        nearRadioId: l.radio[0],
        farRadioId: l.radio[1],
        nearAntennaId: l.antenna?.[0] ?? null,
        farAntennaId: l.antenna?.[1] ?? null,
        nearPowerDbm: l.powerDbm[0],
        farPowerDbm: l.powerDbm[1],
        centreMhz: l.centreMhz,
        widthMhz: l.widthMhz,
        ...(l.farWall === undefined ? {} : { farWall: l.farWall }),
        ...(l.nearAim === undefined ? {} : { nearAimAzimuthDeg: l.nearAim.azimuthDeg, nearAimTiltDeg: l.nearAim.tiltDeg }),
        needToFarMbps: l.needMbps[0],
        needToNearMbps: l.needMbps[1],
      },
    });
    if (l.aside === true) aside.push(link.id);
    if (l.far === "fuel") for (const e of demoRoof()) await edit(db, made.id, (door) => door.create("roof", { linkId: link.id, ...e }));
  }
  const brief = demoBrief((key) => siteIds.get(key)!);
  await edit(db, made.id, (door) => door.patch("brief", made.id, 0, brief));
  // The old switch behind the wall of the Old Exchange: an answer that nobody expects of a planned link.
  await edit(db, made.id, (door) =>
    door.patch("network", made.id, 0, { ports: { [siteIds.get("exchange")!]: { switchMbps: SLOW_SWITCH_MBPS, injectorMbps: null } } }),
  );
  await edit(db, made.id, (door) =>
    door.patch(
      "air",
      made.id,
      0,
      demoAir((key) => siteIds.get(key)!, aside),
    ),
  );
  for (const scan of demoScans((key) => siteIds.get(key)!)) await edit(db, made.id, (door) => door.create("scan", scan));
  const bundle = {
    job: jobDto(await getJob(db, made.id)),
    sites: await sitesOf(db, made.id),
    links: await linksOf(db, made.id),
  } as unknown as JobBundle;
  const sectors = sectorsShared(bundle.links, []);
  const wirings = demoWirings({
    job: bundle,
    brief,
    network: networkSchema.parse({}),
    parts: partsOf(catalogue.parts, catalogue.radios),
    siteId: (key) => siteIds.get(key)!,
    sectorOf: (siteId) => (linkId) => (sectors.get(linkId)?.siteId === siteId ? sectors.get(linkId)!.id : null),
  });
  for (const { siteId, ...w } of wirings) await edit(db, made.id, (door) => door.create("wiring", { siteId, ...w }, { id: siteId }));
  await edit(db, made.id, (door) =>
    door.patch(
      "kit",
      made.id,
      0,
      demoKit((key) => siteIds.get(key)!),
    ),
  );
  await edit(db, made.id, (door) =>
    door.patch(
      "days",
      made.id,
      0,
      demoDays((key) => siteIds.get(key)!),
    ),
  );
  for (const { siteId, ...of } of demoSafety((key) => siteIds.get(key)!))
    await edit(db, made.id, (door) => door.create("safety", { siteId, ...of }, { id: siteId }));
  await edit(db, made.id, (door) => door.patch("addresses", made.id, 0, demoAddresses(wirings)));
  return getJob(db, made.id);
};

export const isSeeded = async (db: Db): Promise<boolean> => {
  const [dataset] = await db.select({ id: terrainDataset.id }).from(terrainDataset).where(eq(terrainDataset.source, DEMO_SOURCE)).limit(1);
  const [anyJob] = await db.select({ id: job.id }).from(job).limit(1);
  return dataset !== undefined && anyJob !== undefined;
};
