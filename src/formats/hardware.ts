import { z } from "zod";
import { type Antenna, CONNECTOR_PLACES, parseDuplex, parsePolarisation, type Radio } from "../core/radio";
import { partSchema } from "./parts";

const MOST_ROWS = 500;
const id = z.string().regex(/^[a-z0-9][a-z0-9-]{0,63}$/, "small letters, digits and hyphens");
const name = z.string().trim().min(1).max(80);
const gainDbi = z.number().min(-5).max(70);
const beamwidthDeg = z.number().gt(0).max(360);
const range = z
  .object({ low: z.number().min(1000).max(350_000), high: z.number().min(1000).max(350_000) })
  .refine((b) => b.high > b.low, "high must be above low");
const byWidth = (value: z.ZodNumber) => z.record(z.string().regex(/^\d+(\.\d+)?$/), value);

/** A measured cut: as many levels as angles, angles rising. */
const cut = z
  .object({
    angleDeg: z.array(z.number().min(-180).max(180)).min(2).max(3601),
    relativeDb: z.array(z.number().min(-120).max(3)).min(2).max(3601),
  })
  .refine((c) => c.angleDeg.length === c.relativeDb.length, "a cut needs as many levels as angles")
  .refine((c) => c.angleDeg.every((a, i) => i === 0 || a > c.angleDeg[i - 1]!), "angles of a cut must rise");
/** What is known of a pattern beside gain and beamwidth. */
const patternFields = {
  firstSideLobeDb: z.number().min(-60).max(0).optional(),
  frontToBackDb: z.number().min(0).max(90).optional(),
  cuts: z.object({ azimuth: cut, elevation: cut }).optional(),
};

/** What a unit is chosen by beside its radio. */
const priceEur = z.number().min(0, "a price is 0 or above").max(1_000_000);
const sizeMm = z.looseObject({ width: z.number().gt(0).max(10_000), height: z.number().gt(0).max(10_000) });
const poleDiameterMm = z
  .object({ low: z.number().min(0).max(2000), high: z.number().min(0).max(2000) })
  .refine((p) => p.high >= p.low, "high must not be below low");
const temperatureC = z
  .object({ low: z.number().min(-90).max(90), high: z.number().min(-90).max(90) })
  .refine((t) => t.high > t.low, "high must be above low");
/** What it hangs on and where its lead comes out. */
const mountFields = {
  bracket: z.string().trim().min(1, "a bracket has a name").max(60, "a bracket's name has 60 letters or fewer").optional(),
  connectorPlace: z.enum(CONNECTOR_PLACES, { error: `is none of: ${CONNECTOR_PLACES.join(", ")}` }).optional(),
};
/** How many of it are on the shelf or on the van. */
const stock = z.number().int("a stock is whole").min(0, "a stock is 0 or above").max(100_000);
const connectorFields = { connector: z.string().max(40).optional(), connectorCount: z.number().int().min(1).max(16).optional() };

const POLARISATIONS =
  "dual linear H+V, dual slant +45/-45, single linear V, single linear H, single linear V or H by turning the feed, circular";
const polarisation = z
  .string()
  .max(80)
  .refine((words) => parsePolarisation(words) !== null, { error: `is none of: ${POLARISATIONS}` });
const DUPLEXES = "TDD, contention; TDD, scheduled; TDD, scheduled, ratios 50/50 67/33; TDD, fixed frame 50/50; FDD";
const duplex = z
  .string()
  .min(1)
  .max(80)
  .refine((words) => parseDuplex(words) !== null, { error: `is none of: ${DUPLEXES}` });

const modulation = z.object({
  index: z.number().int().min(0).max(40),
  modulation: z.string().min(1).max(40),
  codeRate: z.string().max(12),
  maxTxPowerDbm: z.number().min(-40).max(50),
  phyRateMbps: byWidth(z.number().gt(0).max(100_000)),
  sensitivityDbm: byWidth(z.number().min(-130).max(0)),
});

const watts = z.number().min(0, "watts are 0 or above").max(10_000);
/** Volts between which a device works. */
const voltWindow = z
  .object({ low: z.number().min(0).max(500), high: z.number().gt(0).max(500) })
  .refine((v) => v.high > v.low, "high must be above low");

