"use client";
import { useState } from "react";
import { type ReadScanDto, recordPath, type ScanDto, type ScanRowFields } from "@/contract";
import { bodyOf, postJson } from "../../api/client";
import { useRefresh } from "../../api/queries";
import { Choice, Field } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { sendEdit } from "../../state/browser-outbox";
import { errorSentence } from "../../wording/errors";
import { figure } from "../../wording/numbers";
import { channelText } from "./air-words";
import { SiteChoice } from "./site-choice";
import type { OpenAir } from "./use-open-air";

const MOST_SHOWN = 12;

const ScanRows = ({ rows }: { rows: readonly ScanRowFields[] }) => (
  <table className="border-collapse text-note">
    <thead>
      <tr className="text-label text-ink-2 [&>th]:pr-4 [&>th]:text-left [&>th]:font-normal">
        <th scope="col">MHz, wide</th>
        <th scope="col">dBm</th>
        <th scope="col">busy</th>
        <th scope="col">who</th>
      </tr>
    </thead>
    <tbody>
      {[...rows]
        .sort((a, b) => b.levelDbm - a.levelDbm)
        .slice(0, MOST_SHOWN)
        .map((r, i) => (
          <tr key={`${r.key}${r.centreMhz}${i}`} className="[&>td]:pr-4">
            <td className="font-mono">{channelText(r)}</td>
            <td className="text-right font-mono">{figure(r.levelDbm)}</td>
            <td className="font-mono">{r.busyShare === null ? "?" : `${figure(r.busyShare * 100)} %`}</td>
            <td>{r.isNoise ? "noise of the channel" : r.name === "" ? "no name" : r.name}</td>
          </tr>
        ))}
    </tbody>
  </table>
);

/** A scan that was read and is not kept yet. */
interface Draft {
  readonly siteId: string;
  readonly heardOn: string;
  readonly linkId: string | null;
  readonly gainDbi: number;
  readonly note: string;
}

