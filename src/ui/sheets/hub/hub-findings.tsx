"use client";
import Link from "next/link";
import { useMemo } from "react";
import { airVerdictOf, type LinkVerdict } from "@/contract";
import { askedOf, type JudgedRemote } from "@/core/hub";
import { ScrollRegion } from "../../controls/scroll-region";
import { VerdictMark } from "../../marks/verdict-mark";
import { figure } from "../../wording/numbers";
import { VERDICT_WORD } from "../../wording/verdicts";
import { airSentence as airSentenceOf } from "../section/air-finding";
import { MOST_TURNED, turnedBest } from "./hub-judge";
import { HubMembers } from "./hub-members";
import { sectorName } from "./hub-start";
import { airSentence, remoteSentence } from "./hub-words";
import { SectorMends } from "./sector-mends";
import type { OpenHub } from "./use-open-hub";

/** What is wrong with the hub and what mends it: the worst first. */
export const HubFindings = ({
  open,
  say,
  verdicts,
}: {
  open: OpenHub;
  say: (error: unknown) => void;
  verdicts: readonly LinkVerdict[];
}) => {
  const { judged, fields, sector, jobId, drag, hardware, drawn } = open;
  const pattern = judged.patterns[sector] ?? null;
  const own = judged.sectors[sector] ?? null;
  const remotes = judged.remotes[sector];
  // Looked for when nothing moves: it tries every axis and tilt.
  const best = useMemo(
    () =>
      drag || drawn !== null || pattern === null || own === null || remotes === undefined || remotes.length === 0
        ? null
        : turnedBest(remotes, pattern, own.air.mayUse),
    [drag, drawn, pattern, own, remotes],
  );
  const s = fields.sectors[sector];
  const hangs = new Set(fields.remotes.map((r) => r.linkId));
  const aired = verdicts.flatMap((v) => {
    const found = v.inAir === null || !hangs.has(v.linkId) ? null : airVerdictOf(v.inAir);
    return found === null ? [] : [{ ...v, aired: found }];
  });
  const takes = hardware.radios.find((r) => r.id === s?.radioId)?.maxRemotes;
  const all = judged.sectors.flatMap((j, i) =>
    j === null ? [] : j.remotes.map((r) => ({ r, i, words: remoteSentence(r, sectorName(fields.sectors[i]!, fields.sectors)) })),
  );
  const found = all.filter((x) => x.words !== null).sort((a, b) => order(b.r) - order(a.r));
  const turns =
    best !== null &&
    s !== undefined &&
    (Math.abs(best.azimuthDeg - (s.azimuthDeg ?? best.azimuthDeg)) > 0.01 || Math.abs(best.tiltDeg - (s.tiltDeg ?? best.tiltDeg)) > 0.01);
  const leftNames = best === null || remotes === undefined ? [] : best.found.leftOver.map((i) => remotes[i]!.name);
  return (
    <ScrollRegion label="Findings" className="beside border-l border-ink px-3.5 py-2.5 text-line">
      <h2 className="m-0 border-b border-ink pb-1.5 text-body font-bold">Findings</h2>
      {judged.sectors.map((j, i) => {
        const words = j === null || j.airVerdict === "clear" ? null : airSentence(j, sectorName(fields.sectors[i]!, fields.sectors));
        return words === null ? null : (
          <div key={fields.sectors[i]!.id} className="mt-2.5 border-b border-rule pb-2">
            <div className="flex items-center gap-1.5 font-bold">
              <VerdictMark verdict="short" a={8} />
              <span className="v-short">{VERDICT_WORD.short}</span>
            </div>
            <p className="m-0 mt-0.5">{words}</p>
          </div>
        );
      })}
      {found.length === 0 && judged.unjudged.length === 0 && (
        <p className="m-0 mt-2">Every remote lies in its beam and keeps what it asks.</p>
      )}
      {found.map(({ r, words }) => (
        <div key={r.linkId} className="mt-2.5 border-b border-rule pb-2">
          <div className="flex items-center gap-1.5 font-bold">
            <VerdictMark verdict={r.verdict} a={8} />
            <span className={`v-${r.verdict}`}>{VERDICT_WORD[r.verdict]}</span>
          </div>
          <p className="m-0 mt-0.5">{words}</p>
          <p className="m-0 mt-1 flex flex-wrap gap-x-3 gap-y-2 [&>*]:min-h-6 [&>*]:leading-6">
            <button type="button" className="press text-line" onClick={() => open.chooseRemote(r.linkId)}>
              Look at it
            </button>
            <Link className="press text-line" href={`/jobs/${jobId}/section/${r.linkId}`}>
              Its section
            </Link>
            <Link className="press text-line" href={`/jobs/${jobId}/gear/${r.linkId}`}>
              A pair of its own
            </Link>
            {open.better
              .filter((b) => b.linkId === r.linkId)
              .map((b) => {
                const to = sectorName(fields.sectors.find((x) => x.id === b.sectorId)!, fields.sectors);
                return (
                  <button
                    key={b.sectorId}
                    type="button"
                    className="press text-line"
                    onClick={() =>
                      open.setDrawn({
                        id: `sector:${r.linkId}`,
                        words: `${r.name} hung on the ${to} sector`,
                        fields: { remotes: b.remotes },
                      })
                    }
                  >
                    Hang it on the {to}
                  </button>
                );
              })}
          </p>
        </div>
      ))}
      {judged.unjudged.length > 0 && (
        <p className="m-0 mt-2.5">
          {judged.unjudged.length} {judged.unjudged.length === 1 ? "link is" : "links are"} not judged: a path is still being sampled, or a
          radio is not in the catalogue any more.
        </p>
      )}
      <SectorMends
        open={open}
        turn={turns ? { azimuthDeg: best.azimuthDeg, tiltDeg: best.tiltDeg, worstDb: best.found.worstDb, leftOver: leftNames } : null}
      />
      {takes !== undefined && remotes !== undefined && (
        <p className={`m-0 mt-2.5 ${remotes.length > takes ? "v-short font-figure" : ""}`} data-testid="takes">
          {remotes.length > takes ? "More hang on it than its sheet says it takes" : "Its sheet says that it takes"}: {figure(takes)}{" "}
          remotes; {figure(remotes.length)} hang on it.
        </p>
      )}
      {best === null && remotes !== undefined && remotes.length > 0 && !drag && drawn === null && (
        <p className="cap m-0 mt-2.5">
          {remotes.every((r) => askedOf(r) === 0)
            ? "Nothing is asked of its links yet: say under Brief or Gear what they must carry."
            : remotes.length > MOST_TURNED
              ? `The best axis and tilt are looked for with up to ${MOST_TURNED} remotes on a sector.`
              : "No axis and no tilt of this sector serves any of its remotes."}
        </p>
      )}
      {aired.map((v) => (
        <div key={v.linkId} className="mt-2.5 border-b border-rule pb-2" data-testid="in-air">
          <div className="flex items-center gap-1.5 font-bold">
            <VerdictMark verdict={v.aired.verdict} a={8} />
            <span className={`v-${v.aired.verdict}`}>{VERDICT_WORD[v.aired.verdict]}</span>
          </div>
          <p className="m-0 mt-0.5">
            {v.nearName} to {v.farName}: {lowered(airSentenceOf(v.inAir!, v.aired.code))} Of its rate{" "}
            {figure(Math.min(...v.inAir!.left) * 100)} % is left.
          </p>
        </div>
      ))}
      {aired.length > 0 && (
        <p className="m-0 mt-1">
          <Link className="press min-h-6 leading-6" href={`/jobs/${jobId}/air`}>
            07 Air
          </Link>{" "}
          frees them.
        </p>
      )}
      <HubMembers open={open} say={say} />
      <p className="cap m-0 mt-3">
        Levels by the same core as a pair. The air is judged for remotes that hold; what others leave of it is judged under 07 Air.
      </p>
    </ScrollRegion>
  );
};

const lowered = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

const order = (r: JudgedRemote): number => ["clear", "tight", "unknown", "short"].indexOf(r.verdict) * 100 + r.place.byDeg;
