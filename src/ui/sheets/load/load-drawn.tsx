"use client";
import { type ReactNode, useMemo } from "react";
import { askedOfPlace, delayTo, freeAlong, moreDevices, type Recorder, readingsAt, recorderAnswers, THERE } from "@/core/load";
import { countText, rateText } from "../../wording/gear";
import { figure } from "../../wording/numbers";
import { FillChart } from "./fill-chart";
import { DelayBar, RecorderTable, TestList } from "./load-aside";
import { bySchools, hangsAt, yearsOf } from "./load-view";
import { fullYearText } from "./load-words";
import { PipeDrawing } from "./pipe-drawing";
import { type MoreDevice, PlaceList } from "./place-list";
import type { OpenLoad } from "./use-open-load";

/** How many more of a device fit at the end that is looked at, and what is full before one more would. */
export const MoreLine = ({ open: { view, end, moment, job }, more }: { open: OpenLoad; more: MoreDevice }) => {
  const ways = view === null || end === null ? null : view.load.hopsTo(end, { kind: more.talksTo });
  if (view === null || ways === null) return null;
  const { count, place } = moreDevices(view.load, moment, ways, more.each);
  return (
    <p className="m-0 pb-1 text-line" data-testid="more">
      At {job.sites.find((s) => s.id === end)?.name}: <b>{Number.isFinite(count) ? countText(count, "more", "more") : "any number"}</b>
      {place === null ? "" : `, then ${view.places[place]!.name} is full`}
    </p>
  );
};

/** The pipe, and beneath it the places, the years, and what rests on them. */
export const Drawn = ({
  open,
  width,
  narrow,
  thisYear,
  more,
  children,
}: {
  open: OpenLoad;
  width: number;
  narrow: boolean;
  thisYear: number;
  more: Parameters<typeof PlaceList>[0]["more"];
  children: ReactNode;
}) => {
  const { view, place, end, parts, narrowest, moment, job } = open;
  const horizon = job.job.horizonYears;
  const delay = useMemo(() => (view === null || end === null ? null : delayTo(view.load, moment, end)), [view, moment, end]);
  const readings = useMemo(
    () => (view === null || end === null ? [] : readingsAt(view.load, end, open.fields.testerMbps)),
    [view, end, open.fields.testerMbps],
  );
  const { planned, chain, read } = open;
  const hangs = useMemo(() => (view === null || end === null ? [] : hangsAt(view, read, moment, end)), [view, read, moment, end]);
  const placeId = place?.id ?? null;
  const schools = useMemo(
    () => (planned === null || placeId === null ? null : bySchools(planned, moment, placeId)),
    [planned, moment, placeId],
  );
  const way = chain.join(" ");
  const answers = useMemo(() => {
    if (planned === null || placeId === null) return [];
    const sites = way.split(" ").slice(0, -1);
    const list: Recorder[] = [...sites.map((siteId) => ({ at: "site" as const, siteId })), { at: "each" }];
    const now = planned.recorder;
    if (now.at === "site" && !sites.includes(now.siteId)) list.unshift(now);
    return recorderAnswers(planned, list, placeId);
  }, [planned, way, placeId]);
  if (view === null || place === null || width === 0) return null;
  const names = (i: number): string => view.places[i]!.name;
  const nameOf = (id: string | null): string => job.sites.find((s) => s.id === id)?.name ?? "";
  const years = yearsOf(view, place.place, thisYear, Math.max(horizon, Math.min(15, Math.ceil(place.yearsLeft ?? 0) + 1)));
  const ways = end === null ? null : view.load.hopsTo(end, { kind: "feed" });
  const free = ways === null ? null : ([0, 1] as const).map((lane) => freeAlong(view.load, moment, ways[lane]).mbps);
  const third = narrow ? width - 32 : Math.floor((width - 4) * 0.26);
  const recordedMbps = view.load.flows.reduce(
    (n, f) => n + (f.device.talksTo.kind === "recorder" ? f.device.usual.back * f.device.count : 0),
    0,
  );
  return (
    <>
      <div className="flex-none overflow-x-auto border-t border-ink">
        <PipeDrawing
          parts={parts}
          narrowest={narrowest}
          width={width}
          thisYear={thisYear}
          times={open.times}
          onTimes={open.setTimes}
          onHeld={open.setHeld}
          choose={open.choose}
          hangs={hangs}
        />
      </div>
      <div className={`flex flex-none border-t border-ink ${narrow ? "flex-col" : ""}`}>
        <div className={`min-w-0 px-4 py-2 ${narrow ? "" : "flex-[1.4] border-r border-rule"}`}>
          <PlaceList view={view} rows={open.list} moment={moment} chosen={place.id} more={more} choose={open.choose} />
          {children}
        </div>
        <div className={`px-2 py-2 ${narrow ? "border-t border-rule" : "border-r border-rule"}`}>
          <h3 className="m-0 px-2 text-body font-bold" style={{ maxWidth: third }}>
            {place.name}, year by year
            {fullYearText(place, thisYear) === null ? "" : `: ${fullYearText(place, thisYear)}`}
          </h3>
          <FillChart
            rows={years.rows}
            fitsMbps={years.fitsMbps}
            allMbps={years.allMbps}
            fullIn={place.yearsLeft === null ? null : thisYear + place.yearsLeft}
            verdict={place.verdict}
            horizonYear={thisYear + horizon}
            width={third}
          />
          <p className="cap m-0 px-2" style={{ maxWidth: third }}>
            Mbps in today's mix: {rateText(askedOfPlace(view.load, moment, place.place).there)} there and{" "}
            {rateText(askedOfPlace(view.load, moment, place.place).back)} back.
            {free !== null && (
              <>
                {" "}
                To {nameOf(end)} one way can take {rateText(free[0]!)} Mbps more there, or {rateText(free[1]!)} more back, with all else as
                it is.
              </>
            )}
            {schools !== null && schools.third !== null && view.load.places[place.place]!.kind === "air" && (
              <>
                {" "}
                Fits by a third of the air rate {rateText(schools.third)}, with {figure(job.job.freeShare * 100)} % kept free{" "}
                {rateText(schools.headroom ?? 0)}, by all of it {rateText(schools.full ?? 0)}.
              </>
            )}
          </p>
        </div>
        <div className={`min-w-0 space-y-3 px-4 py-2 ${narrow ? "border-t border-rule" : "flex-1"}`}>
          {answers.length > 0 && (
            <RecorderTable
              answers={answers}
              now={view.load.input.recorder}
              placeName={place.name}
              nameOf={(r) => (r.at === "each" ? "each far end" : nameOf(r.siteId))}
              storeTb={open.fields.storeTb}
              recordedMbps={recordedMbps}
              take={(r) => open.change({ recorder: r.at === "each" ? "each" : r.siteId })}
            />
          )}
          {delay !== null && delay[THERE].hops.length > 0 && <DelayBar delay={delay} name={nameOf(end)} bounds={open.fields.bounds} />}
          {readings.length > 0 && <TestList readings={readings} name={nameOf(end)} placeName={names} />}
        </div>
      </div>
    </>
  );
};
