"use client";
import { useDeferredValue, useMemo, useState } from "react";
import type {
  BriefDto,
  DaysDto,
  HardwareDto,
  JobBundle,
  KitDto,
  KitPick,
  KitRow,
  PartDto,
  PickDto,
  SafetyDto,
  SafetyFields,
  WiringDto,
} from "@/contract";
import { judgedDays, mountsOf, pickedBeside, recordPath, rfDistances, safetySchema, siteKit } from "@/contract";
import { lineId, type Risk } from "@/core/kit";
import { partsOf } from "@/core/wiring";
import { bodyOf, getForBinary, postForFile } from "../../api/client";
import { useRefresh } from "../../api/queries";
import { useServedFile } from "../../api/use-served-file";
import { sendEdit } from "../../state/browser-outbox";
import { shown as shownNow, whenKept } from "../../state/open-record";
import { usePreferences } from "../../state/preferences";
import { useRecord, useRecordState } from "../../state/use-record";
import { errorSentence } from "../../wording/errors";

export interface KitRead {
  readonly job: JobBundle;
  readonly linkId: string;
  readonly brief: BriefDto;
  readonly wirings: readonly WiringDto[];
  readonly kit: KitDto;
  readonly days: DaysDto;
  readonly picks: readonly PickDto[];
  readonly safety: readonly SafetyDto[];
  readonly parts: readonly PartDto[];
  readonly hardware: HardwareDto;
}

const NOT_BEGUN = safetySchema.parse({});

const useScreen = (jobId: string, siteId: string, row: SafetyDto | undefined) => {
  const stand = useMemo(() => ({ ...NOT_BEGUN, id: siteId, version: 0 }), [siteId]);
  const record = useRecord(jobId, "safety", row ?? stand);
  const { fields, status, setAside } = useRecordState(record);
  return { siteId, exists: row !== undefined, record, fields, status, setAside };
};

