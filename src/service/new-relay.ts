import type { z } from "zod";
import type { InputOf, newRelaySchema } from "../contract";
import { asOneStep } from "../data/actor";
import { NotFound } from "../data/clash";
import type { Db } from "../data/client";
import { getLink, type LinkWithDesign, sitesOf } from "../data/jobs";
import { addLink, type DesignInput } from "../data/links";
import { edit } from "../data/records";

/** The gear of a link for one leg of its relay; what belongs to the mount or wall of a lost end is left out. */
const legDesign = (link: LinkWithDesign, kept: "near" | "far", relayAglM: number): DesignInput => {
  const d = link.design as InputOf<"design">;
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
  asOneStep(async () => {
    const { link, job, near, far } = await getLink(db, linkId);
    return edit(db, job.id, async (door) => {
      const relay =
        "siteId" in input
          ? (await sitesOf(door.tx as unknown as Db, job.id)).find((s) => s.id === input.siteId)
          : await door.create("site", { ...input, structure: "relay: mast, power and leave still to be found" });
      if (relay === undefined) throw new NotFound("site");
      const leg = async (nearSiteId: string, farSiteId: string, kept: "near" | "far"): Promise<string> =>
        (await addLink(door, { nearSiteId, farSiteId, label: "relay", design: legDesign(link, kept, relay.mountAglM) })).link.id;
      return { nearLinkId: await leg(near.id, relay.id, "near"), farLinkId: await leg(relay.id, far.id, "far") };
    });
  });
