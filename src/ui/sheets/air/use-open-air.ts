"use client";
import { useDeferredValue, useMemo, useState } from "react";
import {
  type AirDto,
  type AirRead,
  airJobOf,
  type BriefDto,
  type HardwareDto,
  type HubDto,
  type JobBundle,
  type LinkVerdict,
  loadInputOf,
  type NetworkDto,
  passesOf,
  type ScanDto,
  urgentOf,
} from "@/contract";
import { type Channel, judgeAir, unitMaker } from "@/core/air";
import { loadOf } from "@/core/load";
import { type BandKey, bandKeyOf } from "@/core/radio";
import { usePreferences } from "../../state/preferences";
import { useRecord, useRecordState } from "../../state/use-record";
import { airView, mastRows, type Receiver, sheetVerdict } from "./air-view";

export interface AirOpenRead {
  readonly job: JobBundle;
  readonly brief: BriefDto;
  readonly network: NetworkDto;
  readonly hubs: readonly HubDto[];
  readonly air: AirDto;
  readonly scans: readonly ScanDto[];
  readonly hardware: HardwareDto;
  readonly verdicts: readonly LinkVerdict[];
  readonly losses: Readonly<Record<string, number>>;
}

/** Channels that are drawn and not planned: one that is moved, or a proposal. */
export interface TriedChannels {
  readonly words: string;
  readonly channels: ReadonlyMap<string, Channel>;
}

const NONE: ReadonlyMap<string, Channel> = new Map();

/** The air under the hand: its record, its view as planned and as tried, which band and which receiver is looked at. */
export const useOpenAir = ({ job, brief, network, hubs, air, scans, hardware, verdicts, losses }: AirOpenRead) => {
  const { units } = usePreferences();
  const jobId = job.job.id;
  const record = useRecord(jobId, "air", air);
  const { fields, status, setAside } = useRecordState(record);
  const [tried, setTried] = useState<TriedChannels | null>(null);
  const [bandAsked, setBand] = useState<BandKey | null>(null);
  const [receiverAsked, setReceiver] = useState<string | null>(null);
  const [unitAsked, setUnit] = useState<string | null>(null);
  const load = useMemo(() => {
    // What is asked of the links is what they send: what the air leaves of them is another question.
    const input = loadInputOf(
      job,
      brief,
      network,
      hubs,
      verdicts.map((v) => ({ ...v, inAir: null })),
    );
    return input === null ? null : loadOf(input);
  }, [job, brief, network, hubs, verdicts]);
  const read: AirRead = useMemo(
    () => ({
      job,
      hardware,
      hubs,
      air: fields,
      scans,
      verdicts,
      losses: new Map(Object.entries(losses)),
      passes: load === null ? new Map() : passesOf(load),
      urgent: load === null ? new Set() : urgentOf(load),
    }),
    [job, hardware, hubs, fields, scans, verdicts, losses, load],
  );
  const built = useMemo(() => airJobOf(read), [read]);
  const maker = useMemo(() => unitMaker(built.job), [built]);
  const planned = useMemo(() => airView(built, judgeAir(built.job, NONE, maker), NONE), [built, maker]);
  const channels = tried?.channels ?? NONE;
  const view = useMemo(
    () => (channels === NONE ? planned : airView(built, judgeAir(built.job, channels, maker), channels)),
    [built, maker, channels, planned],
  );
  const names = useMemo(() => new Map(job.sites.map((s) => [s.id, s.name])), [job.sites]);
  const worstBand = planned.worst === null ? null : bandKeyOf(planned.worst.channel.centreMhz);
  const band: BandKey | null =
    (bandAsked !== null && planned.bands.some((b) => b.band === bandAsked) ? bandAsked : null) ??
    worstBand ??
    planned.bands[0]?.band ??
    null;
  const rows = useMemo(() => (band === null ? [] : mastRows(built, view, band, names)), [built, view, band, names]);
  const keyOf = (r: Receiver): string => `${r.linkId}/${r.way}`;
  const inBand = view.receivers.filter((r) => band !== null && bandKeyOf(r.channel.centreMhz) === band);
  const receiver =
    inBand.find((r) => keyOf(r) === receiverAsked) ??
    inBand.find((r) => planned.worst !== null && r.linkId === planned.worst.linkId && r.way === planned.worst.way) ??
    inBand[0] ??
    null;
  // Mends and proposals are searched for when nothing moves.
  const still = useDeferredValue(built);
  return {
    job,
    jobId,
    read,
    units,
    record,
    fields,
    status,
    setAside,
    change: record.change,
    built,
    still,
    maker,
    planned,
    view,
    names,
    rows,
    band,
    setBand,
    receiver,
    setReceiver: (r: Receiver) => setReceiver(keyOf(r)),
    unitId: unitAsked,
    setUnit,
    tried,
    setTried,
    verdict: sheetVerdict(planned, read),
    hubs,
    scans,
  };
};

export type OpenAir = ReturnType<typeof useOpenAir>;
