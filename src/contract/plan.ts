import type { LinkPlan, PathProfile } from "../core/link";
import type { DesignFields } from "./schemas";
import type { HardwareDto, JobDto, ProfileDto } from "./types";

/** Standard error of a typed mount height. */
const MOUNT_SIGMA_M = 0.2;

export const profileFromDto = (dto: ProfileDto): PathProfile => ({
  ...dto,
  distanceM: Float64Array.from(dto.distanceM),
  groundAmslM: Float64Array.from(dto.groundAmslM, (h) => h ?? Number.NaN),
  datasetIndex: Uint8Array.from(dto.datasetIndex),
});

export type PlanProblem = { readonly code: "hardware-missing"; readonly id: string };

interface EndSite {
  readonly name: string;
  readonly mountMaxAglM: number | null;
}

/** The plan of a design: rows to the record that the core evaluates. The same on the server and in the browser. */
export const planOf = (job: JobDto, near: EndSite, far: EndSite, design: DesignFields, hardware: HardwareDto): LinkPlan | PlanProblem => {
  const radioOf = (id: string) => hardware.radios.find((r) => r.id === id);
  const antennaOf = (id: string | null) => (id === null ? null : (hardware.antennas.find((a) => a.id === id) ?? null));
  const nearRadio = radioOf(design.nearRadioId);
  const farRadio = radioOf(design.farRadioId);
  if (nearRadio === undefined) return { code: "hardware-missing", id: design.nearRadioId };
  if (farRadio === undefined) return { code: "hardware-missing", id: design.farRadioId };
  const shares = (r: typeof nearRadio): boolean => r.roles.includes("hub") && !r.roles.includes("near/far");
  return {
    near: {
      name: near.name,
      mountAglM: design.nearMountAglM,
      mountMaxAglM: near.mountMaxAglM,
      mountSigmaM: MOUNT_SIGMA_M,
      feederLossDb: design.nearFeederLossDb,
      txPowerDbm: design.nearPowerDbm,
      radio: nearRadio,
      antenna: antennaOf(design.nearAntennaId),
    },
    far: {
      name: far.name,
      mountAglM: design.farMountAglM,
      mountMaxAglM: far.mountMaxAglM,
      mountSigmaM: MOUNT_SIGMA_M,
      feederLossDb: design.farFeederLossDb,
      txPowerDbm: design.farPowerDbm,
      radio: farRadio,
      antenna: antennaOf(design.farAntennaId),
    },
    centreMhz: design.centreMhz,
    widthMhz: design.widthMhz,
    needToFarMbps: design.needToFarMbps,
    needToNearMbps: design.needToNearMbps,
    trims: design.trimsM,
    permissionRecorded: design.permission !== null && design.permission !== "",
    policy: {
      clearance: job.clearancePolicy,
      kFactor: job.kFactor,
      trees: job.treePolicy,
      year: Number(job.visitOn.slice(0, 4)),
      horizonYears: job.horizonYears,
      throughput: job.throughputSchool,
      freeShare: job.freeShare,
      marginDb: job.marginDb,
      domain: job.ruleDomain,
      use: shares(nearRadio) || shares(farRadio) ? "ptmp" : "ptp",
    },
    climate: {
      rainRate001MmH: job.rainRate001MmH,
      temperatureC: job.temperatureC,
      pressureHpa: job.pressureHpa,
      vapourDensityGm3: job.vapourDensityGm3,
    },
  };
};

export const isProblem = (plan: LinkPlan | PlanProblem): plan is PlanProblem => "code" in plan;
