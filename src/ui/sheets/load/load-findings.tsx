"use client";
import Link from "next/link";
import type { ReactNode } from "react";
import { ScrollRegion } from "../../controls/scroll-region";
import { VerdictMark } from "../../marks/verdict-mark";
import { rateText } from "../../wording/gear";
import { VERDICT_ORDER, VERDICT_WORD } from "../../wording/verdicts";
import type { TriedMend } from "./load-mends";
import type { LoadView, ShownPlace } from "./load-view";
import { freeText, fullYearText } from "./load-words";

/** An end whose link is asked to carry other than what passes it. */
export interface Mismatch {
  readonly linkId: string;
  readonly name: string;
  readonly asked: readonly [number, number];
  readonly passes: readonly [number, number];
  /** It is asked to carry less than passes it. */
  readonly isLess: boolean;
  readonly use: () => void;
}

const Finding = ({ verdict, children }: { verdict: ShownPlace["verdict"] | "know"; children: ReactNode }) => (
  <div className="mt-2.5 border-b border-rule pb-2">
    <div className="flex items-center gap-1.5 font-bold">
      <VerdictMark verdict={verdict === "know" ? "clear" : verdict} a={8} />
      <span className={verdict === "know" ? "" : `v-${verdict}`}>{verdict === "know" ? "To know" : VERDICT_WORD[verdict]}</span>
    </div>
    {children}
  </div>
);

const PlaceFinding = ({ place: p, thisYear }: { place: ShownPlace; thisYear: number }) => (
  <Finding verdict={p.verdict}>
    <p className="m-0 mt-0.5">
      {p.name}: {freeText(p)}
      {fullYearText(p, thisYear) === null ? "" : `, ${fullYearText(p, thisYear)}`}.
    </p>
  </Finding>
);

const Mends = ({
  mends,
  tried,
  tryMend,
}: {
  mends: readonly TriedMend[];
  tried: TriedMend | null;
  tryMend: (m: TriedMend | null) => void;
}) => (
  <ul className="m-0 mt-1 list-none p-0" aria-label="What would mend it">
    {mends.map((m) => (
      <li key={m.id} className="flex items-baseline justify-between gap-2 py-0.5">
        <button
          type="button"
          className={`press min-h-6 text-line ${tried?.id === m.id ? "bg-ink px-1 text-paper" : ""}`}
          aria-pressed={tried?.id === m.id}
          onClick={() => tryMend(tried?.id === m.id ? null : m)}
        >
          {m.words}
        </button>
        <span className="whitespace-nowrap font-mono">{m.place === null ? "gone" : freeText(m.place)}</span>
      </li>
    ))}
  </ul>
);

const Tried = ({ tried, plan, leave }: { tried: TriedMend; plan: (m: TriedMend) => void; leave: () => void }) => (
  <div className="mt-1.5 border border-ink p-2" data-testid="tried">
    <p className="m-0">
      Drawn as if: {tried.words.charAt(0).toLowerCase() + tried.words.slice(1)}. The whole is then{" "}
      <span className={`font-figure v-${tried.view.verdict}`}>{VERDICT_WORD[tried.view.verdict]}</span>
      {tried.view.narrowest === null ? "" : `, narrowest ${tried.view.narrowest.name}, ${freeText(tried.view.narrowest)}`}.
    </p>
    <p className="m-0 mt-1 flex flex-wrap gap-x-3 gap-y-2">
      {tried.plan.kind === "page" ? (
        <Link className="press min-h-6 leading-6" href={tried.plan.href}>
          {tried.plan.words}
        </Link>
      ) : (
        <button type="button" className="main-action" onClick={() => plan(tried)}>
          Plan it
        </button>
      )}
      <button type="button" className="press min-h-6" onClick={leave}>
        Leave it
      </button>
    </p>
  </div>
);

