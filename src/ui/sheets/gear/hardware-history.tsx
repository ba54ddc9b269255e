"use client";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import type { HardwareStepDto } from "@/contract";
import { getJson, postJson } from "../../api/client";
import { keys } from "../../api/queries";
import { FormTrouble, useSubmit } from "../../controls/use-submit";

const PATH = "/api/hardware/history";
const MOST_NAMES = 3;

const wordsOf = (s: HardwareStepDto): string => {
  const more = s.names.length - MOST_NAMES;
  const names = `${s.names.slice(0, MOST_NAMES).join(", ")}${more > 0 ? ` and ${more} more` : ""}`;
  return `${names} ${s.made ? "added" : "changed"}`;
};

const when = (iso: string): string =>
  new Date(iso).toLocaleString("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" });

/** Edits of the catalogue, newest first. It serves all jobs, so they are not in the history of one. */
export const HardwareHistory = () => {
  const client = useQueryClient();
  const steps = useQuery({ queryKey: keys.hardwareSteps, queryFn: ({ signal }) => getJson<HardwareStepDto[]>(PATH, signal) });
  const sending = useSubmit();
  const step = (id: string): void =>
    void sending.run(async () => {
      client.setQueryData(keys.hardwareSteps, await postJson<HardwareStepDto[]>(PATH, { step: id }));
      await client.invalidateQueries({ queryKey: keys.hardware });
    });
  if (steps.data === undefined || steps.data.length === 0) return null;
  return (
    <section aria-label="Edits of the catalogue" className="mt-6 border-t border-ink pt-3">
      <h2 className="m-0 mb-1 text-press font-bold">Edits of the catalogue</h2>
      <FormTrouble of={sending} />
      <ol className="m-0 list-none p-0">
        {steps.data.map((s) => (
          <li key={s.step} className="flex items-baseline justify-between gap-3 border-b border-rule py-1">
            <span>
              <span className={s.undone ? "line-through" : ""}>{wordsOf(s)}</span>
              <span className="cap block">
                {when(s.at)}, {s.mine ? "here" : "in another browser"}
              </span>
            </span>
            <button type="button" className="press flex-none text-note" disabled={sending.busy} onClick={() => step(s.step)}>
              {s.undone ? "Do again" : "Take back"}
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
};
