"use client";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { type KindName, kinds, recordPath } from "@/contract";
import { ApiError, bodyOf, sendEditRequest } from "../../api/client";
import { useJobs } from "../../api/queries";
import { ClashNotice } from "../../controls/clash-notice";
import { FormTrouble, useSubmit } from "../../controls/use-submit";
import { type Brought, bringUnsent, type Fought, overThere } from "../../state/bring-unsent";
import { postPhoto } from "../../state/browser-photos";
import { usePreferences } from "../../state/preferences";
import { readUnsent, type Unsent } from "../../state/unsent-file";
import { errorSentence } from "../../wording/errors";
import { unsentWords } from "../../wording/unsent";

/** The kind of record that an address is of. */
const kindAt = (jobId: string, path: string): KindName =>
  (kinds().find(([name, k]) => {
    const one = recordPath(jobId, name, "*");
    return k.parent !== "none" && (k.many ? path.startsWith(`${one.slice(0, -2)}`) : path === one);
  })?.[0] ?? "site") as KindName;

const nameIn = (body: Readonly<Record<string, unknown>>): string =>
  typeof body.name === "string" && body.name !== "" ? ` (${body.name})` : "";

/** What a phone wrote down and could not send: told, brought in, and asked about where somebody changed the same since. */
export const BringUnsent = ({ file }: { file: File }) => {
  const client = useQueryClient();
  const { units } = usePreferences();
  const jobs = useJobs().data ?? [];
  const [unsent, setUnsent] = useState<Unsent | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const [brought, setBrought] = useState<Brought | null>(null);
  const [fought, setFought] = useState<readonly Fought[]>([]);
  const choosing = useSubmit();
  useEffect(() => {
    readUnsent(file).then(setUnsent, (error: unknown) => setFault(error instanceof Error ? error.message : String(error)));
  }, [file]);

  const bring = async (from: Unsent): Promise<void> => {
    setShare(0);
    const came = await bringUnsent(from, {
      post: sendEditRequest,
      postPhoto: (p) => postPhoto({ ...p, person: null }),
      progress: (done, of) => setShare(done / of),
    });
    setShare(null);
    setBrought(came);
    setFought(came.fought);
    await client.invalidateQueries();
  };
  const choose = (one: Fought, keep: "mine" | "theirs"): void =>
    void choosing.run(async () => {
      let version = one.version;
      if (keep === "mine")
        try {
          version = ((await sendEditRequest(overThere(one))) as { readonly version: number }).version;
        } catch (error) {
          // Changed once more in between: what is there now is shown.
          const { current } = bodyOf(error);
          const now = current as Readonly<Record<string, unknown>> | undefined;
          if (!(error instanceof ApiError) || typeof now?.version !== "number") throw error;
          const theirs = Object.fromEntries(Object.keys(one.mine).map((k) => [k, now[k]]));
          setFought((all) => all.map((f) => (f === one ? { ...one, theirs, version: now.version as number } : f)));
          return;
        }
      setFought((all) => all.filter((f) => f !== one).map((f) => (f.edit.path === one.edit.path ? { ...f, version } : f)));
      await client.invalidateQueries();
    });

  if (fault !== null)
    return (
      <p role="alert" className="m-0 text-short-figure">
        {fault}
      </p>
    );
  if (unsent === null) return <p className="m-0">Reading the file.</p>;
  if (brought === null) {
    const ids = [...new Set([...unsent.edits, ...unsent.photos].map((x) => x.jobId))];
    const names = ids.map((id) => jobs.find((j) => j.job.id === id)?.job.name ?? "a job that is not open to you");
    return (
      <>
        <p className="m-0">
          {unsentWords(unsent.edits.length, unsent.photos.length)} of {names.join(", ")}, written down until{" "}
          {new Date(unsent.madeAt).toLocaleString("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" })} by that
          phone's clock. They are brought in under your name. What was sent in the meantime is not made twice.
        </p>
        {share !== null && <progress value={share} className="w-full" aria-label="Bringing it in" />}
        <button type="button" className="main-action justify-self-start" disabled={share !== null} onClick={() => void bring(unsent)}>
          Bring it in
        </button>
      </>
    );
  }
  const fallen = [
    ...brought.fallen.map((f) => ({
      what: `${f.edit.method === "POST" ? "a new one" : "a change"}${nameIn(f.edit.body)}`,
      reason: f.reason,
    })),
    ...brought.fallenPhotos.map((p) => ({ what: "a photo", reason: p.reason })),
  ];
  return (
    <>
      <p role="status" className="m-0">
        Brought in: {unsentWords(brought.made, brought.photos)}.
      </p>
      {brought.stopped !== null && (
        <p role="alert" className="m-0">
          <span className="text-short-figure">It went no further: {errorSentence(brought.stopped)}</span>{" "}
          <button type="button" className="press" disabled={share !== null} onClick={() => void bring(unsent)}>
            Go on
          </button>
        </p>
      )}
      {fallen.length > 0 && (
        <ul role="alert" className="m-0 list-none p-0 text-short-figure" aria-label="Not taken">
          {fallen.map((f, i) => (
            <li key={`${i} ${f.what}`}>
              Not taken, {f.what}: {errorSentence(f.reason, units)}
            </li>
          ))}
        </ul>
      )}
      <FormTrouble of={choosing} />
      {fought.map((f) => (
        <ClashNotice
          key={f.edit.id}
          kind={kindAt(f.edit.jobId, f.edit.path)}
          status={{ kind: "clash", mine: f.mine, theirs: f.theirs }}
          setAside={null}
          units={units}
          resolve={(keep) => choose(f, keep)}
          recall={() => undefined}
        />
      ))}
    </>
  );
};
