"use client";
import { useDeferredValue, useMemo, useRef, useState } from "react";
import type { BriefDto, HubDto, JobBundle, LinkVerdict, NetworkDto } from "@/contract";
import { loadInputOf } from "@/contract";
import { chainOf, type LoadInput, type Moment } from "@/core/load";
import { shown as shownNow } from "../../state/open-record";
import { usePreferences } from "../../state/preferences";
import { useRecord, useRecordState } from "../../state/use-record";
import { mendsOf, type TriedMend } from "./load-mends";
import { endThrough, type LoadRead, listedPlaces, loadView, narrowestTo, pipeTo } from "./load-view";

export interface LoadOpenRead {
  readonly job: JobBundle;
  readonly brief: BriefDto;
  readonly network: NetworkDto;
  readonly hubs: readonly HubDto[];
  readonly verdicts: readonly LinkVerdict[];
}

export const SCHOOLS = ["third", "headroom", "full"] as const satisfies readonly LoadInput["school"][];

/** The load under the hand: its record, how it is looked at, which end and which place. */
export const useOpenLoad = ({ job, brief, network, hubs, verdicts }: LoadOpenRead) => {
  const { units } = usePreferences();
  const jobId = job.job.id;
  const record = useRecord(jobId, "network", network);
  const { fields, status, setAside } = useRecordState(record);
  const [moment, setMoment] = useState<Moment>("worst");
  const [school, setSchool] = useState<LoadInput["school"] | null>(null);
  const [times, setTimes] = useState(1);
  const [chosenPlace, setChosenPlace] = useState<string | null>(null);
  const [chosenEnd, setChosenEnd] = useState<string | null>(null);
  /** An end that was chosen itself stays, whatever else passes its narrowest place. */
  const [forced, setForced] = useState<string | null>(null);
  const [tried, setTried] = useState<TriedMend | null>(null);
  const read: LoadRead = useMemo(() => ({ job, brief, hubs }), [job, brief, hubs]);
  const planned = useMemo(() => {
    const input = loadInputOf(job, brief, fields, hubs, verdicts);
    return input === null || school === null ? input : { ...input, school };
  }, [job, brief, fields, hubs, verdicts, school]);
  const look = useMemo(() => ({ moment, times }), [moment, times]);
  const own = useMemo(() => (planned === null ? null : loadView(planned, read, look)), [planned, read, look]);
  // What is tried is drawn, but what is found and mended is that of the plan.
  const view = useMemo(
    () => (tried === null || own === null ? own : loadView({ ...tried.input, school: own.load.input.school }, read, look)),
    [tried, own, read, look],
  );
  const list = useMemo(() => (view === null ? [] : listedPlaces(view)), [view]);
  // A place that is gone, for its end is led otherwise now, leaves the end as it was.
  const kept = view === null || chosenEnd === null || !view.load.tree.hops.has(chosenEnd) ? null : narrowestTo(view, moment, chosenEnd);
  const place = view === null ? null : (view.places.find((p) => p.id === chosenPlace) ?? kept ?? view.narrowest ?? list[0] ?? null);
  // The end stays while a mend is tried: it is that of the plan.
  const plannedPlace = own === null ? null : (own.places.find((p) => p.id === place?.id) ?? own.narrowest);
  const end =
    own === null || plannedPlace === null
      ? null
      : forced !== null && own.load.tree.hops.has(forced)
        ? forced
        : endThrough(own, moment, plannedPlace.place, chosenEnd);
  const parts = useMemo(() => (view === null || end === null ? [] : pipeTo(view, read, moment, end)), [view, read, moment, end]);
  const narrowest = useMemo(
    () => (view === null ? null : end === null ? view.narrowest : narrowestTo(view, moment, end)),
    [view, end, moment],
  );
  // Mends are worked out when nothing moves: while what is asked is dragged those found last stay.
  const [held, setHeld] = useState(false);
  const still = useDeferredValue(own);
  const found = useRef<readonly TriedMend[]>([]);
  const mends = useMemo(() => {
    if (held) return found.current;
    const at = narrowest === null || still === null ? undefined : still.places.find((p) => p.id === narrowest.id);
    found.current =
      planned === null || still === null || end === null || at === undefined
        ? []
        : mendsOf(planned, read, fields, verdicts, still, look, end, at);
    return found.current;
  }, [held, planned, read, fields, verdicts, still, look, end, narrowest]);
  const choose = (placeId: string): void => {
    setChosenPlace(placeId);
    setForced(null);
    const at = view?.places.find((p) => p.id === placeId);
    if (view !== null && at !== undefined) setChosenEnd(endThrough(view, moment, at.place, end));
  };
  return {
    job,
    jobId,
    brief,
    hubs,
    read,
    units,
    record,
    fields,
    status,
    setAside,
    change: record.change,
    now: () => shownNow(record),
    moment,
    setMoment,
    school: school ?? job.job.throughputSchool,
    setSchool: (s: LoadInput["school"]) => setSchool(s === job.job.throughputSchool ? null : s),
    times,
    setTimes,
    setHeld,
    planned,
    own,
    view,
    list,
    place,
    end,
    /** An end is chosen with the narrowest place on its way. */
    setEnd: (siteId: string) => {
      const at = own === null ? null : narrowestTo(own, moment, siteId);
      setChosenPlace(at?.id ?? null);
      setForced(siteId);
      setChosenEnd(siteId);
    },
    parts,
    narrowest,
    mends,
    tried,
    setTried,
    choose,
    chain: view === null || end === null ? [] : chainOf(view.load.tree, end).reverse(),
  };
};

export type OpenLoad = ReturnType<typeof useOpenLoad>;
