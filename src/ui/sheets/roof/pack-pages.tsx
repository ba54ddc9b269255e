"use client";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { PackDto } from "@/contract";
import { getJson } from "../../api/client";
import { PageDrawing } from "../../drawing/page-drawing";
import { Trouble } from "../../frame/trouble";
import { usePreferences } from "../../state/preferences";
import { pagesPath } from "./use-roof-copy";

/** The pages of the pack on the phone: drawn as on paper, to be moved under the finger. */
export const PackPages = ({ jobId, linkId, letter }: { jobId: string; linkId: string; letter: "A" | "B" }) => {
  const { units } = usePreferences();
  const [open, setOpen] = useState(false);
  const [at, setAt] = useState<number | null>(null);
  const pack = useQuery({
    queryKey: ["roof-pages", jobId, linkId, units],
    queryFn: ({ signal }) => getJson<PackDto>(pagesPath(jobId, linkId, units), signal),
    enabled: open,
    staleTime: 60_000,
  });
  if (!open)
    return (
      <button type="button" className="press mt-2 block min-h-12" onClick={() => setOpen(true)}>
        Pages of the pack: what it sees, table, wiring
      </button>
    );
  const pages = pack.data?.pages ?? [];
  const wanted = pages.findIndex((p) => p.name.startsWith(`${letter},`));
  const shown = at ?? Math.max(0, wanted);
  const page = pages[shown];
  if (page === undefined) return <Trouble error={pack.error ?? pack.failureReason} waiting="Laying out the pages." />;
  return (
    <div className="mt-2">
      <div className="flex items-center justify-between">
        <button type="button" className="press min-h-12 px-2" disabled={shown === 0} onClick={() => setAt(shown - 1)}>
          Before
        </button>
        <span className="text-press">
          {shown + 1} of {pages.length}
        </span>
        <button type="button" className="press min-h-12 px-2" disabled={shown === pages.length - 1} onClick={() => setAt(shown + 1)}>
          Next
        </button>
      </div>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by keys */}
      <section aria-label="The page" tabIndex={0} className="-mx-4 overflow-auto border-y border-ink">
        <div className="w-[760px]">
          <PageDrawing page={page} label={`Page ${shown + 1} of ${pages.length}: ${page.name}`} />
        </div>
      </section>
      <p className="m-0 text-press">made {pack.data?.madeAt}</p>
    </div>
  );
};
