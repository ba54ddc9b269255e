"use client";
import { type KeptDesignDto, type PlaceDto, type RelayDto, recordPath } from "@/contract";
import { bodyOf } from "../../api/client";
import { useRefresh } from "../../api/queries";
import { sendEdit } from "../../state/browser-outbox";
import { errorSentence } from "../../wording/errors";
import { relayName } from "../../wording/relays";
import type { OpenSection } from "./use-open-section";

export type LinkActions = ReturnType<typeof useLinkActions>;

/** What is done to a link beside its design: kept designs, another spot for an end, a relay. What went wrong is said. */
export const useLinkActions = (
  open: Pick<OpenSection, "jobId" | "bundle" | "design" | "change" | "setSaid" | "units" | "setComparedId">,
) => {
  const { jobId, bundle, design, change, setSaid: say, units } = open;
  const refresh = useRefresh();
  const { link } = bundle;
  const trouble = (error: unknown): void => say(errorSentence(bodyOf(error), units));

  const keepDesign = async (): Promise<void> => {
    try {
      const row = await sendEdit<KeptDesignDto>(jobId, "POST", `/api/jobs/${jobId}/links/${link.id}/designs`, { design });
      await refresh(jobId);
      open.setComparedId(row.id);
    } catch (error) {
      trouble(error);
    }
  };
  const dropDesign = async (d: KeptDesignDto): Promise<void> => {
    try {
      await sendEdit(jobId, "PATCH", recordPath(jobId, "design", d.id), { version: d.version, deleted: true });
      await refresh(jobId);
    } catch (error) {
      trouble(error);
    }
  };
  /** Another spot for an end becomes a mounting point of its site, and the design takes it. */
  const move = async (end: "near" | "far", place: PlaceDto): Promise<void> => {
    const site = bundle[end];
    let mountId = place.mountId;
    try {
      if (mountId === null && Math.hypot(place.eastM, place.northM) > 0.05) {
        mountId = crypto.randomUUID().slice(0, 8);
        const point = {
          id: mountId,
          name: place.name.slice(0, 80),
          aglM: place.aglM,
          maxAglM: null,
          behind: "",
          eastM: place.eastM,
          northM: place.northM,
        };
        await sendEdit(jobId, "PATCH", `/api/jobs/${jobId}/sites/${site.id}`, {
          version: site.version,
          mountingPoints: [...site.mountingPoints, point],
        });
      }
      change(end === "near" ? { nearMountId: mountId, nearMountAglM: place.aglM } : { farMountId: mountId, farMountAglM: place.aglM });
      say(`${site.name} now stands at ${place.name}. Undo takes it back.`);
      await refresh(jobId);
    } catch (error) {
      trouble(error);
    }
  };
  const addRelay = async (relay: RelayDto): Promise<void> => {
    const body =
      relay.siteId !== null
        ? { siteId: relay.siteId }
        : {
            name: `Relay, ${relayName(relay)}`.slice(0, 80),
            latDeg: relay.latDeg,
            lonDeg: relay.lonDeg,
            mountAglM: relay.aglM,
          };
    try {
      await sendEdit(jobId, "POST", `/api/jobs/${jobId}/links/${link.id}/relay`, body);
      await refresh(jobId);
      say("The relay stands in the job with a link to each end. Undo takes all of it back as one step.");
    } catch (error) {
      trouble(error);
    }
  };
  return { keepDesign, dropDesign, move, addRelay };
};
