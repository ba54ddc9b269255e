"use client";
import { laterPlace } from "@/core/hub";
import { NumberField } from "../../controls/number-field";
import { AddRow, RemoveRow } from "../../controls/rows";
import { figure } from "../../wording/numbers";
import { sectorName } from "./hub-start";
import type { OpenHub } from "./use-open-hub";

const MOST = 8;

/** Bearings kept free for later: which beam would take each in, and what is then left of its air. */
export const LaterRows = ({ open }: { open: OpenHub }) => {
  const { fields, judged, now, change, drawn } = open;
  if (drawn !== null) return null;
  const set = (i: number, to: Partial<(typeof fields.later)[number]>): void =>
    change({ later: now().later.map((l, k) => (k === i ? { ...l, ...to } : l)) });
  const words = (l: (typeof fields.later)[number]): { readonly text: string; readonly bad: boolean } => {
    const place = laterPlace(judged.sectors, judged.aims, l);
    if (place.sector === null) return { text: "No sector is there yet.", bad: true };
    const name = sectorName(fields.sectors[place.sector]!, fields.sectors);
    if (place.besideDeg > 0) return { text: `Lies in no beam: ${figure(place.besideDeg, 1)}° beside the ${name}.`, bad: true };
    if (place.airShare === null) return { text: `In the ${name} beam, on which nobody hangs yet.`, bad: false };
    const takes = `In the ${name} beam, about ${figure(place.airShare * 100)} % of its air`;
    if (place.leftShare === null || place.leftShare < -1e-9) return { text: `${takes}, which it has not.`, bad: true };
    return { text: `${takes}; ${figure(place.leftShare * 100)} % are then left.`, bad: false };
  };
  return (
    <section aria-label="Kept free for later" className="border-t border-rule px-4 py-2 text-line" data-testid="later">
      <h3 className="m-0 text-body font-bold">Kept free for later</h3>
      {fields.later.map((l, i) => {
        const { text, bad } = words(l);
        return (
          <div key={i} className="flex flex-wrap items-end gap-x-4 gap-y-1">
            <span className="w-[92px]">
              <NumberField
                label="Bearing"
                unit="°"
                value={l.bearingDeg}
                least={0}
                most={360}
                onChange={(v) => v !== null && set(i, { bearingDeg: v })}
              />
            </span>
            <span className="w-[92px]">
              <NumberField
                label="Sends"
                unit="Mbps"
                value={l.mbps}
                least={0}
                most={10_000}
                onChange={(v) => v !== null && set(i, { mbps: v })}
              />
            </span>
            <span className={`pb-1.5 ${bad ? "v-tight font-figure" : ""}`}>{text}</span>
            <RemoveRow
              label={`Keep ${figure(l.bearingDeg)}° free no more`}
              onClick={() => change({ later: now().later.filter((_, k) => k !== i) })}
            />
          </div>
        );
      })}
      <AddRow disabled={fields.later.length >= MOST} onClick={() => change({ later: [...now().later, { bearingDeg: 0, mbps: 10 }] })}>
        A bearing
      </AddRow>
    </section>
  );
};
