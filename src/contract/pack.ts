import type { AimCut, AimingTable, Seen } from "../core/aim";
import type { Finding, LinkPlan, LinkResult, PreparedPath, Verdict } from "../core/link";
import type { Ray } from "../core/obstacles";
import type { Page } from "../core/page";
import type { SiteKit } from "./kit-job";
import type { JobDto, LinkDto, LinkVerdict } from "./types";
import type { AddressedPlace, JudgedSite } from "./wiring-job";

/* What the pages of a pack are made of, and what they are for. */

export const PACK_FOR = ["installer", "customer", "permission"] as const;
/** Whom the pages are for: the crew on site; the customer; who has to agree, a regulator or the owner of a roof. */
export type PackFor = (typeof PACK_FOR)[number];

/** Pages as marks, and what their cover says: the worst of what is open, and all of it. */
export interface PackDto {
  readonly pages: readonly Page[];
  readonly madeAt: string;
  readonly verdict: Verdict | null;
  readonly points: readonly OpenPoint[];
}

/** One thing that is open, of the path, the job's air and load, the wiring, the kit, or what may hurt somebody. */
export interface OpenPoint {
  readonly verdict: Verdict;
  readonly words: string;
  /** It may hurt somebody: of what is equally bad it comes first. */
  readonly hurts?: boolean;
}

export interface PackLevel {
  /** Expected at this end at the peak, a chain, and the band of 8 in 10. */
  readonly dbm: number;
  readonly lowDbm: number;
  readonly highDbm: number;
  /** Beneath it nothing is heard. */
  readonly leastDbm: number;
}

export interface PackEnd {
  readonly siteId: string;
  readonly name: string;
  readonly stands: string | null;
  readonly aglM: number;
  readonly amslM: number;
  readonly bearingDeg: number;
  readonly declinationDeg: number;
  readonly tiltDeg: number;
  /** Where the antenna looks and how it tilts: at the other end, or, of a sector or one that was set so, along its own axis. */
  readonly lookDeg: number;
  readonly lookTiltDeg: number;
  readonly ownAxis: boolean;
  /** Between half-power points; null while the radios do not fit each other. */
  readonly beam: { readonly wideDeg: number; readonly highDeg: number } | null;
  readonly unit: string;
  readonly antenna: string;
  readonly polarisation: string;
  readonly powerDbm: number;
  readonly eirpDbm: number | null;
  readonly exposureM: number | null;
  /** Null while the radios do not fit each other. */
  readonly level: PackLevel | null;
  readonly azimuth: AimingTable | null;
  readonly tilt: AimingTable | null;
  /** Cuts through its pattern; null for one that is not found by turning. */
  readonly cut: { readonly azimuth: AimCut | null; readonly tilt: AimCut | null };
  /** Level against turn, half a turn of the table to each side, for the graph. */
  readonly curve: readonly { readonly offDeg: number; readonly dbm: number }[];
  readonly seen: Seen;
  readonly kit: SiteKit | null;
  readonly wired: JudgedSite | null;
  readonly addresses: readonly AddressedPlace[];
  readonly poleMm: number | null;
  readonly position: { readonly latDeg: number; readonly lonDeg: number };
  readonly access: string;
}

export interface PackLink {
  readonly link: LinkDto;
  readonly plan: LinkPlan;
  readonly path: PreparedPath;
  readonly ray: Ray;
  readonly result: LinkResult;
  readonly found: readonly Finding[];
  /** What the job's air, load and wiring make of it, as the register tells it; null while it was not worked out. */
  readonly told: LinkVerdict | null;
  readonly ends: readonly [PackEnd, PackEnd];
}

export interface PackFacts {
  readonly job: JobDto;
  readonly contact: string;
  /** Day and time of the place at which the pages were made. */
  readonly madeAt: string;
  readonly links: readonly PackLink[];
  /** Links that have no pages, and why. */
  readonly without: readonly { readonly name: string; readonly code: string }[];
}
