"use client";
import { useQueryClient } from "@tanstack/react-query";
import type { ReactNode } from "react";
import type { BecomesDto } from "@/contract";
import { deleteAt } from "../../api/client";
import { useJobs } from "../../api/queries";
import { ScrollRegion } from "../../controls/scroll-region";
import { useSubmit } from "../../controls/use-submit";
import { SHEET_WORD } from "../../wording/people";

/* What the tables of people, phones and tokens are made of. */

export const when = (iso: string | null): string =>
  iso === null ? "not yet" : new Date(iso).toLocaleString("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" });

const HEAD = "border-b border-ink text-left text-note text-ink-2 [&>th]:py-1.5 [&>th]:pr-4 [&>th]:font-normal";
export const ROW = "border-b border-rule align-top [&>td]:py-1.5 [&>td]:pr-4";

/** A table that scrolls by itself where it is wider than the screen. @param last what its last column does, said to who cannot see it. */
export const FirmTable = ({
  label,
  heads,
  last,
  children,
}: {
  label: string;
  heads: readonly string[];
  last?: string;
  children: ReactNode;
}) => (
  <ScrollRegion label={label} className="mt-3 max-w-[1100px]">
    <table className="w-full border-collapse">
      <thead>
        <tr className={HEAD}>
          {heads.map((head) => (
            <th key={head} scope="col">
              {head}
            </th>
          ))}
          {last !== undefined && (
            <th scope="col">
              <span className="sr-only">{last}</span>
            </th>
          )}
        </tr>
      </thead>
      <tbody>{children}</tbody>
    </table>
  </ScrollRegion>
);

/** What is open to somebody, in words. */
export const useOpenWords = (): ((b: BecomesDto) => string) => {
  const { data } = useJobs();
  const nameOf = new Map((data ?? []).map(({ job }) => [job.id, job.name]));
  return (b) => {
    const jobs =
      b.jobIds === null ? "all jobs" : b.jobIds.length === 0 ? "no job" : b.jobIds.map((id) => nameOf.get(id) ?? "a job").join(", ");
    return b.sheets === null ? jobs : `${b.sheets.map((s) => SHEET_WORD[s]).join(", ")} of ${jobs}`;
  };
};

/** Ends rows of a list one at a time, and reads the list again. @param key where the browser keeps it. */
export const useEnding = (key: readonly string[]) => {
  const ending = useSubmit();
  const client = useQueryClient();
  const end = (address: string): void =>
    void ending.run(async () => {
      await deleteAt(address);
      await client.invalidateQueries({ queryKey: key });
    });
  return { ending, end };
};

/** The press that ends one. @param whose said to who cannot see the row. */
export const EndPress = ({ by, at, word, whose }: { by: ReturnType<typeof useEnding>; at: string; word: string; whose: string }) => (
  <button type="button" className="press" disabled={by.ending.busy} onClick={() => by.end(at)}>
    {word}
    <span className="sr-only"> {whose}</span>
  </button>
);
