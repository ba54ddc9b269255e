"use client";
import type { RfDistance, SafetyFields, SiteKit } from "@/contract";
import type { Risk } from "@/core/kit";
import { Field } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { UnitField } from "../../controls/unit-field";
import { RISK_CAUTION, RISK_WORDS, riskText, STATE_WORDS } from "../../wording/kit";
import { lengthText, type Units } from "../../wording/numbers";

const rfText = (x: RfDistance, units: Units): string =>
  `Before ${x.name} nobody nearer than ${lengthText(units, x.mostM)} at the most that it can send, ${lengthText(units, x.plannedM)} as planned.`;

/** Before anyone climbs: each risk of a site answered, a stop lifted only by somebody competent who does not do the work. */
export const RiskPanel = ({
  name,
  site,
  safety,
  change,
  rf,
  units,
}: {
  name: string;
  site: SiteKit;
  safety: SafetyFields;
  change: (set: Partial<SafetyFields>) => void;
  rf: readonly RfDistance[];
  units: Units;
}) => {
  const set = (risk: Risk, fields: Partial<NonNullable<SafetyFields["answers"][Risk]>>): void => {
    const was = safety.answers[risk] ?? { state: "open" as const, note: "", competent: "", lifted: false };
    change({ answers: { ...safety.answers, [risk]: { ...was, ...fields } } });
  };
  return (
    <section aria-label={`Before anyone climbs at ${name}`} className="pt-2">
      <h3 className="m-0 text-body font-bold">{name}: before anyone climbs</h3>
      <table className="mt-1 w-full border-collapse text-line" aria-label={`Risks at ${name}`}>
        <tbody>
          {site.risks.map((r) => {
            const answer = safety.answers[r.risk];
            return (
              <tr key={r.risk} className="border-t border-rule align-baseline [&>td]:py-1 [&>td]:pr-3" data-risk={r.risk}>
                <td className="whitespace-nowrap font-bold">{RISK_WORDS[r.risk]}</td>
                <td>
                  <select
                    aria-label={`${RISK_WORDS[r.risk]} at ${name}`}
                    className="typed"
                    value={answer?.state ?? "open"}
                    onChange={(e) => set(r.risk, { state: e.target.value as (typeof STATE_WORDS)[number][0] })}
                  >
                    {STATE_WORDS.map(([state, words]) => (
                      <option key={state} value={state}>
                        {words}
                      </option>
                    ))}
                  </select>
                </td>
                <td className={`v-${r.verdict}`}>{riskText(r, answer?.competent ?? "")}</td>
                <td>
                  {(answer?.state === "help" || answer?.state === "stop") && (
                    <span className="flex flex-wrap items-baseline gap-x-3">
                      <input
                        aria-label={`Who is competent for ${RISK_WORDS[r.risk].toLowerCase()} at ${name}`}
                        className="typed w-40"
                        placeholder="who is competent"
                        maxLength={80}
                        value={answer.competent}
                        onChange={(e) => set(r.risk, { competent: e.target.value })}
                      />
                      {answer.state === "stop" && (
                        <label className="flex items-center gap-1">
                          <input
                            type="checkbox"
                            className="h-6 w-6"
                            checked={answer.lifted}
                            onChange={(e) => set(r.risk, { lifted: e.target.checked })}
                          />{" "}
                          lifted by them
                        </label>
                      )}
                    </span>
                  )}
                </td>
                <td className="cap">
                  {RISK_CAUTION[r.risk]}
                  {r.risk === "rf" && rf.length > 0 && ` ${rf.map((x) => rfText(x, units)).join(" ")}`}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <div className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(170px,1fr))] gap-x-5 gap-y-2.5">
        <UnitField
          quantity="height"
          label="Nearest overhead line"
          value={safety.lineM}
          most={500}
          onChange={(lineM) => change({ lineM })}
        />
        <UnitField
          quantity="height"
          label="Approach distance by the local rule"
          value={safety.approachM}
          most={100}
          onChange={(approachM) => change({ approachM })}
        />
        <NumberField
          label="Wind that ends the work"
          unit="m/s"
          optional
          value={safety.windLimitMS}
          least={0}
          most={60}
          onChange={(windLimitMS) => change({ windLimitMS })}
        />
        <Field
          label="Rescue plan where a harness is used"
          value={safety.rescue}
          maxLength={400}
          onChange={(e) => change({ rescue: e.target.value })}
        />
        <Field label="Check-in times" value={safety.checkIn} maxLength={200} onChange={(e) => change({ checkIn: e.target.value })} />
      </div>
    </section>
  );
};
