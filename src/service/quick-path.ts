import { FIRST_STAGE, type QuickPath, type QuickPathDto } from "../contract";
import { destination } from "../core/geo";
import { TOLD_SIGMA_M } from "../core/link";
import { Refused } from "../data/clash";
import type { Db } from "../data/client";
import { getJob } from "../data/jobs";
import { addLink } from "../data/links";
import { edit, makeJob } from "../data/records";
import { hardwareDto, jobDto } from "./dto";
import { firstDesign } from "./first-design";

/** Where a path of a length alone is put: the open sea, far from any ground that somebody knows. */
const NOWHERE = { latDeg: 45, lonDeg: -30 };
const EASTWARD_DEG = 90;
const NOT_KNOWN = "Its place is not known: it was put down for the length of the path alone.";

/** A job of one path out of what is known of it: an ordinary job from there on. All of it is made, or nothing. */
export const quickPath = (db: Db, input: QuickPath): Promise<QuickPathDto> =>
  db.transaction(async (tx) => {
    const inside = tx as unknown as Db;
    const { where } = input;
    const near = where.kind === "positions" ? where.near : NOWHERE;
    const far = where.kind === "positions" ? where.far : destination(near, where.bearingDeg ?? EASTWARD_DEG, where.distanceM);
    const made = await makeJob(inside, {
      name: input.name,
      visitOn: input.visitOn,
      ruleDomain: input.ruleDomain,
      centreLatDeg: near.latDeg,
      centreLonDeg: near.lonDeg,
      waterSurface: input.ground === "water" ? "sea" : "auto",
    });
    const job = jobDto(await getJob(inside, made.id));
    return edit(inside, job.id, async (door) => {
      const notes = where.kind === "positions" ? "" : NOT_KNOWN;
      const a = await door.create("site", { ...input.near, ...near, notes });
      const b = await door.create("site", { ...input.far, ...far, notes });
      const { needToFarMbps, needToNearMbps } = input;
      const design = firstDesign(job, await hardwareDto(inside), a, b, { needToFarMbps, needToNearMbps });
      if (design === null) throw new Refused("no-hardware", "radio");
      const { link } = await addLink(door, { nearSiteId: a.id, farSiteId: b.id, label: "", stage: FIRST_STAGE, design });
      if (input.ground !== "terrain")
        await door.patch("link", link.id, link.version, {
          groundTold: { kind: "level", sigmaM: TOLD_SIGMA_M, points: [{ distanceM: 0, heightAmslM: 0 }] },
        });
      return { jobId: job.id, linkId: link.id };
    });
  });
