"use client";
import type { Moment, Pair } from "@/core/load";
import { VerdictMark } from "../../marks/verdict-mark";
import { rateText } from "../../wording/gear";
import { cutMiddle } from "../../wording/names";
import { VERDICT_WORD } from "../../wording/verdicts";
import { type LoadView, moreAt, type ShownPlace } from "./load-view";

const MOST_ROWS = 60;

/** What one more device asks. */
export interface MoreDevice {
  readonly name: string;
  readonly each: Pair;
  readonly talksTo: "feed" | "recorder";
}

/** Every place in the air and whatever else is full or filling, the fullest first. */
export const PlaceList = ({
  view,
  rows,
  moment,
  chosen,
  more,
  choose,
}: {
  view: LoadView;
  rows: readonly ShownPlace[];
  moment: Moment;
  chosen: string | null;
  more: MoreDevice;
  choose: (placeId: string) => void;
}) => (
  <table className="w-full border-collapse text-line" data-testid="places">
    <thead>
      <tr className="text-label text-ink-2">
        <th scope="col" className="text-left font-normal">
          Fullest first
        </th>
        <th scope="col" className="text-right font-normal" colSpan={2}>
          asked, fits
        </th>
        <th scope="col" className="pl-2 text-right font-normal">
          more fit
        </th>
      </tr>
    </thead>
    <tbody>
      {rows.slice(0, MOST_ROWS).map((p) => {
        const { askedMbps, fitsMbps } = p.figures;
        const share = Number.isFinite(fitsMbps) && fitsMbps > 0 ? askedMbps / fitsMbps : 0;
        const fit = moreAt(view, moment, p.place, more.each, more.talksTo);
        return (
          <tr key={p.id} className={`border-t border-rule ${p.id === chosen ? "bg-band" : ""}`}>
            <td className="w-full py-0.5 pr-2">
              <button
                type="button"
                className="flex min-h-6 w-full items-center gap-1.5 text-left"
                aria-pressed={p.id === chosen}
                onClick={() => choose(p.id)}
              >
                <VerdictMark verdict={p.verdict} a={7} />
                <span className={`font-figure v-${p.verdict}`}>
                  <span className="sr-only">{VERDICT_WORD[p.verdict]}: </span>
                  {cutMiddle(p.short, 30)}
                </span>
              </button>
            </td>
            <td className="w-[52px]">
              <span className="relative block h-2.5 w-[50px] border border-ink" aria-hidden="true">
                <span
                  className={`absolute inset-y-0 left-0 ${share > 1 ? "bg-short" : "bg-zone"}`}
                  style={{ width: `${Math.min(100, share * 100)}%` }}
                />
              </span>
            </td>
            <td className="whitespace-nowrap pl-2 text-right font-mono">
              {rateText(askedMbps)} of {Number.isFinite(fitsMbps) ? rateText(fitsMbps) : "?"}
            </td>
            <td className="whitespace-nowrap pl-2 text-right font-mono">
              {fit === null ? "" : fit.least === fit.most ? countOf(fit.least) : `${countOf(fit.least)} to ${countOf(fit.most)}`}
            </td>
          </tr>
        );
      })}
    </tbody>
  </table>
);

const countOf = (n: number): string => (Number.isFinite(n) ? String(n) : "any");
