"use client";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import Link from "next/link";
import { useEffect, useRef, useState } from "react";
import type { JobBundle, LinkDto, PackDto, PackFor } from "@/contract";
import type { Paper } from "@/core/page";
import { bodyOf, getJson, postForFile } from "../../api/client";
import { useVerdicts } from "../../api/queries";
import { useServedFile } from "../../api/use-served-file";
import { Choice } from "../../controls/field";
import { useKeys } from "../../controls/use-keys";
import { PageDrawing } from "../../drawing/page-drawing";
import { useSize } from "../../drawing/use-size";
import { Sheet } from "../../frame/sheet";
import { Trouble } from "../../frame/trouble";
import { VerdictMark } from "../../marks/verdict-mark";
import { useJobHistory } from "../../state/job-history";
import { usePreferences } from "../../state/preferences";
import { errorSentence } from "../../wording/errors";
import { VERDICT_WORD } from "../../wording/verdicts";
import { useJobIndex } from "../job-index";
import { aboutCell, jobStrip, withVerdict } from "../job-strip";
import { LinkChoice } from "../link-sheet";
import { SHEETS } from "../registry";
import { NARROW_PX } from "../section/narrow";
import { SheetHead } from "../sheet-head";
import { packKey } from "./pack-key";

const FOR_WORDS: Readonly<Record<PackFor, string>> = {
  installer: "who goes there",
  customer: "the customer",
  permission: "who has to agree",
};
const MOST_POINTS = 12;