/** The kit of a link's two ends under the hand: lines, what is in hand, wind, risks. */
export const useOpenKit = (read: KitRead) => {
  const { job, linkId, wirings, picks, safety, parts, hardware } = read;
  const jobId = job.job.id;
  const link = job.links.find((l) => l.id === linkId)!;
  const { units } = usePreferences();
  const record = useRecord(jobId, "kit", read.kit);
  const { fields, status, setAside } = useRecordState(record);
  const daysRecord = useRecord(jobId, "days", read.days);
  const days = useRecordState(daysRecord);
  const near = useScreen(
    jobId,
    link.nearSiteId,
    safety.find((s) => s.siteId === link.nearSiteId),
  );
  const far = useScreen(
    jobId,
    link.farSiteId,
    safety.find((s) => s.siteId === link.farSiteId),
  );
  const refresh = useRefresh();
  const [busy, setBusy] = useState<ReadonlySet<string>>(new Set());
  const [said, setSaid] = useState<string | null>(null);
  const all = useMemo(() => partsOf(parts, hardware.radios), [parts, hardware]);
  const mountsAt = useMemo(() => (siteId: string) => mountsOf(job, hardware, siteId), [job, hardware]);
  const pickById = useMemo(() => new Map(picks.map((p) => [p.id, p])), [picks]);
  const { nearSiteId, farSiteId } = link;
  const [nearScreen, farScreen] = [near.exists ? near.fields : null, far.exists ? far.fields : null];
  const sites = useMemo(() => {
    const stockLeft = new Map<string, number>();
    const pickOf = (key: string): { id: string; pick: KitPick | null } => {
      const id = lineId(jobId, key);
      const p = pickById.get(id);
      return { id, pick: p === undefined || (p.state !== "there" && p.count === 0) ? null : p };
    };
    const ends: readonly (readonly [string, SafetyFields | null])[] = [
      [nearSiteId, nearScreen],
      [farSiteId, farScreen],
    ];
    return ends.flatMap(([siteId, screen]) => {
      const wiring = wirings.find((w) => w.siteId === siteId);
      return wiring === undefined
        ? []
        : [
            siteKit({
              wiring,
              kit: fields,
              safety: screen,
              parts: all,
              mountOf: mountsAt(siteId),
              pickOf,
              stockLeft,
              stands: job.sites.find((x) => x.id === siteId)?.stands ?? null,
            }),
          ];
    });
  }, [nearSiteId, farSiteId, nearScreen, farScreen, wirings, fields, all, mountsAt, pickById, jobId, job.sites]);
  // Over all sites of the job: worked out when nothing is typed.
  const still = useDeferredValue(fields);
  const allSites = useMemo(
    () =>
      wirings.map((wiring) =>
        siteKit({
          wiring,
          kit: still,
          safety: null,
          parts: all,
          mountOf: mountsAt(wiring.siteId),
          pickOf: (key) => ({ id: lineId(jobId, key), pick: pickById.get(lineId(jobId, key)) ?? null }),
        }),
      ),
    [wirings, still, all, mountsAt, pickById, jobId],
  );
  const beside = useMemo(() => pickedBeside(picks, allSites), [picks, allSites]);
  const clashes = useMemo(() => judgedDays(job, read.brief, days.fields), [job, read.brief, days.fields]);
  const send = async (id: string, work: () => Promise<unknown>): Promise<void> => {
    setBusy((b) => new Set([...b, id]));
    setSaid(null);
    try {
      await work();
    } catch (error) {
      setSaid(errorSentence(bodyOf(error), units));
    } finally {
      await refresh(jobId);
      setBusy((b) => new Set([...b].filter((x) => x !== id)));
    }
  };
  /** Reserves lines in stock as one step, or gives them back. */
  const reserve = (rows: readonly KitRow[], isAway: boolean): Promise<void> =>
    send("reserve", () =>
      sendEdit(jobId, "POST", `/api/jobs/${jobId}/reserve`, {
        picks: rows.map((r) => ({
          id: r.pickId,
          version: pickById.get(r.pickId)?.version ?? 0,
          name: r.name,
          partId: r.part!.id,
          count: isAway ? 0 : r.quantity,
        })),
      }),
    );
  const file = useServedFile();
  /** Hands over a file of the server's, made of what was typed last. */
  const keepServed = async (words: string, ask: (signal: AbortSignal) => Promise<Response>): Promise<void> => {
    if ((await whenKept(record)) && (await whenKept(daysRecord))) await file.take(words, ask);
    else file.say("Your last edits are not saved yet; the file would be without them.");
  };
  const quote = (as: "pdf" | "csv", isJob: boolean): Promise<void> =>
    keepServed("Writing the quote", (signal) =>
      postForFile(`/api/jobs/${jobId}/quote?as=${as}&units=${units}${isJob ? "" : `&link=${linkId}`}`, signal),
    );
  const put = (r: KitRow, state: "picked" | "there", count: number): Promise<void> => {
    const old = pickById.get(r.pickId);
    return send(r.pickId, () =>
      old === undefined
        ? sendEdit(jobId, "POST", `/api/jobs/${jobId}/picks`, { id: r.pickId, name: r.name, partId: r.part?.id ?? null, state, count })
        : sendEdit(jobId, "PATCH", recordPath(jobId, "pick", r.pickId), { version: old.version, state, count }),
    );
  };
  return {
    ...read,
    jobId,
    link,
    units,
    record,
    fields,
    status,
    setAside,
    now: () => shownNow(record),
    daysRecord,
    dayFields: days.fields,
    dayStatus: days.status,
    dayAside: days.setAside,
    daysNow: () => shownNow(daysRecord),
    clashes,
    beside,
    allSites,
    putBack: (p: PickDto) => send(p.id, () => sendEdit(jobId, "PATCH", recordPath(jobId, "pick", p.id), { version: p.version, count: 0 })),
    rfAt: (siteId: string) => {
      const wiring = wirings.find((w) => w.siteId === siteId);
      return wiring === undefined ? [] : rfDistances(job, wiring, hardware);
    },
    setStands: (siteId: string, stands: string) => {
      const site = job.sites.find((x) => x.id === siteId)!;
      return send("stands", () => sendEdit(jobId, "PATCH", recordPath(jobId, "site", siteId), { version: site.version, stands }));
    },
    setZone: (timeZone: string) =>
      send("zone", () => sendEdit(jobId, "PATCH", recordPath(jobId, "job", jobId), { version: job.job.version, timeZone })),
    near,
    far,
    screens: [near, far] as const,
    competentOf: (siteId: string, risk: Risk): string =>
      [near, far].find((s) => s.siteId === siteId)?.fields.answers[risk]?.competent ?? "",
    sites,
    busy,
    said,
    setSaid,
    send,
    reserve,
    quote,
    file,
    calendar: () => keepServed("Writing the calendar", (signal) => getForBinary(`/api/jobs/${jobId}/calendar`, signal)),
    putBackRow: (r: KitRow) => put(r, "picked", 0),
    pick: (r: KitRow) => put(r, "picked", r.state === "picked" ? 0 : r.quantity),
    there: (r: KitRow) => (r.state === "there" ? put(r, "picked", 0) : put(r, "there", r.quantity)),
  };
};

export type OpenKit = ReturnType<typeof useOpenKit>;
