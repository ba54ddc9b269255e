"use client";
import Link from "next/link";
import type { JobSummary } from "@/contract";
import { useHeldUp } from "../../api/queries";
import { lazyPart, Opens } from "../../controls/lazy-part";
import { VerdictMark } from "../../marks/verdict-mark";
import { useMeQuery, useOpen } from "../../state/me";
import { dbmText, distanceText, type Units } from "../../wording/numbers";
import { VERDICT_ORDER, VERDICT_WORD } from "../../wording/verdicts";
import { worstText } from "../../wording/worst";
import { opensAt } from "../registry";

const ShareDialog = lazyPart(() => import("../people/share-dialog").then((m) => m.ShareDialog));

/** Columns that a phone has no room for; the sheets of the job tell them. */
export const ASIDE = "max-[700px]:hidden";

/** The links of a job, a line each, in the order of their numbers. */
export const LinkTable = ({ summary, units }: { summary: JobSummary; units: Units }) => {
  const { job, links } = summary;
  const { sheets, asks } = useOpen();
  const signIn = useMeQuery().data?.signIn === true;
  const held = useHeldUp(links.some((l) => !l.fresh));
  return (
    <section aria-label={`Links of ${job.name}`}>
      <div className="flex flex-wrap items-baseline gap-x-7 gap-y-1 border-b border-ink px-4 pb-2 pt-4">
        <h2 className="m-0 text-head font-bold">
          {String(job.number).padStart(3, "0")} {job.name}
        </h2>
        {VERDICT_ORDER.map((v) => [v, links.filter((l) => l.fresh && l.verdict === v).length] as const)
          .filter(([, n]) => n > 0)
          .map(([v, n]) => (
            <span key={v} className={`flex items-center gap-2 text-press font-figure v-${v}`}>
              <VerdictMark verdict={v} a={10} />
              {n} {VERDICT_WORD[v]}
            </span>
          ))}
        {links.some((l) => !l.fresh) && (
          <span className="text-press text-ink-2" role="status">
            {links.filter((l) => !l.fresh).length} {held ?? "being worked out"}
          </span>
        )}
        <span className="ml-auto flex gap-5">
          {signIn && asks("share") && (
            <Opens part={ShareDialog} given={{ jobId: job.id, jobName: job.name }} className="press">
              Share
            </Opens>
          )}
          {(sheets === null || sheets.includes("ground")) && (
            <Link prefetch={false} href={`/jobs/${job.id}/ground`} className="press text-ink no-underline">
              Open the ground
            </Link>
          )}
        </span>
      </div>
      {links.length === 0 ? (
        <p className="px-4 text-ink-2">No links yet. Open the ground, place two sites and join them.</p>
      ) : (
        <table className="w-full border-collapse text-line">
          <thead>
            <tr className="border-b border-ink text-left text-note text-ink-2 [&>th]:py-1 [&>th]:pl-4 [&>th]:font-normal">
              <th scope="col" className={ASIDE}>
                No.
              </th>
              <th scope="col">Near end</th>
              <th scope="col">Far end</th>
              <th scope="col" className={`text-right ${ASIDE}`}>
                Length
              </th>
              <th scope="col" className={ASIDE}>
                Gear
              </th>
              <th scope="col">Verdict</th>
              <th scope="col">What is worst</th>
              <th scope="col" className={`text-right ${ASIDE}`}>
                Expected
              </th>
              <th scope="col" className={ASIDE}>
                Stage
              </th>
            </tr>
          </thead>
          <tbody>
            {links.map((l) => (
              <tr key={l.linkId} className="h-[26px] border-b border-rule [&>td]:pl-4">
                <td className={`font-mono text-note ${ASIDE}`}>{String(l.number).padStart(2, "0")}</td>
                <td className="text-near">{l.nearName}</td>
                <td>
                  <Link
                    prefetch={false}
                    href={opensAt({ jobId: job.id, links, linkId: l.linkId }, "section", sheets) ?? "/"}
                    className="text-far underline decoration-1 underline-offset-4"
                  >
                    {l.farName}
                    {l.label === "" ? "" : `, ${l.label}`}
                  </Link>
                </td>
                <td className={`text-right ${ASIDE}`}>{distanceText(units, l.pathM)}</td>
                <td className={ASIDE}>{l.gear}</td>
                <td>
                  {l.fresh ? (
                    <span className={`flex items-center gap-2 font-figure v-${l.verdict}`}>
                      <VerdictMark verdict={l.verdict} a={9} />
                      {VERDICT_WORD[l.verdict]}
                    </span>
                  ) : (
                    <span className="text-ink-2">{held ?? "being worked out"}</span>
                  )}
                </td>
                <td className={l.verdict === "short" ? "font-figure text-short-figure" : ""}>{l.fresh ? worstText(l, units) : ""}</td>
                <td className={`text-right ${ASIDE}`}>{!l.fresh ? "" : l.levelDbm === null ? "none" : dbmText(l.levelDbm)}</td>
                <td className={`pr-4 ${ASIDE}`}>{l.stage}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
};
