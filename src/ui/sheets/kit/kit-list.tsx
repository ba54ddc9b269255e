"use client";
import type { KitRow } from "@/contract";
import { KIT_PLACES } from "@/core/kit";
import { VerdictMark } from "../../marks/verdict-mark";
import { placeState, placeStateText, quantityText, WHERE_WORDS } from "../../wording/kit";
import type { Units } from "../../wording/numbers";

const stockText = (r: KitRow, units: Units): string => {
  if (r.state === "reserved") return "reserved";
  if (r.held > 0 && r.state !== "picked") return `${quantityText({ ...r, quantity: r.held }, units)} in hand`;
  if (r.state === "missing" && r.left !== r.stock) return `${r.left === 0 ? "none" : r.left} left of ${r.stock}`;
  return r.stock === 0 ? "none left" : `${r.stock} in stock`;
};

/** The list to pick from, laid by where it is used; each line says why it is there. */
export const KitList = ({
  idOf,
  rows,
  units,
  busy,
  pick,
  there,
  putBack,
  remove,
  money,
}: {
  /** Name of the list on the page: its places are found by it. */
  idOf: string;
  rows: readonly KitRow[];
  units: Units;
  /** The line that is on its way. */
  busy: ReadonlySet<string>;
  pick: (r: KitRow) => void;
  there: (r: KitRow) => void;
  putBack: (r: KitRow) => void;
  remove: (r: KitRow) => void;
  money: (cents: number) => string;
}) => (
  <div>
    {KIT_PLACES.map((where) => {
      const of = rows.filter((r) => r.where === where);
      return of.length === 0 ? null : (
        <section key={where} id={`${idOf}-${where}`} tabIndex={-1} aria-label={WHERE_WORDS[where]} className="scroll-mt-2 pt-1.5">
          <h4 className="m-0 flex items-center gap-2 text-line font-heading">
            {WHERE_WORDS[where]}
            <span className="h-px flex-1 bg-rule" />
            <span className={`text-note ${placeState(of).missing > 0 ? "v-short font-figure" : "text-ink-2"}`}>{placeStateText(of)}</span>
          </h4>
          <ul className="m-0 list-none p-0">
            {of.map((r) => (
              <li
                key={r.key}
                className={`grid grid-cols-[26px_58px_minmax(0,1fr)_auto] items-start gap-x-2 py-0.5 leading-6 ${r.state === "missing" ? "v-short font-figure" : ""}`}
                data-kit={r.name}
                data-state={r.state}
              >
                <span className="flex h-6 items-center justify-center">
                  {r.state === "missing" ? (
                    <VerdictMark verdict="short" a={7} />
                  ) : r.state === "there" ? (
                    <span aria-hidden="true">–</span>
                  ) : (
                    <input
                      type="checkbox"
                      className="h-[18px] w-[18px]"
                      aria-label={`${r.name}, picked`}
                      checked={r.state === "picked"}
                      disabled={busy.has(r.pickId)}
                      onChange={() => pick(r)}
                    />
                  )}
                </span>
                <span className="text-right font-mono">{quantityText(r, units)}</span>
                <details className="min-w-0">
                  <summary className="cursor-pointer list-none [&::-webkit-details-marker]:hidden">
                    {r.name}
                    {r.stock !== null && <span className="cap inline-block whitespace-nowrap pl-1"> {stockText(r, units)}</span>}
                  </summary>
                  <p className="cap m-0">{r.why.join("; ")}.</p>
                  <p className="m-0 flex flex-wrap gap-x-3">
                    <button type="button" className="press min-h-6 text-line" disabled={busy.has(r.pickId)} onClick={() => there(r)}>
                      {r.state === "there" ? "It is not there" : "It is there already"}
                    </button>
                    {r.held > 0 && r.state !== "picked" && (
                      <button type="button" className="press min-h-6 text-line" disabled={busy.has(r.pickId)} onClick={() => putBack(r)}>
                        {r.state === "reserved" ? "Reserve it no longer" : "Put back what is in hand"}
                      </button>
                    )}
                    {r.own && (
                      <button type="button" className="press min-h-6 text-line" onClick={() => remove(r)}>
                        Take this row away
                      </button>
                    )}
                  </p>
                </details>
                <span className="text-right font-mono">{r.state === "there" || r.costCents === null ? "" : money(r.costCents)}</span>
              </li>
            ))}
          </ul>
        </section>
      );
    })}
  </div>
);
