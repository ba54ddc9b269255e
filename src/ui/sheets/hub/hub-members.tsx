"use client";
import { useMemo } from "react";
import { recordPath } from "@/contract";
import { useRefresh } from "../../api/queries";
import { useLate } from "../../controls/use-late";
import { sendEdit } from "../../state/browser-outbox";
import { type Astray, astrayOf, besideOf } from "./hub-links";
import { sectorName } from "./hub-start";
import type { OpenHub } from "./use-open-hub";

/** What has just been saved reaches the links a moment later: only what stays otherwise is told. */
const STANDS_MS = 1500;

/** Which links hang on the hub: those planned otherwise since, those beside it, and the one looked at. */
export const HubMembers = ({ open, say }: { open: OpenHub; say: (error: unknown) => void }) => {
  const { job, jobId, hub, hardware, fields, sector, status, chosen, change } = open;
  const refresh = useRefresh();
  const now = useMemo(() => (status.kind === "saved" ? astrayOf(job, hub.siteId, fields) : NONE), [job, hub.siteId, fields, status.kind]);
  const late = useLate(now, STANDS_MS);
  // Told only while it is still so.
  const astray = late.filter((a) => now.some((n) => n.link.id === a.link.id));
  const beside = useMemo(() => besideOf(job, hub.siteId, fields, hardware.radios), [job, hub.siteId, fields, hardware.radios]);
  const follow = ({ link, fields: set }: Astray): void => {
    sendEdit(jobId, "PATCH", recordPath(jobId, "design", link.design.id), { version: link.design.version, ...set })
      .then(() => refresh(jobId))
      .catch(say);
  };
  const s = fields.sectors[sector];
  return (
    <>
      {astray.map((a) => (
        <div key={a.link.id} className="mt-2.5 border-b border-rule pb-2" data-testid="astray">
          <p className="m-0">
            {a.name} is planned otherwise in its own section than its sector is set. Judged here is what the sector says.
          </p>
          <button type="button" className="press min-h-6 text-line leading-6" onClick={() => follow(a)}>
            Set it as the sector
          </button>
        </div>
      ))}
      {s !== undefined &&
        beside.map(({ link, name }) => (
          <p key={link.id} className="m-0 mt-2.5">
            {name} ends here and hangs on no sector.{" "}
            <button
              type="button"
              className="press min-h-6 text-line leading-6"
              onClick={() => change({ remotes: [...fields.remotes, { linkId: link.id, sectorId: s.id }] })}
            >
              Hang it on the {sectorName(s, fields.sectors)}
            </button>
          </p>
        ))}
      {chosen !== null && (
        <p className="m-0 mt-2.5">
          <button
            type="button"
            className="press min-h-6 text-line leading-6"
            onClick={() => change({ remotes: fields.remotes.filter((r) => r.linkId !== chosen.linkId) })}
          >
            Take {chosen.name} off the hub
          </button>
          <span className="cap"> its link stays as it is</span>
        </p>
      )}
    </>
  );
};

const NONE: readonly Astray[] = [];
