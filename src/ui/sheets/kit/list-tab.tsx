"use client";
import type { KitRow } from "@/contract";
import { centsText, KIT_PLACES, type KitPlace } from "@/core/kit";
import { Choice, Field } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { useOpen } from "../../state/me";
import { useKeptDraft } from "../../state/use-kept-draft";
import { WHERE_WORDS } from "../../wording/kit";
import { KitList } from "./kit-list";
import { KitSketch } from "./kit-sketch";
import { OfferedLessons, OwnLessons } from "./lessons-panel";
import { ReserveLine } from "./reserve-line";
import type { OpenKit } from "./use-open-kit";

/** Leads from the drawing to the lines of a place. */
const showPlace = (list: string, where: KitPlace): void => {
  const place = document.getElementById(`${list}-${where}`);
  place?.scrollIntoView({ block: "nearest" });
  place?.focus();
};

interface NewRow {
  readonly name: string;
  readonly quantity: number;
  readonly where: KitPlace;
  readonly siteId: string;
}

/** What to pick at both ends, what is reserved, what earlier sites taught, and rows of one's own. */
export const ListTab = ({ open, narrow, isDrawn }: { open: OpenKit; narrow: boolean; isDrawn: boolean }) => {
  const { job, jobId, near, far, sites, fields, units } = open;
  const rows = sites.flatMap((s) => s.rows);
  const nameOf = (siteId: string): string => job.sites.find((s) => s.id === siteId)?.name ?? "a site that is gone";
  const [typed, setRow] = useKeptDraft<NewRow>(`kit-row.${jobId}`);
  const row: NewRow = {
    name: "",
    quantity: 1,
    where: "tools",
    ...typed,
    siteId: sites.find((s) => s.siteId === typed.siteId)?.siteId ?? far.siteId,
  };
  const { asks, prices } = useOpen();
  const isWired = sites.some((s) => s.siteId === row.siteId);
  const addRow = (): void => {
    const { name, ...of } = row;
    const own = { id: crypto.randomUUID(), ...of, name: name.trim(), unit: "", priceEur: null, why: "" };
    open.record.change({ own: [...open.now().own, own] });
    setRow({});
  };
  const removeRow = (r: KitRow): void => open.record.change({ own: open.now().own.filter((o) => !r.key.endsWith(`|own|${o.id}`)) });
  return (
    <>
      {asks("plan") && <ReserveLine rows={rows} busy={open.busy.has("reserve")} reserve={(of, isAway) => void open.reserve(of, isAway)} />}
      <OfferedLessons job={job} kit={fields} now={open.now} change={open.record.change} ends={sites} />
      <div className={narrow ? "grid gap-4" : "grid grid-cols-2 gap-6"}>
        {sites.map((s) => (
          <section
            key={s.siteId}
            aria-label={`Kit of ${nameOf(s.siteId)}`}
            className="min-w-0 pt-1"
            data-testid={s.siteId === near.siteId ? "kit-near" : "kit-far"}
          >
            <h3 className={`m-0 text-body font-bold ${s.siteId === near.siteId ? "text-near" : "text-far"}`}>{nameOf(s.siteId)}</h3>
            <div className="flex gap-3">
              {isDrawn && (
                <div className="pt-2">
                  <KitSketch
                    name={nameOf(s.siteId)}
                    wiring={open.wirings.find((w) => w.siteId === s.siteId)}
                    rows={s.rows}
                    mirror={s.siteId === near.siteId}
                    show={(where) => showPlace(`kit-${s.siteId}`, where)}
                  />
                </div>
              )}
              <div className="min-w-0 flex-1">
                <KitList
                  idOf={`kit-${s.siteId}`}
                  rows={s.rows}
                  units={units}
                  busy={open.busy}
                  pick={(r) => void open.pick(r)}
                  there={(r) => void open.there(r)}
                  putBack={(r) => void open.putBackRow(r)}
                  remove={removeRow}
                  money={prices ? centsText : () => ""}
                />
              </div>
            </div>
          </section>
        ))}
      </div>
      {open.beside.length > 0 && (
        <section aria-label="Picked and no longer in the plan" className="mt-3" data-testid="beside">
          <h3 className="m-0 text-body font-bold">Picked, and no longer in the plan</h3>
          <ul className="m-0 list-none p-0">
            {open.beside.map((p) => (
              <li key={p.id} className="flex flex-wrap items-baseline gap-x-4">
                {p.count} × {p.name}
                <button
                  type="button"
                  className="press min-h-6 text-line"
                  disabled={open.busy.has(p.id)}
                  onClick={() => void open.putBack(p)}
                >
                  Put it back
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
      <div className="no-print mt-3 flex flex-wrap items-end gap-x-4 gap-y-2">
        <Field label="A row of your own" value={row.name} maxLength={120} onChange={(e) => setRow({ ...row, name: e.target.value })} />
        <NumberField
          label="How many"
          value={row.quantity}
          least={0.01}
          most={100_000}
          onChange={(v) => v !== null && setRow({ ...row, quantity: v })}
        />
        <Choice label="Used" value={row.where} onChange={(e) => setRow({ ...row, where: e.target.value as KitPlace })}>
          {KIT_PLACES.map((w) => (
            <option key={w} value={w}>
              {WHERE_WORDS[w]}
            </option>
          ))}
        </Choice>
        <Choice label="At" value={row.siteId} onChange={(e) => setRow({ ...row, siteId: e.target.value })}>
          {sites.map((s) => (
            <option key={s.siteId} value={s.siteId}>
              {nameOf(s.siteId)}
            </option>
          ))}
        </Choice>
        <button type="button" className="press min-h-6" disabled={row.name.trim() === "" || !isWired} onClick={addRow}>
          Add the row
        </button>
      </div>
      <OwnLessons job={job} kit={fields} now={open.now} change={open.record.change} ends={sites} />
    </>
  );
};
