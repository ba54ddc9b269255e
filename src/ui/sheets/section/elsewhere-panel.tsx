"use client";
import { useState } from "react";
import type { FeatureDto, PlaceDto, PlacesQuestion, RelayDto, RelayLegDto, SiteDto } from "@/contract";
import { byMerit, relayServes } from "@/core/solve";
import type { LinkBundle } from "../../api/queries";
import { Choice } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { ScrollRegion } from "../../controls/scroll-region";
import { Sketch } from "../../drawing/section-sketch";
import { VerdictMark } from "../../marks/verdict-mark";
import { errorSentence } from "../../wording/errors";
import { cutMiddle } from "../../wording/names";
import { dbmText, distanceText, latLonText, lengthIn, lengthText, lengthUnit, metresFrom, type Units } from "../../wording/numbers";
import { relayName } from "../../wording/relays";
import { VERDICT_WORD } from "../../wording/verdicts";
import { useElsewhere } from "./use-elsewhere";
import type { Evaluation } from "./use-evaluation";

const SKETCH = { width: 186, height: 46 };
const MOST_PLACES = 8;

const roomText = (missM: number | null, units: Units): string =>
  missM === null ? "not known" : missM > 0.0005 ? `${lengthText(units, missM)} short` : `${lengthText(units, -missM)} to spare`;

const Leg = ({ leg, to, units }: { leg: RelayLegDto | null; to: string; units: Units }) =>
  leg === null ? (
    <div className="cap">too near or too far from {to}</div>
  ) : (
    <div>
      <Sketch sketch={leg.sketch} name={`Section to ${to}`} short={leg.verdict === "short"} {...SKETCH} />
      <div className="text-note leading-[15px]">
        <span className={`v-${leg.verdict}`}>
          <VerdictMark verdict={leg.verdict} a={6} /> {VERDICT_WORD[leg.verdict]}
        </span>{" "}
        {roomText(leg.missM, units)}
        <br />
        {distanceText(units, leg.pathM)} to {cutMiddle(to, 14)}
        {leg.levelDbm === null ? "" : `, ${dbmText(leg.levelDbm)}`}
      </div>
    </div>
  );

/** Another spot for one end, or a relay between them: found, drawn, and taken with one press. */
export const ElsewherePanel = ({
  evaluation,
  bundle,
  sites,
  lines,
  units,
  move,
  addRelay,
}: {
  evaluation: Evaluation;
  bundle: LinkBundle;
  sites: readonly SiteDto[];
  /** Drawn lines near the ends: a wall, a roof's edge, a street. */
  lines: readonly FeatureDto[];
  units: Units;
  move: (end: "near" | "far", place: PlaceDto) => Promise<void>;
  addRelay: (relay: RelayDto) => Promise<void>;
}) => {
  const { state, places, relays, stop } = useElsewhere(bundle, sites);
  const [end, setEnd] = useState<"near" | "far">("far");
  const [along, setAlong] = useState("points");
  const [mastM, setMastM] = useState(10);
  const [busy, setBusy] = useState(false);
  const question = (): PlacesQuestion => ({
    end,
    along: along === "points" || along === "roof" ? along : { featureId: along },
  });
  const once = (work: () => Promise<void>): void => {
    if (busy) return;
    setBusy(true);
    void work().finally(() => setBusy(false));
  };
  const name = (e: "near" | "far"): string => bundle[e].name;
  return (
    <div className="grid h-full min-h-0 grid-cols-[236px_1fr] gap-4 px-5 pb-2 text-line">
      <form
        className="min-h-0 overflow-auto"
        aria-label="Where to look"
        onSubmit={(e) => {
          e.preventDefault();
          void places(question());
        }}
      >
        <div className="grid grid-cols-2 gap-x-3">
          <Choice label="Move the end" value={end} onChange={(e) => setEnd(e.target.value as "near" | "far")}>
            <option value="near">{name("near")}</option>
            <option value="far">{name("far")}</option>
          </Choice>
          <Choice label="Along" value={along} onChange={(e) => setAlong(e.target.value)}>
            <option value="points">its mounting points</option>
            <option value="roof">the edge of its roof</option>
            {lines.map((l) => (
              <option key={l.id} value={l.id}>
                {l.name}
              </option>
            ))}
          </Choice>
        </div>
        <button type="submit" className="press mt-1.5" disabled={state.kind === "busy"}>
          Look along it
        </button>
        <div className="mt-2 flex items-end gap-3 border-t border-rule pt-2">
          <div className="w-[110px]">
            <NumberField
              label={`Relay mast up to, ${lengthUnit(units)}`}
              value={lengthIn(units, mastM)}
              least={3}
              most={units === "metric" ? 100 : 330}
              onChange={(v) => v !== null && setMastM(metresFrom(units, v))}
            />
          </div>
          <button type="button" className="press mb-1.5" disabled={state.kind === "busy"} onClick={() => void relays(evaluation, mastM)}>
            Look for a relay
          </button>
        </div>
      </form>
      <ScrollRegion label="Spots found" className="" data-testid="spots">
        {state.kind === "none" && (
          <p className="cap m-0">
            A spot nearby may see what this one does not. Roof edges and drawn lines are tried metre by metre at the present height; a relay
            is looked for at the job's sites first, then on high ground that both ends see.
          </p>
        )}
        {state.kind === "busy" && (
          <p role="status" className="m-0 flex items-center gap-3">
            <span>{state.words}</span>
            <progress value={state.share} max={1} aria-label="Done" className="h-2 w-40" />
            <button type="button" className="press" onClick={stop}>
              Stop
            </button>
          </p>
        )}
        {state.kind === "fault" && (
          <p role="alert" className="m-0 text-short-figure">
            {errorSentence(state.body, units)}
          </p>
        )}
        {state.kind === "places" && (
          <PlaceList places={state.places} units={units} busy={busy} take={(p) => once(() => move(state.end, p))} />
        )}
        {state.kind === "relays" && (
          <>
            {state.reason !== null && <p className="m-0 mb-1">{state.reason}</p>}
            {sites.length > 2 && !state.relays.some((r) => r.siteId !== null && relayServes(r)) && (
              <p className="m-0 mb-1">
                <strong>{state.sitesLeft === 0 ? "No site of the job sees both ends." : "No site near the way sees both ends."}</strong>
                {state.sitesLeft === 0 ? "" : ` ${state.sitesLeft} sites farther about were not looked at.`}
              </p>
            )}
            {!state.relays.some(relayServes) && (
              <p className="m-0 mb-1">
                <strong>No spot serves both ends as it is.</strong> The nearest misses stand first.
              </p>
            )}
            {state.relays.slice(0, MOST_PLACES).map((r, i) => (
              <article
                key={`${r.latDeg},${r.lonDeg}`}
                className="grid grid-cols-[minmax(0,1fr)_186px_186px] gap-3 border-b border-rule py-1.5"
                data-testid="relay"
              >
                <div className="min-w-0">
                  <strong className="block truncate">
                    {i + 1}. {relayName(r)}
                  </strong>
                  <span className="cap block">
                    {r.siteId !== null ? "a site of the job" : latLonText(r)}, mount {lengthText(units, r.aglM, 0)}
                  </span>
                  <button type="button" className="press mt-0.5 text-line" disabled={busy} onClick={() => once(() => addRelay(r))}>
                    Put a relay here
                  </button>
                </div>
                <Leg leg={r.near} to={name("near")} units={units} />
                <Leg leg={r.far} to={name("far")} units={units} />
              </article>
            ))}
            <p className="cap m-0 mt-1">
              Found over ground and what was surveyed, with this link's gear on both legs. Power, access, leave to build and the owner's
              consent are not known to it.
            </p>
          </>
        )}
      </ScrollRegion>
    </div>
  );
};

