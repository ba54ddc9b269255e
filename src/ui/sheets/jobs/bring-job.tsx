"use client";
import { useQueryClient } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { ApiError, postJson } from "../../api/client";
import { keys } from "../../api/queries";
import { uploadFile } from "../../api/upload";
import { errorSentence } from "../../wording/errors";

/** Takes in a whole job that was taken out elsewhere. */
export const BringJob = () => {
  const [open, setOpen] = useState(false);
  const [share, setShare] = useState<number | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [sentId, setSentId] = useState<string | null>(null);
  const [differing, setDiffering] = useState<readonly string[]>([]);
  const [madeId, setMadeId] = useState<string | null>(null);
  const router = useRouter();
  const client = useQueryClient();
  const take = async (uploadId: string, asCopy: boolean): Promise<void> => {
    setFault(null);
    try {
      const made = await postJson<{ jobId: string; differing: string[] }>("/api/bundles", { uploadId, asCopy });
      await client.invalidateQueries({ queryKey: keys.jobs });
      if (made.differing.length === 0) router.push(`/jobs/${made.jobId}/ground`);
      setDiffering(made.differing);
      setMadeId(made.jobId);
    } catch (error) {
      const body = error instanceof ApiError ? error.body : { code: "internal" };
      setFault(errorSentence(body));
      setSentId(body.code === "job-exists" ? uploadId : null);
    }
  };
  const send = async (file: File): Promise<void> => {
    setFault(null);
    setSentId(null);
    setShare(0);
    try {
      const id = await uploadFile(null, file, setShare, new AbortController().signal);
      await take(id, false);
    } catch (error) {
      setFault(errorSentence(error instanceof ApiError ? error.body : { code: "internal" }));
    }
    setShare(null);
  };
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        setFault(null);
        setSentId(null);
        setMadeId(null);
        setDiffering([]);
      }}
    >
      <Dialog.Trigger className="press">Bring in a job</Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-1/2 grid w-[480px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 gap-4 border-[1.6px] border-ink bg-paper p-6"
        >
          <Dialog.Title className="m-0 text-[21px] font-bold">Bring in a job</Dialog.Title>
          <p className="m-0">A whole job as it was taken out on another machine: one zip file with everything in it.</p>
          {madeId === null ? (
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
                  if (file !== undefined) void send(file);
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
          {sentId !== null && (
            <button type="button" className="press justify-self-start" onClick={() => void take(sentId, true)}>
              Take it in as a copy
            </button>
          )}
          <Dialog.Close className="press justify-self-start">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
};