/** A radio's data sheet. What the computation does not need is kept as it came. */
export const radioSchema = z.looseObject({
  id,
  name,
  family: z.string().min(1).max(64),
  roles: z.array(z.string().min(1).max(40)).min(1),
  bandKey: z.enum(["2.4", "5", "6", "24", "60", "80"]),
  bandsMhz: z.array(range).min(1).max(12),
  standard: z.string().min(1).max(40),
  channelWidthsMhz: z.array(z.number().gt(0).max(10_000)).min(1).max(20),
  chains: z.number().int().min(1).max(16),
  maxStreams: z.number().int().min(1).max(16),
  maxStreamsPerRemote: z.number().int().min(1).max(16),
  polarisation,
  duplex,
  blockAckWindowFrames: z.number().int().min(0).max(4096),
  maxAggregateMs: z.number().min(0).max(50),
  maxLinkKm: z.number().gt(0).max(200),
  radarDetection: z.boolean(),
  minTxPowerDbm: z.number().min(-40).max(40),
  txPowerStepDb: z.number().gt(0).max(10),
  noiseFigureDb: z.number().min(0).max(20),
  maxOperatingInputDbm: z.number().min(-60).max(10),
  damageInputDbm: z.number().min(-40).max(30),
  antenna: z
    .looseObject({
      kind: z.enum(["integrated", "connectorised"]),
      form: z.string().max(40).optional(),
      gainDbi: gainDbi.optional(),
      azimuthBeamwidthDeg: beamwidthDeg.optional(),
      elevationBeamwidthDeg: beamwidthDeg.optional(),
      diameterMm: z.number().gt(0).max(5000).nullish(),
      ...patternFields,
      ...connectorFields,
    })
    .refine((a) => a.kind === "connectorised" || a.gainDbi !== undefined, "an integrated antenna needs its gain"),
  modulations: z.array(modulation).min(1).max(40),
  ethernetPorts: z
    .array(
      z.looseObject({ speedMbps: z.number().gt(0).max(400_000), powerIn: z.boolean().optional(), medium: z.string().max(40).optional() }),
    )
    .min(1)
    .max(16),
  automaticPowerControl: z.boolean().optional(),
  maxRemotes: z.number().int().min(1).max(100_000).optional(),
  priceEur: priceEur.optional(),
  powerKinds: z.array(z.string().min(1).max(40)).max(12).optional(),
  powerDrawMaxW: watts.optional(),
  powerDrawTypicalW: watts.optional(),
  startW: watts.optional(),
  inputVolts: z.record(z.string().min(1).max(40), voltWindow).optional(),
  poeClass: z.number().int().min(1).max(8).optional(),
  suppliedInjector: z.looseObject({ kind: z.string().min(1).max(40), volts: z.number().gt(0).max(500), watts }).nullish(),
  passThrough: z
    .looseObject({
      kind: z.string().min(1).max(40),
      maxW: watts,
      onlyWhenFedBy: z.string().max(40).optional(),
      port: z.string().max(80).optional(),
    })
    .nullish(),
  windAreaM2: z.number().min(0).max(100).optional(),
  weightKg: z.number().min(0).max(500).optional(),
  factory: z.object({ address: z.ipv4("is no address"), bits: z.number().int().min(8).max(30) }).optional(),
  sizeMm: sizeMm.optional(),
  poleDiameterMm: poleDiameterMm.optional(),
  ...mountFields,
  temperatureC: temperatureC.optional(),
  stock: stock.optional(),
  retired: z.boolean().optional(),
}) satisfies z.ZodType<Radio>;

export const antennaSchema = z.looseObject({
  id,
  name,
  form: z.string().min(1).max(40),
  bandsMhz: z.array(range).min(1).max(12),
  gainDbi,
  azimuthBeamwidthDeg: beamwidthDeg,
  elevationBeamwidthDeg: beamwidthDeg,
  diameterMm: z.number().gt(0).max(5000).nullish(),
  polarisation: polarisation.optional(),
  ...patternFields,
  ...connectorFields,
  priceEur: priceEur.optional(),
  sizeMm: sizeMm.optional(),
  poleDiameterMm: poleDiameterMm.optional(),
  ...mountFields,
  stock: stock.optional(),
  retired: z.boolean().optional(),
}) satisfies z.ZodType<Antenna>;

/** A hardware file: the same shape as the catalogue that ships. */
export const hardwareFileSchema = z.looseObject({
  radios: z.array(radioSchema).max(MOST_ROWS).default([]),
  antennas: z.array(antennaSchema).max(MOST_ROWS).default([]),
  parts: z.array(partSchema).max(MOST_ROWS).default([]),
});

export type HardwareFile = z.infer<typeof hardwareFileSchema>;

export interface RowFault {
  /** Where in the file: "radios[2] guillemot-flat: noiseFigureDb". */
  readonly where: string;
  readonly reason: string;
}

const rowName = (file: unknown, list: string, index: number): string => {
  const row = (file as Record<string, { id?: unknown }[] | undefined>)[list]?.[index];
  return typeof row?.id === "string" ? ` ${row.id}` : "";
};

/** Reads a hardware file's text; faults name the row and the field. */
export const readHardwareFile = (text: string): { file: HardwareFile } | { faults: RowFault[] } => {
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch (error) {
    return { faults: [{ where: "the file", reason: `is not JSON: ${error instanceof Error ? error.message : "unreadable"}` }] };
  }
  const checked = hardwareFileSchema.safeParse(parsed);
  if (!checked.success) {
    return {
      faults: checked.error.issues.slice(0, 20).map((issue) => {
        const [list, index, ...rest] = issue.path;
        const row =
          typeof index === "number" ? `${String(list)}[${index}]${rowName(parsed, String(list), index)}` : String(list ?? "the file");
        return { where: rest.length > 0 ? `${row}: ${rest.join(".")}` : row, reason: issue.message };
      }),
    };
  }
  if (checked.data.radios.length + checked.data.antennas.length + checked.data.parts.length === 0) {
    return { faults: [{ where: "the file", reason: "holds no radios, no antennas and no parts" }] };
  }
  return { file: checked.data };
};
