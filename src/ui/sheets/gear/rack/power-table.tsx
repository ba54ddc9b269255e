"use client";
import { useEffect, useState } from "react";
import type { PowerSchool, SchoolFigures } from "@/core/rack";
import { rateText, SCHOOL_WORDS } from "../../../wording/gear";
import { dbText, figure } from "../../../wording/numbers";

/** One candidate by the three schools of power, beside each other; pressing one plans this link by it. */
export const PowerTable = ({
  id,
  name,
  needMbps,
  targetDbm,
  inForce,
  ask,
  choose,
}: {
  id: string;
  name: string;
  needMbps: number;
  targetDbm: number;
  inForce: PowerSchool;
  /** The same function as long as its answers would be the same. */
  ask: (id: string) => Promise<readonly SchoolFigures[] | null>;
  choose: (school: PowerSchool) => void;
}) => {
  const [told, setTold] = useState<{ readonly id: string; readonly rows: readonly SchoolFigures[] | null } | null>(null);
  useEffect(() => {
    let gone = false;
    void ask(id).then(
      (rows) => {
        if (!gone) setTold({ id, rows });
      },
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, [id, ask]);
  const rows = told?.id === id ? told.rows : null;
  const target = rows?.find((r) => r.school === "target");
  const hot = rows?.find((r) => r.school === "highest");
  return (
    <section aria-label="Power" className="border-b border-rule py-2.5">
      <h3 className="m-0 text-body font-heading">Power of {name}</h3>
      {rows === null ? (
        <p className="cap m-0" role="status">
          Working out the three schools.
        </p>
      ) : (
        <>
          <table className="mt-1 w-full border-collapse text-line">
            <thead>
              <tr className="text-right text-label text-ink-2 [&>th]:pl-2 [&>th]:font-normal">
                <th scope="col">
                  <span className="sr-only">School</span>
                </th>
                <th scope="col">set</th>
                <th scope="col">level</th>
                <th scope="col">kept</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((r) => (
                <tr key={r.school} className={r.school === inForce ? "bg-band [&>*]:px-1" : "[&>*]:px-1"}>
                  <th scope="row" className="py-0.5 text-left font-normal">
                    <button
                      type="button"
                      aria-pressed={r.school === inForce}
                      className={`min-h-6 text-left ${r.school === inForce ? "font-figure" : "press"}`}
                      onClick={() => choose(r.school)}
                    >
                      {r.school === "target" ? `to ${figure(targetDbm)}` : SCHOOL_WORDS[r.school]}
                    </button>
                  </th>
                  <td className="figure pl-2 text-right font-said">
                    {r.nearDbm === r.farDbm ? figure(r.nearDbm) : `${figure(r.nearDbm)}/${figure(r.farDbm)}`}
                  </td>
                  <td className="figure pl-2 text-right font-said">{figure(r.levelDbm)}</td>
                  <td className="figure pl-2 text-right">{rateText(r.multiple * needMbps)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {target?.missedDb != null && (
            <p className="cap m-0 mt-1">
              {target.missedDb > 0
                ? `It cannot come down to ${figure(targetDbm)} dBm: at its lowest it is ${dbText(target.missedDb, 0)} stronger. A smaller antenna would.`
                : `It cannot reach ${figure(targetDbm)} dBm: radio and rules leave it ${dbText(-target.missedDb, 0)} weaker.`}
            </p>
          )}
          {hot !== undefined && hot.hotDb > 0.05 && (
            <p className="cap m-0 mt-1">At its highest the densest modulation is {dbText(hot.hotDb)} too hot.</p>
          )}
          <p className="cap m-0 mt-1">Set and level in dBm, kept in Mbps both ways together.</p>
        </>
      )}
    </section>
  );
};
