"use client";
import { useMemo, useState } from "react";
import {
  type BriefDto,
  type ClosureFields,
  type DaysFields,
  type JobBundle,
  judgedDays,
  lightOf,
  PERMISSIONS,
  proposedDays,
  type TaskFields,
} from "@/contract";
import { TASK_KINDS } from "@/core/days";
import { Choice, Field } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { ParsedField } from "../../controls/parsed-field";
import { AddRow, RemoveRow } from "../../controls/rows";
import { VerdictMark } from "../../marks/verdict-mark";
import type { Units } from "../../wording/numbers";
import { readClock, readClockWithin, readName, readNames } from "../../wording/read";
import { DaysStrip } from "./days-strip";
import { clashText, permissionText } from "./days-words";
import { TidePanel } from "./tide-panel";

const KIND_WORDS: Readonly<Record<TaskFields["kind"], string>> = {
  bench: "bench",
  install: "install",
  aim: "aim and prove",
  trees: "trees",
  lift: "lift",
  clean: "clean up",
  other: "something else",
};

/** Who does what on which day: tasks in their order, light, closures and water, what stands against them, and a calendar file. */
export const DaysPanel = ({
  job,
  linkId,
  brief,
  fields,
  now,
  change,
  crew,
  needsLift,
  width,
  setZone,
  calendar,
  units,
}: {
  job: JobBundle;
  linkId: string;
  brief: BriefDto;
  fields: DaysFields;
  now: () => DaysFields;
  change: (set: Partial<DaysFields>) => void;
  crew: readonly string[];
  needsLift: boolean;
  units: Units;
  /** Hands over the days as a calendar file. */
  calendar: () => void;
  width: number;
  setZone: (zone: string) => void;
}) => {
  const [chosen, setChosen] = useState<string | null>(null);
  const zone = job.job.timeZone;
  const clashes = useMemo(() => judgedDays(job, brief, fields), [job, brief, fields]);
  const task = fields.tasks.find((t) => t.id === chosen) ?? null;
  const set = (id: string, of: Partial<TaskFields>): void => change({ tasks: now().tasks.map((t) => (t.id === id ? { ...t, ...of } : t)) });
  const setClosure = (id: string, of: Partial<ClosureFields>): void =>
    change({ closures: now().closures.map((c) => (c.id === id ? { ...c, ...of } : c)) });
  const add = (): void => {
    const id = crypto.randomUUID();
    change({
      tasks: [
        ...now().tasks,
        {
          id,
          kind: "other",
          name: "task",
          siteId: null,
          people: [...crew],
          day: job.job.visitOn,
          from: "08:00",
          hours: 1,
          after: [],
          outside: true,
          waitsFor: null,
          note: "",
        },
      ],
    });
    setChosen(id);
  };
  const light = (siteId: string | null, day: string) =>
    lightOf(job.sites.find((s) => s.id === siteId) ?? { latDeg: job.job.centreLatDeg, lonDeg: job.job.centreLonDeg }, day, zone);
  const zones = useMemo(() => (typeof Intl.supportedValuesOf === "function" ? Intl.supportedValuesOf("timeZone") : []), []);
  return (
    <section aria-label="Days" className="grid gap-3 pt-2" data-testid="days">
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <label className="field">
          <span>Clocks of</span>
          <select value={zone} onChange={(e) => setZone(e.target.value)}>
            {["UTC", ...zones.filter((z) => z !== "UTC")].map((z) => (
              <option key={z}>{z}</option>
            ))}
            {!zones.includes(zone) && zone !== "UTC" && <option>{zone}</option>}
          </select>
        </label>
        {fields.tasks.length === 0 && (
          <button
            type="button"
            className="press min-h-6"
            onClick={() => change({ tasks: proposedDays(job, linkId, crew, needsLift, () => crypto.randomUUID()) })}
          >
            Propose the days from the plan
          </button>
        )}
        <AddRow onClick={add}>Add a task</AddRow>
        {fields.tasks.some((t) => t.day !== null) && (
          <button type="button" className="press min-h-6" onClick={calendar}>
            Calendar file
          </button>
        )}
      </div>
      {width > 0 && (
        <DaysStrip
          tasks={fields.tasks}
          closures={fields.closures}
          tides={fields.tides}
          clashes={clashes}
          lightOf={light}
          width={width}
          chosen={chosen}
          choose={setChosen}
        />
      )}
      {clashes.length > 0 && (
        <ul className="m-0 list-none p-0" aria-label="What stands against the days">
          {clashes.map((c, i) => (
            <li key={`${c.code}${c.taskId}${i}`} className="flex items-baseline gap-1.5" data-clash={c.code}>
              <VerdictMark verdict={c.verdict} a={6} />
              <button type="button" className={`press min-h-6 text-line v-${c.verdict}`} onClick={() => setChosen(c.taskId)}>
                {clashText(c, fields.tasks)}
              </button>
            </li>
          ))}
        </ul>
      )}
      {task !== null && (
        <section aria-label="This task" className="border border-rule p-2" data-testid="task">
          <div className="grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-x-5 gap-y-2.5">
            <ParsedField label="Task" shown={task.name} maxLength={120} read={readName} take={(name) => set(task.id, { name })} />
            <Choice label="Kind" value={task.kind} onChange={(e) => set(task.id, { kind: e.target.value as TaskFields["kind"] })}>
              {TASK_KINDS.map((k) => (
                <option key={k} value={k}>
                  {KIND_WORDS[k]}
                </option>
              ))}
            </Choice>
            <Choice
              label="At"
              value={task.siteId ?? ""}
              onChange={(e) => set(task.id, { siteId: e.target.value === "" ? null : e.target.value })}
            >
              <option value="">no site</option>
              {job.sites.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.name}
                </option>
              ))}
            </Choice>
            <Field
              label="Day"
              type="date"
              value={task.day ?? ""}
              onChange={(e) => set(task.id, { day: e.target.value === "" ? null : e.target.value })}
            />
            <ParsedField key={`${task.id}from`} label="From" shown={task.from} read={readClock} take={(from) => set(task.id, { from })} />
            <NumberField
              key={`${task.id}hours`}
              label="Takes"
              unit="h"
              value={task.hours}
              least={0.25}
              most={24}
              onChange={(v) => v !== null && set(task.id, { hours: v })}
            />
            <ParsedField
              key={`${task.id}people`}
              label="Who"
              shown={task.people.join(", ")}
              note="names with commas between"
              whenLeft
              read={readNames}
              take={(people) => set(task.id, { people: [...people] })}
            />
            <Choice
              label="Where it is done"
              value={task.outside ? "out" : "in"}
              onChange={(e) => set(task.id, { outside: e.target.value === "out" })}
            >
              <option value="out">outside, by daylight</option>
              <option value="in">inside</option>
            </Choice>
            <Choice
              label="Waits for"
              value={task.waitsFor ?? ""}
              onChange={(e) => set(task.id, { waitsFor: e.target.value === "" ? null : (e.target.value as TaskFields["waitsFor"]) })}
            >
              <option value="">nothing</option>
              {PERMISSIONS.map((k) => (
                <option key={k} value={k}>
                  {permissionText(k)}
                </option>
              ))}
            </Choice>
            <fieldset className="m-0 border-0 p-0">
              <legend className="text-note text-ink-2">Only after</legend>
              {fields.tasks
                .filter((t) => t.id !== task.id)
                .map((t) => (
                  <label key={t.id} className="flex min-h-6 items-center gap-1.5">
                    <input
                      type="checkbox"
                      checked={task.after.includes(t.id)}
                      onChange={(e) =>
                        set(task.id, { after: e.target.checked ? [...task.after, t.id] : task.after.filter((x) => x !== t.id) })
                      }
                    />
                    {t.name}
                  </label>
                ))}
            </fieldset>
          </div>
          <p className="m-0 mt-2">
            <button
              type="button"
              className="press min-h-6"
              onClick={() => {
                change({
                  tasks: now()
                    .tasks.filter((t) => t.id !== task.id)
                    .map((t) => ({ ...t, after: t.after.filter((x) => x !== task.id) })),
                });
                setChosen(null);
              }}
            >
              Take this task away
            </button>
          </p>
        </section>
      )}
      <section aria-label="Closures and water">
        <h3 className="m-0 text-body font-bold">
          Closures and water <span className="text-line font-said text-ink-2">typed from the harbour's or the owner's own table</span>
        </h3>
        {fields.closures.map((c) => (
          <div key={c.id} className="fields-row mt-1 grid grid-cols-[130px_150px_140px_90px_90px_minmax(0,1fr)_28px] gap-x-4">
            <Choice label="It is" value={c.kind} onChange={(e) => setClosure(c.id, { kind: e.target.value as ClosureFields["kind"] })}>
              <option value="closed">closed</option>
              <option value="water">water to work by</option>
            </Choice>
            <Choice
              label="At"
              value={c.siteId ?? ""}
              onChange={(e) => setClosure(c.id, { siteId: e.target.value === "" ? null : e.target.value })}
            >
              <option value="">everywhere</option>
              {job.sites.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.name}
                </option>
              ))}
            </Choice>
            <Field
              label="Day"
              type="date"
              value={c.day}
              onChange={(e) => e.target.value !== "" && setClosure(c.id, { day: e.target.value })}
            />
            <ParsedField
              label="From"
              shown={c.from}
              read={(text) => readClockWithin(text, null, c.to)}
              take={(from) => setClosure(c.id, { from })}
            />
            <ParsedField
              label="To"
              shown={c.to}
              read={(text) => readClockWithin(text, c.from, null)}
              take={(to) => setClosure(c.id, { to })}
            />
            <Field label="Why" value={c.why} maxLength={120} onChange={(e) => setClosure(c.id, { why: e.target.value })} />
            <div className="self-end">
              <RemoveRow
                label={`Take this time away: ${c.day} ${c.from}`}
                onClick={() => change({ closures: now().closures.filter((x) => x.id !== c.id) })}
              />
            </div>
          </div>
        ))}
        <AddRow
          onClick={() =>
            change({
              closures: [
                ...now().closures,
                { id: crypto.randomUUID(), siteId: null, day: job.job.visitOn, from: "12:00", to: "13:00", kind: "closed", why: "" },
              ],
            })
          }
        >
          Add a time
        </AddRow>
      </section>
      <TidePanel tides={fields.tides} change={(tides) => change({ tides })} units={units} />
    </section>
  );
};
