"use client";
import { useEffect, useRef, useState } from "react";
import { type HubMountDto, type HubMountsQuestion, recordPath, type SiteDto } from "@/contract";
import { byMount } from "@/core/solve";
import { bodyOf, streamRows } from "../../api/client";
import { useFeatures, useRefresh } from "../../api/queries";
import { Choice } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { sendEdit } from "../../state/browser-outbox";
import { errorSentence } from "../../wording/errors";
import { countText } from "../../wording/gear";
import { lengthIn, lengthText, lengthUnit, metresFrom } from "../../wording/numbers";
import type { OpenHub } from "./use-open-hub";

const MOST_ROWS = 12;
const ROOM_M = 10;

type State =
  | { readonly kind: "none" }
  | { readonly kind: "busy"; readonly done: number; readonly total: number; readonly rows: readonly HubMountDto[] }
  | { readonly kind: "found"; readonly rows: readonly HubMountDto[]; readonly stopped: boolean }
  | { readonly kind: "fault"; readonly words: string };

/** Other spots and heights for the hub's mount, over paths sampled anew: told as they are worked out, stopped at any moment. */
export const HubMounts = ({ open, say }: { open: OpenHub; say: (error: unknown) => void }) => {
  const { job, jobId, hub, fields, units, change, drawn } = open;
  const refresh = useRefresh();
  const [along, setAlong] = useState<string>("points");
  const [lowestM, setLowestM] = useState(2);
  const [highestM, setHighestM] = useState<number | null>(null);
  const [state, setState] = useState<State>({ kind: "none" });
  const running = useRef<AbortController | null>(null);
  useEffect(() => () => running.current?.abort(), []);
  const site = job.sites.find((s) => s.id === hub.siteId);
  const features = useFeatures(jobId, site === undefined ? [] : [site], site !== undefined);
  const lines = (features.data?.features ?? []).filter((f) => f.points.length > 1);
  const most = highestM ?? site?.mountMaxAglM ?? fields.mountAglM + ROOM_M;
  const look = async (): Promise<void> => {
    running.current?.abort();
    const abort = new AbortController();
    running.current = abort;
    const rows: HubMountDto[] = [];
    let of: readonly [number, number] = [0, 0];
    const tell = (): void => setState({ kind: "busy", done: of[0], total: of[1], rows: [...rows].sort(byMount) });
    tell();
    const where: HubMountsQuestion["along"] = along === "points" || along === "roof" || along === "sites" ? along : { featureId: along };
    try {
      await streamRows<HubMountDto>(
        `/api/jobs/${jobId}/hubs/${hub.id}/mounts`,
        { along: where, lowestM: Math.min(lowestM, most), highestM: most } satisfies HubMountsQuestion,
        abort.signal,
        {
          row: (row) => {
            rows.push(row);
            tell();
          },
          progress: (done, total) => {
            of = [done, total];
            tell();
          },
        },
      );
      setState({ kind: "found", rows: rows.sort(byMount), stopped: false });
    } catch (error) {
      if (abort.signal.aborted) setState({ kind: "found", rows: rows.sort(byMount), stopped: true });
      else setState({ kind: "fault", words: errorSentence(bodyOf(error), units) });
    }
  };
  const isHere = (m: HubMountDto): boolean =>
    m.mountId === fields.mountId && m.siteId === hub.siteId && Math.abs(m.aglM - fields.mountAglM) < 0.05;
  /** A spot of the roof or a line becomes a mounting point of the site, and the hub moves to it. */
  const take = async (m: HubMountDto): Promise<void> => {
    if (m.siteId === hub.siteId) {
      change({ mountId: m.mountId, mountAglM: m.aglM });
      return;
    }
    if (site === undefined) return;
    try {
      const id = `hub-${site.mountingPoints.length + 1}-${Math.round(m.eastM * 10)}-${Math.round(m.northM * 10)}`.slice(0, 40);
      const point = { id, name: m.name.slice(0, 80), aglM: m.aglM, maxAglM: null, behind: "", eastM: m.eastM, northM: m.northM };
      await sendEdit<SiteDto>(jobId, "PATCH", recordPath(jobId, "site", site.id), {
        version: site.version,
        mountingPoints: [...site.mountingPoints, point],
      });
      await refresh(jobId);
      change({ mountId: id, mountAglM: m.aglM });
    } catch (error) {
      say(error);
    }
  };
  const rows = state.kind === "busy" || state.kind === "found" ? state.rows : [];
  return (
    <section aria-label="Another mount for the hub" className="border-t border-rule px-4 py-2" data-testid="mounts">
      <h3 className="m-0 text-body font-bold">Another mount</h3>
      <div className="mt-1 flex flex-wrap items-end gap-x-4 gap-y-2">
        <span className="w-[220px]">
          <Choice label="Look along" value={along} onChange={(e) => setAlong(e.target.value)}>
            <option value="points">the mounting points of its site</option>
            <option value="roof">the edge of its roof</option>
            <option value="sites">the other sites of the job</option>
            {lines.map((f) => (
              <option key={f.id} value={f.id}>
                {f.name}
              </option>
            ))}
          </Choice>
        </span>
        <span className="w-[110px]">
          <NumberField
            label="From"
            unit={lengthUnit(units)}
            value={lengthIn(units, lowestM)}
            least={0}
            most={lengthIn(units, 500)}
            onChange={(v) => v !== null && setLowestM(metresFrom(units, v))}
          />
        </span>
        <span className="w-[110px]">
          <NumberField
            label="Up to"
            unit={lengthUnit(units)}
            value={lengthIn(units, most)}
            least={0}
            most={lengthIn(units, 500)}
            onChange={(v) => v !== null && setHighestM(metresFrom(units, v))}
          />
        </span>
        {state.kind === "busy" ? (
          <button type="button" className="press mb-1 min-h-6 text-body" onClick={() => running.current?.abort()}>
            Stop
          </button>
        ) : (
          <button
            type="button"
            className="press mb-1 min-h-6 text-body"
            disabled={fields.remotes.length === 0 || drawn !== null || (open.status.kind !== "saved" && open.status.kind !== "typing")}
            onClick={() => void look()}
          >
            Look for a better mount
          </button>
        )}
        <span role="status" className="cap pb-1">
          {state.kind === "busy" &&
            (state.total === 0 ? "reading the ground" : `${state.done} of ${countText(state.total, "spot", "spots")} looked at`)}
          {state.kind === "fault" && <span className="v-short">{state.words}</span>}
          {state.kind === "found" &&
            (rows.length === 0
              ? "No spot within reach of its remotes."
              : state.stopped
                ? "Stopped: what was looked at so far."
                : `${countText(rows.length, "spot", "spots")} looked at, the best first.`)}
        </span>
      </div>
      {rows.length > 0 && (
        <div className="overflow-x-auto">
          <table className="mt-1.5 w-full border-collapse text-line">
            <thead>
              <tr className="text-label text-ink-2">
                {["Spot", `up, ${lengthUnit(units)}`, "served", "cleared", "seen", "not served", ""].map((h, i) => (
                  <th key={h} scope="col" className={`pr-3 font-normal ${i === 0 || i === 5 ? "text-left" : "text-right"}`}>
                    {h === "" ? <span className="sr-only">What to do</span> : h}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.slice(0, MOST_ROWS).map((m) => (
                <tr key={`${m.name}-${m.latDeg}-${m.lonDeg}`} className={`border-t border-rule ${isHere(m) ? "bg-band" : ""}`}>
                  <td className="py-1 pr-3 font-figure">{m.name}</td>
                  <td className="whitespace-nowrap pr-3 text-right font-mono">{lengthText(units, m.aglM)}</td>
                  {[m.served, m.cleared, m.seen].map((n, i) => (
                    <td key={i} className="pr-3 text-right font-mono">
                      {n} of {m.of}
                    </td>
                  ))}
                  <td className="pr-3">{m.lost.join(", ")}</td>
                  <td className="whitespace-nowrap text-right">
                    {isHere(m) ? (
                      "as planned"
                    ) : m.siteId !== null && m.siteId !== hub.siteId ? (
                      <span className="cap">a hub of its own</span>
                    ) : (
                      <button type="button" className="press min-h-6 text-line" onClick={() => void take(m)}>
                        Plan it there
                      </button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <p className="cap m-0 mt-1">
        Served: the need kept with a sector turned to it; cleared: the policy met; seen: the bare line free. Over paths sampled anew from
        each spot. What a structure carries, and how it is reached, is for qualified people on site.
      </p>
    </section>
  );
};
