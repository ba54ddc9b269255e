import type { BriefDevice, JobBundle } from "@/contract";
import { deviceDemand, roundedNeedMbps } from "@/core/infra";
import { THERE } from "@/core/load";
import { rateText } from "../../wording/gear";
import type { LoadView } from "./load-view";
import type { MoreDevice } from "./place-list";

/** Kinds of device of which one more is asked after: the cameras that the brief has, and a user of an access point. */
export const moreKinds = (devices: readonly BriefDevice[]): MoreDevice[] => {
  const found = new Map<string, MoreDevice>();
  for (const d of devices) {
    if (d.kind !== "camera") continue;
    const { peak } = deviceDemand({ ...d, count: 1 });
    const name = `camera of ${rateText(peak.toNearMbps)} Mbps`;
    if (!found.has(name)) found.set(name, { name, each: { there: peak.toFarMbps, back: peak.toNearMbps }, talksTo: "recorder" });
  }
  // Of ten users three are active at once.
  const ten = deviceDemand({
    kind: "access-point",
    count: 1,
    widthPx: 0,
    heightPx: 0,
    framesPerS: 1,
    codec: "h264",
    scene: "usual",
    users: 10,
    downMbps: null,
    upMbps: null,
  }).usual;
  return [
    ...found.values(),
    { name: "user of an access point", each: { there: ten.toFarMbps / 10, back: ten.toNearMbps / 10 }, talksTo: "feed" },
  ];
};

export interface LinkMismatch {
  readonly linkId: string;
  readonly designId: string;
  readonly version: number;
  readonly name: string;
  /** Away from the feed and towards it. */
  readonly asked: readonly [number, number];
  readonly passes: readonly [number, number];
  readonly isLess: boolean;
  readonly toFar: number;
  readonly toNear: number;
}

const TOLERANCE = 0.1;
const differs = (asked: number, passes: number): boolean => Math.abs(asked - passes) > Math.max(1.5, TOLERANCE * passes);

/** Links whose need is other than what passes them at the worst moment, by more than a tenth. */
export const mismatchesOf = ({ load, places }: LoadView, job: JobBundle): LinkMismatch[] => {
  const out: LinkMismatch[] = [];
  const byId = new Map(places.map((p) => [p.id, p.place]));
  for (const [siteId, u] of load.tree.up) {
    const link = job.links.find((l) => l.id === u.linkId);
    const port = byId.get(`port:${u.linkId}:${siteId}`);
    if (link === undefined || port === undefined) continue;
    const [there, back] = [load.passing.worst[port * 2 + THERE]!, load.passing.worst[port * 2 + 1]!];
    const { needToFarMbps, needToNearMbps } = link.design;
    const [toFar, toNear] = [needToFarMbps ?? 0, needToNearMbps ?? 0];
    const asked = u.parentIsNear ? ([toFar, toNear] as const) : ([toNear, toFar] as const);
    if (there + back === 0 || (!differs(asked[0], there) && !differs(asked[1], back))) continue;
    const passes = [roundedNeedMbps(there), roundedNeedMbps(back)] as const;
    out.push({
      linkId: link.id,
      designId: link.design.id,
      version: link.design.version,
      name: job.sites.find((s) => s.id === siteId)?.name ?? "",
      asked,
      passes,
      isLess: asked[0] < there - 0.5 || asked[1] < back - 0.5,
      toFar: u.parentIsNear ? passes[0] : passes[1],
      toNear: u.parentIsNear ? passes[1] : passes[0],
    });
  }
  return out;
};
