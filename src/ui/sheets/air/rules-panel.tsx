"use client";
import Link from "next/link";
import { useState } from "react";
import { ownRulesFileSchema, recordPath } from "@/contract";
import { type RuleRow, regulate, rowsInForce } from "@/core/radio";
import { bodyOf } from "../../api/client";
import { useRefresh } from "../../api/queries";
import { DataTable } from "../../controls/data-table";
import { sendEdit } from "../../state/browser-outbox";
import { errorSentence } from "../../wording/errors";
import { figure } from "../../wording/numbers";
import { RULE_COLUMNS } from "./rule-columns";
import type { OpenAir } from "./use-open-air";

/** What the link that is looked at may use where it is, and which rule cuts it. */
const ChosenLink = ({ open }: { open: OpenAir }) => {
  const unit = open.built.job.units.find((u) => u.id === open.unitId) ?? open.built.job.units.find((u) => u.id === open.receiver?.unitId);
  const link = unit?.links[0];
  if (unit === undefined || link === undefined) return null;
  const { plan } = link;
  const ends = [plan.near, plan.far] as const;
  return (
    <div className="mb-2 border-b border-rule pb-2">
      <p className="m-0">
        <b>{unit.name}</b> on {figure(plan.centreMhz)} MHz, {figure(plan.widthMhz)} wide:
      </p>
      <ul className="m-0 list-none p-0">
        {ends.map((e, i) => {
          const gainDbi = e.radio.antenna.gainDbi ?? e.antenna?.gainDbi ?? 0;
          const r = regulate(plan.policy.domain, plan.centreMhz, plan.widthMhz, {
            use: e.use,
            gainDbi,
            beamwidthDeg: null,
            radarDetection: e.radio.radarDetection,
            powerControl: e.radio.automaticPowerControl ?? true,
            mesh: false,
            permissions: plan.permissions,
            ownRules: plan.policy.ownRules,
            day: plan.day,
          });
          return (
            <li key={e.name + String(i)}>
              {e.name}:{" "}
              {r.status === "forbidden"
                ? `not allowed (${r.reason.replaceAll("-", " ")})`
                : `${figure(r.limit.maxEirpDbm, 1)} dBm EIRP, cut by ${r.limit.cutBy} of ${r.limit.rule.id} (${r.limit.rule.source}); set to ${figure(e.txPowerDbm, 1)} dBm of ${figure(r.maxConductedDbm, 1)}`}
              {r.status === "allowed" && r.radarWaitS !== null ? `; radar duty, ${figure(r.radarWaitS)} s of listening before use` : ""}
              {r.status === "allowed" && r.permission !== null ? (
                <>
                  {" "}
                  {r.permission.state === "covers"
                    ? `permission ${r.permission.recorded?.number ?? ""}${r.permission.recorded?.until == null ? "" : ` until ${r.permission.recorded.until}`}`
                    : `a permission is asked for: ${r.permission.asks}. `}
                  {r.permission.state !== "covers" && (
                    <Link className="press" href={`/jobs/${open.jobId}/section/${link.id}`}>
                      Record it at the link
                    </Link>
                  )}
                </>
              ) : null}
            </li>
          );
        })}
      </ul>
    </div>
  );
};

const EXAMPLE =
  '{ "rows": [ { "id": "own-5900", "domain": "FCC-like", "lowMhz": 5850, "highMhz": 5895, "eirpMaxDbm": 30, "source": "…", "asOf": "2026" } ] }';

/** The rows of the job's rules, what the chosen link may use, and the job's own rows. */
export const RulesPanel = ({ open }: { open: OpenAir }) => {
  const { job, jobId, units } = open;
  const refresh = useRefresh();
  const [text, setText] = useState("");
  const [said, setSaid] = useState<string | null>(null);
  const own = job.job.ownRules;
  const inForce = rowsInForce(job.job.ruleDomain, own);
  const save = (rows: unknown, words: string): void => {
    sendEdit(jobId, "PATCH", recordPath(jobId, "job", jobId), { version: job.job.version, ownRules: rows })
      .then(() => {
        setSaid(words);
        setText("");
        return refresh(jobId);
      })
      .catch((error: unknown) => setSaid(errorSentence(bodyOf(error), units)));
  };
  const bring = (): void => {
    let raw: unknown;
    try {
      raw = JSON.parse(text);
    } catch (error) {
      setSaid(`The text is no JSON: ${(error as Error).message}.`);
      return;
    }
    const read = ownRulesFileSchema.safeParse(raw);
    if (!read.success) {
      const [issue] = read.error.issues;
      const [row, ...field] = issue?.path ?? [];
      setSaid(
        `${typeof row === "number" ? `Row ${row + 1}${field.length > 0 ? `, ${field.join(".")}` : ""}: ` : ""}${issue?.message ?? "cannot be read"}.`,
      );
      return;
    }
    const foreign = read.data.find((r) => r.domain !== job.job.ruleDomain);
    const taken = new Set(read.data.map((r) => r.id));
    const shipped = read.data.find((r) => rowsInForce(r.domain).some((s) => s.id === r.id));
    if (shipped !== undefined) {
      setSaid(`${shipped.id} is the name of a shipped row, which stays as it is. Give yours another, and name it under "replaces".`);
      return;
    }
    save(
      [...own.filter((r) => !taken.has(r.id)), ...read.data],
      `${read.data.length === 1 ? "One row is" : `${read.data.length} rows are`} in force in this job${foreign === undefined ? "" : `; ${foreign.id} is of the ${foreign.domain} set and waits for it`}. Undo takes it back.`,
    );
  };
  return (
    <div className="py-2" data-testid="rules">
      <ChosenLink open={open} />
      <h3 className="m-0 text-body font-bold">Rows in force, {job.job.ruleDomain}</h3>
      <div className="overflow-x-auto">
        <DataTable label="Rule rows" rows={inForce as readonly RuleRow[]} columns={RULE_COLUMNS} />
      </div>
      <h3 className="m-0 mt-3 text-body font-bold">Rows of this job's own</h3>
      {own.length === 0 ? (
        <p className="m-0">None. Shipped rows are never changed in place: a row of your own stands beside them, or instead of one.</p>
      ) : (
        <ul className="m-0 list-none p-0" aria-label="Own rows">
          {own.map((r) => (
            <li key={r.id} className="flex flex-wrap items-baseline gap-x-4 gap-y-2 border-b border-rule py-0.5">
              <b>{r.id}</b>
              <span className="font-mono">
                {figure(r.lowMhz)} to {figure(r.highMhz)}
              </span>
              <span className="text-ink-2">
                {r.source}, {r.asOf}
                {r.replaces === null ? "" : `; instead of ${r.replaces}`}
              </span>
              <button
                type="button"
                className="press min-h-6"
                onClick={() =>
                  save(
                    own.filter((x) => x.id !== r.id),
                    `${r.id} is taken away.`,
                  )
                }
              >
                Take it away
              </button>
            </li>
          ))}
        </ul>
      )}
      <label className="field mt-2">
        <span>Rows as JSON, each with its source; what is left out is as in the plainest row</span>
        <textarea
          rows={4}
          className="w-full border border-ink bg-paper p-1 font-mono text-note"
          placeholder={EXAMPLE}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <p className="m-0 mt-1">
        <button type="button" className="press min-h-6" disabled={text.trim() === ""} onClick={bring}>
          Check and take in
        </button>
      </p>
      {said !== null && (
        <p role="status" className="m-0 mt-1">
          {said}
        </p>
      )}
    </div>
  );
};
