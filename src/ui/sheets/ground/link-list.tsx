"use client";
import Link from "next/link";
import type { GroundTold, LinkVerdict, SiteDto } from "@/contract";
import { VerdictMark } from "../../marks/verdict-mark";
import { cutMiddle } from "../../wording/names";
import { bearingText, distanceText, lengthText, type Units } from "../../wording/numbers";
import { troubleText } from "../../wording/troubles";
import { VERDICT_ORDER, VERDICT_WORD } from "../../wording/verdicts";

/** The links of the job, worst first; the chosen one inverted. */
export const LinkList = ({
  verdicts,
  selectedId,
  units,
  choose,
}: {
  verdicts: readonly LinkVerdict[];
  selectedId: string | null;
  units: Units;
  choose: (linkId: string) => void;
}) => (
  <div>
    {VERDICT_ORDER.map((v) => {
      const rows = verdicts.filter((l) => l.verdict === v);
      if (rows.length === 0) return null;
      return (
        <section key={v} aria-label={VERDICT_WORD[v]} className="border-b border-rule py-1.5">
          <h3 className={`m-0 flex items-center gap-2 px-3.5 text-body font-bold v-${v}`}>
            <VerdictMark verdict={v} a={10} />
            {VERDICT_WORD[v]}
            <span className="ml-auto font-normal text-ink">{rows.length}</span>
          </h3>
          {rows.map((l) => (
            <button
              key={l.linkId}
              type="button"
              aria-pressed={l.linkId === selectedId}
              onClick={() => choose(l.linkId)}
              className={`flex w-full justify-between gap-2 px-3.5 py-[3px] text-left ${l.linkId === selectedId ? "bg-ink font-bold text-paper" : ""}`}
            >
              <span className="truncate pl-7">
                {cutMiddle(l.farName, 20)}
                {l.label === "" ? "" : `, ${l.label}`}
              </span>
              <span className="flex-none">{l.fresh ? distanceText(units, l.pathM) : "being worked out"}</span>
            </button>
          ))}
        </section>
      );
    })}
  </div>
);

/** Facts of the chosen link, and the way to its section. */
export const ChosenLink = ({
  verdict,
  near,
  far,
  declinationDeg,
  units,
  jobId,
  told,
  onTell,
  onTakeAway,
}: {
  verdict: LinkVerdict;
  near: SiteDto;
  far: SiteDto;
  declinationDeg: number | null;
  units: Units;
  jobId: string;
  told: GroundTold | null;
  onTell: () => void;
  onTakeAway: () => void;
}) => {
  const { worst } = verdict;
  const own = verdict.clearanceVerdict !== verdict.verdict && verdict.trouble !== null;
  return (
    <section aria-label="Chosen link" className="border-t border-ink px-3.5 pb-3 pt-2.5">
      <div className="flex items-baseline justify-between gap-2">
        <h3 className="m-0 truncate text-part font-bold text-far">
          {far.name}
          {verdict.label === "" ? "" : <span className="font-said text-ink">, {verdict.label}</span>}
        </h3>
        <span className={`flex-none text-name font-verdict ${verdict.fresh ? `v-${verdict.verdict}` : "text-ink-2"}`}>
          {!verdict.fresh
            ? "being worked out"
            : own
              ? VERDICT_WORD[verdict.verdict]
              : worst === null
                ? "Unknown"
                : `${lengthText(units, Math.abs(worst.missM), Math.abs(worst.missM) >= 20 ? 0 : 1)} ${worst.missM > 0 ? "short" : "spare"}`}
        </span>
      </div>
      <p className="cap m-0 mb-1">
        from {near.name}
        {own && verdict.trouble !== null ? `; ${troubleText(verdict.trouble)}` : ""}
        {own && worst !== null
          ? `; the path ${lengthText(units, Math.abs(worst.missM), Math.abs(worst.missM) >= 20 ? 0 : 1)} ${worst.missM > 0 ? "short" : "spare"}`
          : ""}
        {worst?.name == null ? "" : `, ${worst.name}`}
      </p>
      <table className="w-full text-line">
        <thead>
          <tr className="text-right">
            <th scope="col" aria-label="Measure" />
            <th scope="col" className="text-near">
              near
            </th>
            <th scope="col" className="text-far">
              far
            </th>
          </tr>
        </thead>
        <tbody className="[&_td]:text-right [&_td]:font-mono [&_th]:text-left [&_th]:font-normal [&_th]:text-ink-2">
          <tr>
            <th scope="row">True</th>
            <td>{bearingText(verdict.nearBearingDeg)}</td>
            <td>{bearingText(verdict.farBearingDeg)}</td>
          </tr>
          {declinationDeg !== null && (
            <tr>
              <th scope="row">Magnetic</th>
              <td>{bearingText(verdict.nearBearingDeg - declinationDeg + 360)}</td>
              <td>{bearingText(verdict.farBearingDeg - declinationDeg + 360)}</td>
            </tr>
          )}
        </tbody>
      </table>
      {told !== null && (
        <p className="cap m-0 mt-1">Ground told by hand: {told.kind === "level" ? "level" : `${told.points.length} heights`}.</p>
      )}
      <div className="mt-2 flex flex-wrap gap-x-5 gap-y-1.5">
        <Link prefetch={false} href={`/jobs/${jobId}/section/${verdict.linkId}`} className="press text-ink no-underline">
          Open section
        </Link>
        <button type="button" className="press" onClick={onTell}>
          Its ground
        </button>
        <button type="button" className="press" onClick={onTakeAway}>
          Take link away
        </button>
      </div>
    </section>
  );
};
