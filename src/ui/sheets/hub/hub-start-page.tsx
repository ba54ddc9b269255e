"use client";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { type HardwareDto, type HubDto, type JobBundle, recordPath } from "@/contract";
import { bodyOf } from "../../api/client";
import { useRefresh } from "../../api/queries";
import { sendEdit } from "../../state/browser-outbox";
import { usePreferences } from "../../state/preferences";
import { errorSentence } from "../../wording/errors";
import { countText } from "../../wording/gear";
import { hubOf, sitesWithLinks } from "./hub-start";

/** The hubs that there are, and the masts at which several links end that could be one. */
export const HubStart = ({ job, hubs, radios }: { job: JobBundle; hubs: readonly HubDto[]; radios: HardwareDto["radios"] }) => {
  const router = useRouter();
  const refresh = useRefresh();
  const { units } = usePreferences();
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const jobId = job.job.id;
  const siteOf = (id: string) => job.sites.find((s) => s.id === id);
  const taken = new Set(hubs.map((h) => h.siteId));
  const could = sitesWithLinks(job.links).filter((s) => !taken.has(s.siteId) && siteOf(s.siteId) !== undefined);
  const make = async (siteId: string): Promise<void> => {
    setBusy(true);
    setFault(null);
    try {
      const start = hubOf(siteId, job.links, radios);
      const made = await sendEdit<HubDto>(jobId, "POST", `/api/jobs/${jobId}/hubs`, { siteId, ...start });
      await refresh(jobId);
      router.push(`/jobs/${jobId}/hub/${made.id}`);
    } catch (error) {
      setFault(errorSentence(bodyOf(error), units));
      setBusy(false);
    }
  };
  /** The links stay as they are planned; History brings the hub back. */
  const takeAway = async (h: HubDto): Promise<void> => {
    setBusy(true);
    setFault(null);
    try {
      await sendEdit(jobId, "PATCH", recordPath(jobId, "hub", h.id), { version: h.version, deleted: true });
      await refresh(jobId);
    } catch (error) {
      setFault(errorSentence(bodyOf(error), units));
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className="h-full overflow-auto px-6 py-5">
      <h1 className="m-0 text-head font-bold">Hubs of this job</h1>
      <p className="m-0 mt-1 max-w-[640px] text-body">
        A hub is one mast from which several links go over shared sectors: who lies in which beam, and what the air between them holds.
      </p>
      {hubs.length > 0 && (
        <ul className="m-0 mt-4 list-none p-0" data-testid="hubs">
          {hubs.map((h) => (
            <li key={h.id} className="border-b border-rule py-1.5">
              <Link className="press text-body" href={`/jobs/${jobId}/hub/${h.id}`}>
                {h.name === "" ? (siteOf(h.siteId)?.name ?? "a site that is gone") : h.name}
              </Link>
              <button type="button" className="press ml-4 text-line" disabled={busy} onClick={() => void takeAway(h)}>
                Take away
              </button>
              <span className="cap">
                {" "}
                {countText(h.sectors.length, "sector", "sectors")}, {countText(h.remotes.length, "remote", "remotes")}
              </span>
            </li>
          ))}
        </ul>
      )}
      {could.length > 0 && (
        <>
          <h2 className="m-0 mt-5 text-body font-bold">Could be one</h2>
          <ul className="m-0 mt-1 list-none p-0" data-testid="could-be">
            {could.map((c) => (
              <li key={c.siteId} className="border-b border-rule py-1.5">
                <button type="button" className="press text-body" disabled={busy} onClick={() => void make(c.siteId)}>
                  Make {siteOf(c.siteId)!.name} a hub
                </button>
                <span className="cap"> {countText(c.links, "link ends", "links end")} there</span>
              </li>
            ))}
          </ul>
        </>
      )}
      {hubs.length === 0 && could.length === 0 && (
        <p className="mt-4 text-body">
          Nothing of this job is a hub yet: no site has two links. Place a mast and join two remotes to it on{" "}
          <Link className="press" href={`/jobs/${jobId}/ground`}>
            the ground
          </Link>
          .
        </p>
      )}
      {fault !== null && (
        <p role="alert" className="mt-3 text-body text-short-figure">
          {fault}
        </p>
      )}
    </div>
  );
};