/** Scans of the job: brought in, typed, kept side by side; the worst of those that count is planned with. */
export const ScansPanel = ({ open }: { open: OpenAir }) => {
  const { job, jobId, scans, names, units } = open;
  const refresh = useRefresh();
  const [text, setText] = useState("");
  const [withoutNames, setWithoutNames] = useState(true);
  const [read, setRead] = useState<ReadScanDto | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [typed, setTyped] = useState<ScanRowFields>({
    key: "",
    name: "",
    centreMhz: 5500,
    widthMhz: 20,
    levelDbm: -80,
    busyShare: null,
    isNoise: false,
  });
  const [draft, setDraft] = useState<Draft>({
    siteId: job.sites[0]?.id ?? "",
    heardOn: job.job.visitOn,
    linkId: null,
    gainDbi: 2,
    note: "",
  });
  const fail = (error: unknown): void => setSaid(errorSentence(bodyOf(error), units));
  const lookAt = async (content: string, names_: boolean): Promise<void> => {
    setSaid(null);
    setBusy(true);
    try {
      setRead(await postJson<ReadScanDto>(`/api/jobs/${jobId}/air/read-scan`, { text: content, withoutNames: names_ }));
    } catch (error) {
      setRead(null);
      fail(error);
    } finally {
      setBusy(false);
    }
  };
  const keep = async (rows: readonly ScanRowFields[]): Promise<void> => {
    if (busy) return;
    setBusy(true);
    try {
      await sendEdit(jobId, "POST", `/api/jobs/${jobId}/scans`, { ...draft, rows });
      setRead(null);
      setText("");
      setSaid(`The scan at ${names.get(draft.siteId) ?? "?"} is kept, ${rows.length} heard. Undo takes it back.`);
      await refresh(jobId);
    } catch (error) {
      fail(error);
    } finally {
      setBusy(false);
    }
  };
  const change = (s: ScanDto, fields: object): void => {
    sendEdit(jobId, "PATCH", recordPath(jobId, "scan", s.id), { version: s.version, ...fields })
      .then(() => refresh(jobId))
      .catch(fail);
  };
  const linksAt = job.links.filter((l) => l.nearSiteId === draft.siteId || l.farSiteId === draft.siteId);
  return (
    <div className="py-2" data-testid="scans">
      {scans.length === 0 && <p className="m-0">No scan yet. Silence in a scan is "nothing decoded", never "free".</p>}
      <ul className="m-0 list-none p-0" aria-label="Scans">
        {scans.map((s) => (
          <li key={s.id} className="border-b border-rule py-1">
            <details>
              <summary className="flex min-h-6 cursor-pointer flex-wrap items-baseline gap-x-4">
                <b>{names.get(s.siteId) ?? "?"}</b>
                <span className="font-mono">{s.heardOn}</span>
                <span>{s.rows.filter((r) => !r.isNoise).length} heard</span>
                <span className="text-ink-2">
                  {s.linkId === null
                    ? `with something in the hand, ${figure(s.gainDbi)} dBi, turned to each antenna`
                    : "by the radio itself, aimed"}
                  {s.note === "" ? "" : `; ${s.note}`}
                </span>
                {!s.counts && <span className="v-tight">does not count</span>}
              </summary>
              <ScanRows rows={s.rows} />
            </details>
            <p className="m-0 flex flex-wrap gap-x-4 gap-y-2">
              <button type="button" className="press min-h-6" aria-pressed={s.counts} onClick={() => change(s, { counts: !s.counts })}>
                {s.counts ? "Let it not count" : "Let it count"}
              </button>
              <a className="press min-h-6 leading-6" href={`/api/jobs/${jobId}/air/scans?scan=${s.id}`} download="scan.csv">
                As CSV, names hashed
              </a>
              <button
                type="button"
                className="press min-h-6"
                aria-label={`Take away the scan at ${names.get(s.siteId) ?? "?"} of ${s.heardOn}`}
                onClick={() => change(s, { deleted: true })}
              >
                Take it away
              </button>
            </p>
          </li>
        ))}
      </ul>
      <h3 className="m-0 mt-3 text-body font-bold">Bring one in</h3>
      <div className="mt-1 grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-x-4 gap-y-2">
        <SiteChoice
          label="Heard at"
          sites={job.sites}
          value={draft.siteId}
          choose={(id) => setDraft({ ...draft, siteId: id, linkId: null })}
        />
        <Field label="On the day" type="date" value={draft.heardOn} onChange={(e) => setDraft({ ...draft, heardOn: e.target.value })} />
        <Choice
          label="With"
          value={draft.linkId ?? ""}
          onChange={(e) => setDraft({ ...draft, linkId: e.target.value === "" ? null : e.target.value })}
        >
          <option value="">something in the hand</option>
          {linksAt.map((l) => (
            <option key={l.id} value={l.id}>
              the radio to {names.get(l.nearSiteId === draft.siteId ? l.farSiteId : l.nearSiteId)}, aimed
            </option>
          ))}
        </Choice>
        {draft.linkId === null && (
          <NumberField
            label="Its gain"
            unit="dBi"
            value={draft.gainDbi}
            least={-10}
            most={60}
            onChange={(v) => v !== null && setDraft({ ...draft, gainDbi: v })}
          />
        )}
        <Field label="Note" value={draft.note} maxLength={300} onChange={(e) => setDraft({ ...draft, note: e.target.value })} />
      </div>
      <label className="field mt-2">
        <span>Text of a scan or survey (iw), or a table: mhz, width_mhz, level_dbm, name, busy</span>
        <textarea
          rows={4}
          className="w-full border border-ink bg-paper p-1 font-mono text-note"
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            setRead(null);
          }}
        />
      </label>
      <p className="m-0 mt-1 flex flex-wrap items-center gap-x-4 gap-y-2">
        <button
          type="button"
          className="press min-h-6"
          disabled={busy || text.trim() === ""}
          onClick={() => void lookAt(text, withoutNames)}
        >
          Read the text
        </button>
        <label className="press min-h-6 cursor-pointer leading-6">
          Choose a file
          <input
            type="file"
            accept=".txt,.csv,.log,text/plain,text/csv"
            className="sr-only"
            data-testid="scan-file"
            onChange={(e) => {
              const file = e.target.files?.[0];
              e.target.value = "";
              if (file === undefined) return;
              if (file.size > 2_000_000) {
                setSaid("A scan's file may be 2 MB large.");
                return;
              }
              file
                .text()
                .then((content) => {
                  setText(content);
                  return lookAt(content, withoutNames);
                })
                .catch(fail);
            }}
          />
        </label>
        <label className="flex min-h-6 items-center gap-2">
          <input
            type="checkbox"
            className="h-6 w-6 accent-(--ink)"
            checked={withoutNames}
            onChange={(e) => {
              setWithoutNames(e.target.checked);
              if (text.trim() !== "") void lookAt(text, e.target.checked);
            }}
          />
          leave strangers' names out
        </label>
      </p>
      {read !== null && (
        <div className="mt-1 border border-ink p-2" data-testid="scan-read">
          <p className="m-0">
            {read.rows.length} rows read from a {read.form === "csv" ? "table" : read.form}
            {read.faults.length === 0 ? "." : `, ${read.faults.length} not taken:`}
          </p>
          {read.faults.length > 0 && (
            <ul className="m-0 list-none p-0">
              {read.faults.map((f) => (
                <li key={`${f.line}${f.reason}`} className="fault">
                  Line {f.line}: {f.reason}.
                </li>
              ))}
            </ul>
          )}
          <ScanRows rows={read.rows} />
          <p className="m-0 mt-1 flex gap-x-4">
            <button type="button" className="main-action" disabled={busy || read.rows.length === 0} onClick={() => void keep(read.rows)}>
              Keep this scan
            </button>
            <button type="button" className="press min-h-6" onClick={() => setRead(null)}>
              Leave it
            </button>
          </p>
        </div>
      )}
      <h3 className="m-0 mt-3 text-body font-bold">Or type one that was heard</h3>
      <div className="mt-1 grid grid-cols-[repeat(auto-fit,minmax(120px,1fr))] items-end gap-x-4 gap-y-2">
        <NumberField
          label="Frequency"
          unit="MHz"
          value={typed.centreMhz}
          least={2300}
          most={72_000}
          onChange={(v) => v !== null && setTyped({ ...typed, centreMhz: v })}
        />
        <NumberField
          label="Width"
          unit="MHz"
          value={typed.widthMhz}
          least={5}
          most={2160}
          onChange={(v) => v !== null && setTyped({ ...typed, widthMhz: v })}
        />
        <NumberField
          label="Level"
          unit="dBm"
          value={typed.levelDbm}
          least={-120}
          most={20}
          onChange={(v) => v !== null && setTyped({ ...typed, levelDbm: v })}
        />
        <NumberField
          label="Busy"
          unit="%"
          optional
          value={typed.busyShare === null ? null : typed.busyShare * 100}
          least={0}
          most={100}
          onChange={(v) => setTyped({ ...typed, busyShare: v === null ? null : v / 100 })}
        />
        <Field label="Name" value={typed.name} maxLength={64} onChange={(e) => setTyped({ ...typed, name: e.target.value })} />
        <button type="button" className="press min-h-6" disabled={busy} onClick={() => void keep([typed])}>
          Keep as a scan
        </button>
      </div>
      {said !== null && (
        <p role="status" className="m-0 mt-1">
          {said}
        </p>
      )}
    </div>
  );
};