const PLAN_PX = 92;

/** The spots from above, north up: those that clear as solid discs, the best one ringed. */
const SpotsPlan = ({ places, best }: { places: readonly PlaceDto[]; best: PlaceDto | null }) => {
  const reach = Math.max(1, ...places.map((p) => Math.max(Math.abs(p.eastM), Math.abs(p.northM))));
  const at = (m: number): number => (m / reach) * (PLAN_PX / 2 - 10);
  return (
    <svg
      width={PLAN_PX}
      height={PLAN_PX}
      role="img"
      aria-label="The spots seen from above, north up"
      className="flex-none border border-rule"
      viewBox={`${-PLAN_PX / 2} ${-PLAN_PX / 2} ${PLAN_PX} ${PLAN_PX}`}
    >
      <path d="M-5 0H5M0 -5V5" stroke="var(--ink-2)" strokeWidth="1" />
      {places.map((p) => (
        <circle
          key={`${p.latDeg},${p.lonDeg},${p.mountId ?? ""}`}
          cx={at(p.eastM)}
          cy={-at(p.northM)}
          r={p.raiseM === 0 ? 3 : 2}
          fill={p.raiseM === 0 ? "var(--ink)" : "var(--paper)"}
          stroke={p.raiseM === 0 ? "var(--ink)" : "var(--short)"}
          strokeWidth="1.2"
        />
      ))}
      {best !== null && <circle cx={at(best.eastM)} cy={-at(best.northM)} r="6.5" fill="none" stroke="var(--ink)" strokeWidth="1.8" />}
    </svg>
  );
};

const PlaceList = ({
  places,
  units,
  busy,
  take,
}: {
  places: readonly PlaceDto[];
  units: Units;
  busy: boolean;
  take: (place: PlaceDto) => void;
}) => {
  const best = [...places].sort(byMerit).slice(0, MOST_PLACES);
  const clear = places.filter((p) => p.raiseM === 0).length;
  if (places.length === 0) return <p className="m-0">No spot to try: this site has no mounting point there.</p>;
  return (
    <>
      <p className="m-0">
        <strong>{clear === 0 ? "No spot of these clears as it is" : `${clear} of ${places.length} spots clear to the last year`}</strong>
        {clear === 0 && best[0]?.raiseM == null ? ", and no raise here would do." : "."}
      </p>
      <div className="flex items-start gap-4">
        <table className="w-full border-collapse">
          <thead>
            <tr className="text-left text-label text-ink-2 [&>th]:font-normal">
              <th scope="col">Spot</th>
              <th scope="col">Today</th>
              <th scope="col">Last year</th>
              <th scope="col">Raise</th>
              <th scope="col">Level</th>
            </tr>
          </thead>
          <tbody>
            {best.map((p) => (
              <tr key={`${p.latDeg},${p.lonDeg},${p.mountId ?? ""}`} className="border-t border-rule">
                <td>
                  <button type="button" className="press text-line" disabled={busy} onClick={() => take(p)}>
                    {p.name}, {lengthText(units, p.aglM)} up
                  </button>
                </td>
                <td className={`whitespace-nowrap v-${p.verdict}`}>
                  <VerdictMark verdict={p.verdict} a={6} /> {roomText(p.missM, units)}
                </td>
                <td className="whitespace-nowrap">{roomText(p.missLastYearM, units)}</td>
                <td className="whitespace-nowrap">
                  {p.raiseM === null ? "none does" : p.raiseM === 0 ? "none" : `+${lengthText(units, p.raiseM)}`}
                </td>
                <td className="figure whitespace-nowrap">{p.levelDbm === null ? "" : dbmText(p.levelDbm)}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <SpotsPlan places={places} best={best[0] ?? null} />
      </div>
    </>
  );
};
