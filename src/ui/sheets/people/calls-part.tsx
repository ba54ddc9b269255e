"use client";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { WebhookDto } from "@/contract";
import { getJson, postJson } from "../../api/client";
import { lazyPart, Opens } from "../../controls/lazy-part";
import { FormTrouble, useSubmit } from "../../controls/use-submit";
import { Trouble } from "../../frame/trouble";
import { callState } from "../../wording/calls";
import { WEBHOOKS } from "./people-keys";
import { EndPress, FirmTable, ROW, useEnding, useOpenWords, when } from "./people-table";

const CallDialog = lazyPart(() => import("./call-dialog").then((m) => m.CallDialog));
const REREAD_MS = 10_000;

/** Calls an address now, and says what came of it. */
const TryPress = ({ hook, onTold }: { hook: WebhookDto; onTold: (words: string) => void }) => {
  const client = useQueryClient();
  const trying = useSubmit();
  return (
    <button
      type="button"
      className="press"
      disabled={trying.busy}
      onClick={() =>
        void trying.run(async () => {
          const { answer } = await postJson<{ answer: string }>(`/api/webhooks/${hook.id}/try`, {});
          onTold(`${hook.name}: ${answer}.`);
          await client.invalidateQueries({ queryKey: WEBHOOKS });
        })
      }
    >
      {trying.busy ? "Calling" : "Call it now"}
      <span className="sr-only"> {hook.name}</span>
    </button>
  );
};

/** Programs that are called when something changes: where each is, and whether it heard the last of it. */
export const CallsPart = () => {
  const openWords = useOpenWords();
  const ending = useEnding(WEBHOOKS);
  const [told, setTold] = useState("");
  const { data, error } = useQuery({
    queryKey: WEBHOOKS,
    queryFn: ({ signal }) => getJson<WebhookDto[]>("/api/webhooks", signal),
    refetchInterval: REREAD_MS,
  });
  if (data === undefined) return <Trouble error={error} waiting="Reading which programs are called." />;
  return (
    <section aria-label="Programs that are called">
      <h2 className="mb-1 mt-8 text-part font-bold">Calls: programs that are told</h2>
      <p className="mt-0 mb-2 max-w-[76ch]">
        An address that is called a moment after something changes: with what changed, never with what it is now. Each call is signed; one
        that is not taken is made again, with the same number, for the better part of a day.
      </p>
      <Opens part={CallDialog} given={{}} className="press">
        Have a program called
      </Opens>
      <FormTrouble of={ending.ending} />
      <p role="status" className="m-0 mt-1 min-h-[24px]">
        {told}
      </p>
      {data.length === 0 ? (
        <p className="m-0 text-ink-2">None is called yet.</p>
      ) : (
        <FirmTable label="Calls" heads={["For", "Address", "Of", "Last taken", "How it stands"]} last="Do">
          {data.map((h) => (
            <tr key={h.id} className={ROW}>
              <td className="font-figure">{h.name}</td>
              <td className="break-all font-mono text-line">{h.url}</td>
              <td>{openWords({ role: "viewer", jobIds: h.jobIds === null ? null : [...h.jobIds], sheets: null })}</td>
              <td className="whitespace-nowrap">{when(h.lastOkAt)}</td>
              <td className={h.paused ? "text-short-figure" : ""}>{callState(h, when)}</td>
              <td>
                <div className="flex gap-4 whitespace-nowrap">
                  <TryPress hook={h} onTold={setTold} />
                  <EndPress by={ending} at={`/api/webhooks/${h.id}`} word="End" whose={`the calls for ${h.name}`} />
                </div>
              </td>
            </tr>
          ))}
        </FirmTable>
      )}
    </section>
  );
};
