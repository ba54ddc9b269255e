import type { z } from "zod";
import type { newRelaySchema } from "../contract";
import { asOneStep } from "../data/actor";
import { NotFound } from "../data/clash";
import type { Db } from "../data/client";
import { getLink, type LinkWithDesign, sitesOf } from "../data/jobs";
import { createLink, type DesignInput } from "../data/links";
import { createSite } from "../data/sites";

/** The gear of a link for one leg of its relay; what belongs to the mount or wall of a lost end is left out. */
const legDesign = (link: LinkWithDesign, kept: "near" | "far", relayAglM: number): DesignInput => {
  const { id: _i, linkId: _l, chosen: _c, name: _n, version: _v, createdAt: _t, updatedAt: _u, deletedAt: _d, ...d } = link.design;
  const aimed = { nearAimAzimuthDeg: null, farAimAzimuthDeg: null, nearAimTiltDeg: null, farAimTiltDeg: null };
  const open =
    kept === "near"
      ? { farMountAglM: relayAglM, farMountId: null, farWall: null, farWallLossDb: null, farInterferenceDbm: null }
      : { nearMountAglM: relayAglM, nearMountId: null, nearWall: null, nearWallLossDb: null, nearInterferenceDbm: null };
  return { ...d, ...aimed, ...open, trimsM: {}, permissions: [] };
};

/**
 * A relay between the ends of a link: its site, if it is a new one, and a link to each end with the gear of the
 * first. All of it is one step of the job's history, or nothing.
 */
export const addRelay = (
  db: Db,
  linkId: string,
  input: z.output<typeof newRelaySchema>,
): Promise<{ nearLinkId: string; farLinkId: string }> =>
  asOneStep(() =>
    db.transaction(async (tx) => {
      const inside = tx as unknown as Db;
      const { link, job, near, far } = await getLink(inside, linkId);
      const relay =
        "siteId" in input
          ? (await sitesOf(inside, job.id)).find((s) => s.id === input.siteId)
          : await createSite(inside, job.id, { ...input, structure: "relay: mast, power and leave still to be found" });
      if (relay === undefined) throw new NotFound("site");
      const leg = async (nearSiteId: string, farSiteId: string, kept: "near" | "far"): Promise<string> =>
        (await createLink(inside, job.id, { nearSiteId, farSiteId, label: "relay", design: legDesign(link, kept, relay.mountAglM) })).id;
      return { nearLinkId: await leg(near.id, relay.id, "near"), farLinkId: await leg(relay.id, far.id, "far") };
    }),
  );