/** What is narrow, what mends it, and what else is to be known of the network. */
export const LoadFindings = ({
  view,
  narrowest,
  mends,
  tried,
  tryMend,
  plan,
  thisYear,
  mismatches,
  lost,
  again,
  taken,
  jobId,
  saveCsv,
}: {
  view: LoadView;
  /** On the way of the end that is looked at. */
  narrowest: ShownPlace | null;
  mends: readonly TriedMend[];
  tried: TriedMend | null;
  tryMend: (m: TriedMend | null) => void;
  plan: (m: TriedMend) => void;
  thisYear: number;
  mismatches: readonly Mismatch[];
  /** Ends whose way was set by hand and leads nowhere. */
  lost: readonly string[];
  again: (siteName: string) => void;
  /** Links of which others' radios leave less than all. */
  taken: readonly { readonly name: string; readonly left: number }[];
  jobId: string;
  saveCsv: () => void;
}) => {
  const rank = (v: ShownPlace["verdict"]): number => VERDICT_ORDER.indexOf(v);
  const others = view.places.filter((p) => p.verdict !== "clear" && p.id !== narrowest?.id);
  const worse = narrowest === null ? others : others.filter((p) => rank(p.verdict) < rank(narrowest.verdict));
  return (
    <ScrollRegion label="Findings" className="beside border-l border-ink px-3.5 py-2.5 text-line">
      <h2 className="m-0 border-b border-ink pb-1.5 text-body font-bold">Findings</h2>
      {worse.map((p) => (
        <PlaceFinding key={p.id} place={p} thisYear={thisYear} />
      ))}
      {narrowest !== null && (
        <Finding verdict={narrowest.verdict}>
          <p className="m-0 mt-0.5">
            {narrowest.name}: <b>{freeText(narrowest)}</b>
            {fullYearText(narrowest, thisYear) === null ? "" : `, ${fullYearText(narrowest, thisYear)}`}.
          </p>
          {mends.length > 0 &&
            (narrowest.verdict === "clear" ? (
              <details open={tried !== null}>
                <summary className="min-h-6 cursor-pointer text-line leading-6">What would widen it</summary>
                <Mends mends={mends} tried={tried} tryMend={tryMend} />
              </details>
            ) : (
              <Mends mends={mends} tried={tried} tryMend={tryMend} />
            ))}
          {tried !== null && <Tried tried={tried} plan={plan} leave={() => tryMend(null)} />}
        </Finding>
      )}
      {others
        .filter((p) => !worse.includes(p))
        .map((p) => (
          <PlaceFinding key={p.id} place={p} thisYear={thisYear} />
        ))}
      {mismatches
        .filter((m) => m.isLess)
        .map((m) => (
          <Finding key={m.linkId} verdict="know">
            <p className="m-0 mt-0.5">
              The link to {m.name} is planned for {rateText(m.asked[0])} and {rateText(m.asked[1])}. What passes it sums to{" "}
              {rateText(m.passes[0])} and {rateText(m.passes[1])}.
            </p>
            <button type="button" className="press mt-1 min-h-6 text-line" onClick={m.use}>
              Plan it for {rateText(m.passes[0])} and {rateText(m.passes[1])}
            </button>
          </Finding>
        ))}
      {mismatches.some((m) => !m.isLess) && (
        <Finding verdict="know">
          <p className="m-0 mt-0.5">Planned for more than passes them:</p>
          <ul className="m-0 mt-0.5 list-none p-0">
            {mismatches
              .filter((m) => !m.isLess)
              .map((m) => (
                <li key={m.linkId} className="flex flex-wrap items-baseline justify-between gap-x-2">
                  {m.name}, {rateText(m.asked[0])} and {rateText(m.asked[1])}
                  <button
                    type="button"
                    className="press min-h-6 text-line"
                    aria-label={`${m.name}: plan it for ${rateText(m.passes[0])} and ${rateText(m.passes[1])}`}
                    onClick={m.use}
                  >
                    {rateText(m.passes[0])} and {rateText(m.passes[1])}
                  </button>
                </li>
              ))}
          </ul>
        </Finding>
      )}
      {lost.map((name) => (
        <Finding key={name} verdict="unknown">
          <p className="m-0 mt-0.5">The way to {name} was set by hand and leads nowhere: its link carries nothing, or is gone.</p>
          <button type="button" className="press mt-1 min-h-6 text-line" onClick={() => again(name)}>
            Find its way again
          </button>
        </Finding>
      ))}
      {view.uncounted.length > 0 && (
        <Finding verdict="unknown">
          <p className="m-0 mt-0.5">{view.uncounted.join(", ")}: no link that holds leads there. What stands there is not counted.</p>
        </Finding>
      )}
      {view.partnersLost.length > 0 && (
        <Finding verdict="unknown">
          <p className="m-0 mt-0.5">
            {view.partnersLost.join(", ")}: devices talk with somebody there, and no link that holds leads there. What they send is not
            counted.
          </p>
        </Finding>
      )}
      {view.idle.length > 0 && (
        <Finding verdict="know">
          <p className="m-0 mt-0.5">
            A loop: {view.idle.join("; ")}. A bridged network follows one way; the other stands idle until the first fails. Never plug a
            loop in without a spanning tree.
          </p>
        </Finding>
      )}
      {taken.length > 0 && (
        <Finding verdict="know">
          <p className="m-0 mt-0.5">
            Others' radios take of the air: {taken.map((t) => `${t.name} keeps ${Math.round(t.left * 100)} %`).join("; ")}.
          </p>
          <Link className="press min-h-6 leading-6" href={`/jobs/${jobId}/air`}>
            07 Air
          </Link>
        </Finding>
      )}
      <p className="cap m-0 mt-3">
        Rates by the same core as the sections, payload throughout: a port of 100 passes 94. What others' radios leave of a link is counted:
        see 07 Air.
      </p>
      <p className="m-0 mt-2">
        <button type="button" className="press min-h-6 text-line" onClick={saveCsv}>
          As CSV
        </button>
      </p>
    </ScrollRegion>
  );
};
