import { destination, type LatLon } from "../core/geo";
import { type EndPlan, type LinkPlan, MOUNT_SIGMA_M, type PathProfile, POSITION_SIGMA_M, type Stands, waterOver } from "../core/link";
import type { Barrier } from "../core/propagation";
import { type LinkUse, usesOf } from "../core/radio";
import type { DesignFields, GroundTold } from "./schemas";
import type { HardwareDto, JobDto, ProfileDto } from "./types";

export const profileFromDto = (dto: ProfileDto): PathProfile => ({
  ...dto,
  distanceM: Float64Array.from(dto.distanceM),
  groundAmslM: Float64Array.from(dto.groundAmslM, (h) => h ?? Number.NaN),
  datasetIndex: Uint8Array.from(dto.datasetIndex),
  side:
    dto.side === null
      ? null
      : {
          offsetsM: Float64Array.from(dto.side.offsetsM),
          groundAmslM: dto.side.groundAmslM.map((line) => Float64Array.from(line, (h) => h ?? Number.NaN)),
        },
});

/** What stands before a unit, as kept in a design: nothing, a measured loss, "unknown", or a material. */
const barrierOf = (wall: string | null, measuredDb: number | null): Barrier | null => {
  if (wall === null) return null;
  if (wall === "measured") return { kind: "measured", lossDb: measuredDb ?? 0 };
  return wall === "unknown" ? { kind: "unknown", building: "traditional" } : { kind: "material", material: wall };
};

const endOf = (
  site: EndSite,
  d: DesignFields,
  which: "near" | "far",
  use: LinkUse,
  radio: HardwareDto["radios"][number],
  antenna: HardwareDto["antennas"][number] | null,
): EndPlan => ({
  name: site.name,
  mountMaxAglM: site.mountingPoints?.find((m) => m.id === d[`${which}MountId`])?.maxAglM ?? site.mountMaxAglM,
  stands: site.stands ?? null,
  mountSigmaM: MOUNT_SIGMA_M,
  positionSigmaM: POSITION_SIGMA_M,
  radio,
  use,
  portIndex: d[`${which}Port`],
  antenna,
  mountAglM: d[`${which}MountAglM`],
  feederLossDb: d[`${which}FeederLossDb`],
  connectorLossDb: d[`${which}ConnectorLossDb`],
  txPowerDbm: d[`${which}PowerDbm`],
  barrier: barrierOf(d[`${which}Wall`], d[`${which}WallLossDb`]),
  interferenceDbm: d[`${which}InterferenceDbm`],
  aim: { azimuthDeg: d[`${which}AimAzimuthDeg`], tiltDeg: d[`${which}AimTiltDeg`] },
});

export type PlanProblem = { readonly code: "hardware-missing"; readonly id: string };

interface EndSite {
  readonly name: string;
  readonly mountMaxAglM: number | null;
  readonly stands?: Stands | null;
  readonly mountingPoints?: readonly { readonly id: string; readonly maxAglM: number | null }[];
}

/** The plan of a design: rows to the record that the core evaluates. The same on the server and in the browser. */
export const planOf = (
  job: JobDto,
  near: EndSite,
  far: EndSite,
  design: DesignFields,
  hardware: HardwareDto,
  told: GroundTold | null,
): LinkPlan | PlanProblem => {
  const radioOf = (id: string) => hardware.radios.find((r) => r.id === id);
  const antennaOf = (id: string | null) => (id === null ? null : (hardware.antennas.find((a) => a.id === id) ?? null));
  const nearRadio = radioOf(design.nearRadioId);
  const farRadio = radioOf(design.farRadioId);
  if (nearRadio === undefined) return { code: "hardware-missing", id: design.nearRadioId };
  if (farRadio === undefined) return { code: "hardware-missing", id: design.farRadioId };
  const [nearUse, farUse] = usesOf(nearRadio, farRadio);
  return {
    near: endOf(near, design, "near", nearUse, nearRadio, antennaOf(design.nearAntennaId)),
    far: endOf(far, design, "far", farUse, farRadio, antennaOf(design.farAntennaId)),
    centreMhz: design.centreMhz,
    widthMhz: design.widthMhz,
    needToFarMbps: design.needToFarMbps,
    needToNearMbps: design.needToNearMbps,
    trims: design.trimsM,
    frameShareToFar: design.frameShareToFar,
    yearPercent: design.needYearPercent,
    permissions: design.permissions,
    day: job.visitOn,
    policy: {
      clearance: design.policyOver.clearance ?? job.clearancePolicy,
      kFactor: design.policyOver.kFactor ?? job.kFactor,
      trees: design.policyOver.trees ?? job.treePolicy,
      year: Number(job.visitOn.slice(0, 4)),
      horizonYears: job.horizonYears,
      throughput: job.throughputSchool,
      freeShare: job.freeShare,
      marginDb: job.marginDb,
      domain: job.ruleDomain,
      ownRules: job.ownRules,
      climateZone: job.climateZone,
      leaf: design.policyOver.leaf ?? job.leafState,
      kLow: [
        { pathKm: 20, k: job.kLow20 },
        { pathKm: 50, k: job.kLow50 },
        { pathKm: 100, k: job.kLow100 },
      ],
    },
    climate: {
      rainRate001MmH: job.rainRate001MmH,
      temperatureC: job.temperatureC,
      pressureHpa: job.pressureHpa,
      vapourDensityGm3: job.vapourDensityGm3,
      gradientDn1NPerKm: job.gradientDn1NPerKm,
      roughnessSaM: job.roughnessSaM,
    },
    water: waterOver({ surface: job.waterSurface, tideRangeM: job.tideRangeM, roughnessM: job.waterRoughnessM }, told?.kind === "level"),
  };
};

export const isProblem = (plan: LinkPlan | PlanProblem): plan is PlanProblem => "code" in plan;

/** Where a mount of a site lies: the site's own position, or that of one of its mounting points. */
export const mountPosition = (
  site: LatLon & { readonly mountingPoints: readonly { readonly id: string; readonly eastM: number; readonly northM: number }[] },
  mountId: string | null,
): LatLon => {
  const at = { latDeg: site.latDeg, lonDeg: site.lonDeg };
  const point = mountId === null ? undefined : site.mountingPoints.find((m) => m.id === mountId);
  if (point === undefined || (point.eastM === 0 && point.northM === 0)) return at;
  return destination(at, (Math.atan2(point.eastM, point.northM) * 180) / Math.PI, Math.hypot(point.eastM, point.northM));
};