/** The pages of a link's pack as they will be printed, and what is open in the plan that they are printed from. */
export const PackOpen = ({ job, link, choose }: { job: JobBundle; link: LinkDto; choose: (linkId: string) => void }) => {
  const jobId = job.job.id;
  const { units } = usePreferences();
  const [isFor, setFor] = useState<PackFor>("installer");
  const [paper, setPaper] = useState<Paper>(units === "imperial" ? "letter" : "a4");
  const [at, setAt] = useState(0);
  const verdicts = useVerdicts(jobId);
  const index = useJobIndex(jobId, verdicts.data, link.id);
  const client = useQueryClient();
  const remake = (): void => void client.invalidateQueries({ queryKey: packKey(jobId) });
  const history = useJobHistory(jobId, () => undefined, remake);
  // What the job's air and load make of the link comes a little after an edit: its pages follow.
  const told = useRef(verdicts.data);
  useEffect(() => {
    if (told.current !== undefined && told.current !== verdicts.data) void client.invalidateQueries({ queryKey: packKey(jobId) });
    told.current = verdicts.data;
  }, [verdicts.data, client, jobId]);
  const file = useServedFile();
  const [ref, size] = useSize<HTMLDivElement>();
  const narrow = size.width > 0 && size.width < NARROW_PX;
  const asked = `for=${isFor}&paper=${paper}&units=${units}`;
  const pack = useQuery({
    queryKey: [...packKey(jobId), link.id, asked],
    queryFn: ({ signal }) => getJson<PackDto>(`/api/jobs/${jobId}/pack?link=${link.id}&${asked}`, signal),
  });
  const pages = pack.data?.pages ?? [];
  const shown = Math.min(at, Math.max(0, pages.length - 1));
  const page = pages[shown];
  const turn = (by: number) => () => {
    setAt(Math.max(0, Math.min(pages.length - 1, shown + by)));
  };
  useKeys({ PageDown: turn(1), PageUp: turn(-1) });
  const verdict = pack.data?.verdict ?? "unknown";
  const nameOf = (siteId: string): string => job.sites.find((s) => s.id === siteId)?.name ?? "a site that is gone";
  const take = (whole: boolean): void =>
    void file.take(whole ? "Writing the pack of the whole job" : "Writing the pack", (signal) =>
      postForFile(`/api/jobs/${jobId}/pack?${asked}${whole ? "" : `&link=${link.id}`}`, signal),
    );
  const first = pack.data?.points[0];
  return (
    <Sheet
      rows={withVerdict(index, "pack", pack.data === undefined ? null : verdict)}
      jobId={jobId}
      of={SHEETS.pack}
      undo={history}
      actions={[
        { name: "Pack as PDF", run: () => take(false) },
        { name: "Pack of the whole job as PDF", run: () => take(true) },
      ]}
      strip={jobStrip(
        job.job,
        aboutCell("Link", pack.data === undefined ? null : verdict, `${nameOf(link.nearSiteId)} to ${nameOf(link.farSiteId)}`),
        { kind: "saved", at: null },
        history.last,
      )}
    >
      <div className="panes grid h-full min-h-0 grid-cols-[minmax(0,1fr)_248px] min-[1500px]:grid-cols-[minmax(0,1fr)_288px]">
        <div ref={ref} className="flex min-h-0 min-w-0 flex-col">
          <SheetHead verdict={verdict} word={pack.data === undefined ? "Open" : VERDICT_WORD[verdict]} narrow={narrow}>
            <div className="flex flex-wrap items-start justify-between gap-x-6">
              <div className="min-w-0">
                <h1 className="m-0 text-head font-bold leading-6">
                  <span className="text-near">{nameOf(link.nearSiteId)}</span> to <span className="text-far">{nameOf(link.farSiteId)}</span>
                </h1>
                {first !== undefined && (
                  <p
                    className={`m-0 line-clamp-2 max-w-[520px] text-line font-heading leading-[18px] v-${first.verdict}`}
                    data-testid="headline-trouble"
                  >
                    {first.words}
                  </p>
                )}
                <LinkChoice job={job} linkId={link.id} choose={choose} />
              </div>
              {pages.length > 0 && (
                <div className="text-right">
                  <div className="figure whitespace-nowrap text-[42px] leading-[42px]" data-testid="pages">
                    {pages.length} {pages.length === 1 ? "page" : "pages"}
                  </div>
                  <p className="m-0 text-line">made {pack.data?.madeAt}</p>
                </div>
              )}
            </div>
          </SheetHead>
          <div className="flex flex-wrap items-end gap-x-5 gap-y-1 border-y border-rule px-4 py-1.5">
            <Choice label="For" value={isFor} onChange={(e) => setFor(e.target.value as PackFor)}>
              {Object.entries(FOR_WORDS).map(([key, words]) => (
                <option key={key} value={key}>
                  {words}
                </option>
              ))}
            </Choice>
            <Choice label="Paper" value={paper} onChange={(e) => setPaper(e.target.value as Paper)}>
              <option value="a4">A4</option>
              <option value="letter">Letter</option>
            </Choice>
            <button type="button" className="press font-bold min-h-7" disabled={file.busy !== null} onClick={() => take(false)}>
              Take the PDF out
            </button>
            <button type="button" className="press min-h-7" disabled={file.busy !== null} onClick={() => take(true)}>
              All {job.links.length} links
            </button>
            <div className="min-w-[180px] flex-1">{file.notice}</div>
          </div>
          {page !== undefined && pack.failureReason !== null && (
            <p role="status" className="m-0 border-b border-rule px-4 py-1 v-unknown" data-testid="not-anew">
              These are the pages of {pack.data?.madeAt}: {errorSentence(bodyOf(pack.failureReason))}
            </p>
          )}
          {page === undefined ? (
            <Trouble error={pack.error ?? pack.failureReason} waiting="Laying out the pages." />
          ) : (
            <>
              <nav aria-label="Pages" className="flex flex-wrap gap-x-3 gap-y-0.5 border-b border-rule px-4 py-1">
                {pages.map((p, i) => (
                  <button
                    key={p.name}
                    type="button"
                    aria-current={i === shown ? "page" : undefined}
                    className={`press min-h-6 px-1 text-line ${i === shown ? "bg-ink text-paper no-underline" : ""}`}
                    onClick={() => setAt(i)}
                  >
                    {p.name}
                  </button>
                ))}
              </nav>
              {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by keys */}
              <section aria-label="The page" tabIndex={0} className="min-h-0 flex-1 overflow-auto bg-shade-2 p-4">
                <div className="mx-auto max-w-[860px] border border-ink">
                  <PageDrawing page={page} label={`Page ${shown + 1} of ${pages.length}: ${page.name}`} />
                </div>
              </section>
            </>
          )}
        </div>
        <aside aria-label="Open points" className="min-h-0 overflow-auto border-l border-rule px-3 pb-4">
          <h2 className="mb-1 mt-3 text-part font-bold">Open in the plan</h2>
          {pack.data !== undefined && pack.data.points.length === 0 && <p className="m-0">Nothing is open.</p>}
          {(pack.data?.points ?? []).slice(0, MOST_POINTS).map((p) => (
            <div key={p.words} className="mt-2.5 border-b border-rule pb-2">
              <div className="flex items-center gap-1.5 font-bold">
                <VerdictMark verdict={p.verdict} a={8} />
                <span className={`v-${p.verdict}`}>{VERDICT_WORD[p.verdict]}</span>
              </div>
              <p className="m-0 mt-0.5">{p.words}</p>
            </div>
          ))}
          {(pack.data?.points.length ?? 0) > MOST_POINTS && (
            <p className="mt-2">{(pack.data?.points.length ?? 0) - MOST_POINTS} more stand on the cover.</p>
          )}
          <p className="mb-0 mt-3 flex flex-wrap gap-x-4">
            {(["section", "wiring", "kit"] as const).map((key) => (
              <Link key={key} prefetch={false} className="press" href={`/jobs/${jobId}/${key}/${link.id}`}>
                {SHEETS[key].number} {SHEETS[key].name}
              </Link>
            ))}
          </p>
          <p className="cap mt-3">
            Paper knows nothing of what changes after it was printed. The day on its foot says which plan it is. Local codes, the regulator
            and qualified people decide.
          </p>
        </aside>
      </div>
    </Sheet>
  );
};
