"use client";
import { useQueryClient } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { Dialog } from "radix-ui";
import { useState } from "react";
import type { ImportDto } from "@/contract";
import { bodyOf, getJson, mayRecover, postJson } from "../../api/client";
import { keys } from "../../api/queries";
import { uploadFile } from "../../api/upload";
import { SheetDialog } from "../../controls/sheet-dialog";
import { isUnsentFile } from "../../state/unsent-file";
import { errorSentence } from "../../wording/errors";
import { BringUnsent } from "./bring-unsent";

/** Share of the way that sending is; the rest is taking it in. */
const SENT_SHARE = 0.6;
const ASK_MS = 300;

/** Takes in a whole job that was taken out elsewhere. */
export const BringJob = () => {
  const [open, setOpen] = useState(false);
  const [share, setShare] = useState<number | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  /** A file whose job is here already: it can come in as a copy. */
  const [here, setHere] = useState<File | null>(null);
  const [differing, setDiffering] = useState<readonly string[]>([]);
  const [madeId, setMadeId] = useState<string | null>(null);
  /** What another browser could not send. */
  const [unsent, setUnsent] = useState<File | null>(null);
  const router = useRouter();
  const client = useQueryClient();
  /** Waits until the job is in. @throws ApiError when nobody answers. */
  const follow = async (importId: string): Promise<ImportDto> => {
    for (;;) {
      const row = await getJson<ImportDto>(`/api/bundles/${importId}`).catch((error: unknown) => {
        if (mayRecover(error)) return null;
        throw error;
      });
      if (row !== null && row.state !== "waiting" && row.state !== "running") return row;
      if (row !== null) setShare(SENT_SHARE + (1 - SENT_SHARE) * row.doneShare);
      await new Promise((resolve) => setTimeout(resolve, ASK_MS));
    }
  };
  const send = async (file: File, asCopy: boolean): Promise<void> => {
    setFault(null);
    setHere(null);
    setShare(0);
    try {
      const uploadId = await uploadFile(null, file, (s) => setShare(s * SENT_SHARE), new AbortController().signal);
      const asked = await postJson<ImportDto>("/api/bundles", { uploadId, asCopy });
      const row = await follow(asked.id);
      await client.invalidateQueries({ queryKey: keys.jobs });
      const made = row.result?.jobId;
      if (row.state !== "done" || made === undefined) {
        setFault(row.fault === null ? "It was stopped; nothing was taken in." : `Nothing was taken in: ${row.fault}.`);
        setHere(row.fault?.includes("is here already") === true ? file : null);
      } else {
        const others = row.result?.differing ?? [];
        if (others.length === 0) router.push(`/jobs/${made}/ground`);
        setDiffering(others);
        setMadeId(made);
      }
    } catch (error) {
      setFault(errorSentence(bodyOf(error)));
    }
    setShare(null);
  };
  const take = async (file: File): Promise<void> => {
    if (await isUnsentFile(file).catch(() => false)) setUnsent(file);
    else await send(file, false);
  };
  return (
    <>
      <button type="button" className="press" aria-haspopup="dialog" aria-expanded={open} onClick={() => setOpen(true)}>
        Bring in
      </button>
      <SheetDialog
        open={open}
        onOpenChange={(next) => {
          setOpen(next);
          setFault(null);
          setHere(null);
          setMadeId(null);
          setDiffering([]);
          setUnsent(null);
        }}
        title={unsent === null ? "Bring in a job" : "Bring in what was not sent"}
        width="slim"
      >
        <div className="grid gap-4">
          {unsent === null && (
            <p className="m-0">
              A whole job as it was taken out on another machine: one zip file with everything in it. Or what a phone wrote down and could
              not send.
            </p>
          )}
          {unsent !== null && <BringUnsent file={unsent} />}
          {unsent !== null ? null : madeId === null ? (
            <label className="main-action cursor-pointer justify-self-start focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-ink">
              Choose the file
              <input
                type="file"
                accept=".zip"
                className="sr-only"
                data-testid="bundle-file"
                onChange={(e) => {
                  const file = e.target.files?.[0];
                  e.target.value = "";
                  if (file !== undefined) void take(file);
                }}
              />
            </label>
          ) : (
            <p className="m-0">
              Taken in. {differing.join(", ")} {differing.length === 1 ? "differs" : "differ"} here from what the job was made with; the
              data sheets of this machine were kept, so figures may differ.{" "}
              <button type="button" className="press" onClick={() => router.push(`/jobs/${madeId}/ground`)}>
                Open it
              </button>
            </p>
          )}
          {share !== null && <progress value={share} className="w-full" aria-label="Sending the job" />}
          {fault !== null && (
            <p role="alert" className="m-0 text-short-figure">
              {fault}
            </p>
          )}
          {here !== null && (
            <button type="button" className="press justify-self-start" onClick={() => void send(here, true)}>
              Take it in as a copy
            </button>
          )}
          <Dialog.Close className="press justify-self-start">Close</Dialog.Close>
        </div>
      </SheetDialog>
    </>
  );
};
