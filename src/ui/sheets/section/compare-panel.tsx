"use client";
import { useState } from "react";
import type { DesignFields, HardwareDto, KeptDesignDto } from "@/contract";
import type { LinkResult } from "@/core/link";
import { ScrollRegion } from "../../controls/scroll-region";
import { VerdictMark } from "../../marks/verdict-mark";
import type { LaidCandidate } from "../../state/laid-candidates";
import { dbmText, figure, lengthText, mbpsText, type Units } from "../../wording/numbers";
import { VERDICT_WORD } from "../../wording/verdicts";
import type { Evaluation } from "./use-evaluation";

interface Row {
  readonly what: string;
  readonly now: string;
  readonly other: string;
}

/** One that this design can be held against. */
const Against = ({
  of,
  isShown,
  choose,
  busy,
  drop,
}: {
  of: { readonly id: string; readonly name: string };
  isShown: boolean;
  choose: (id: string | null) => void;
  busy: boolean;
  drop: () => void;
}) => (
  <div className="mt-2 flex items-baseline justify-between gap-2 border-b border-rule pb-1">
    <button
      type="button"
      className={`press text-body ${isShown ? "bg-ink px-1 text-paper" : ""}`}
      aria-pressed={isShown}
      onClick={() => choose(isShown ? null : of.id)}
    >
      Against {of.name}
    </button>
    <button type="button" className="press text-line" aria-label={`Forget ${of.name}`} disabled={busy} onClick={drop}>
      Forget
    </button>
  </div>
);

const roomText = (r: LinkResult, units: Units): string => {
  const w = r.clearance.worst;
  if (w === null) return "not known";
  return w.missM > 0.0005 ? `${lengthText(units, w.missM)} short` : `${lengthText(units, -w.missM)} spare`;
};
const levelText = (r: LinkResult): string => {
  const { toFar, toNear } = r.service;
  return toFar === null || toNear === null ? "none" : dbmText(Math.min(toFar.levelDbm, toNear.levelDbm));
};
const rateText = (r: LinkResult): string => {
  const { toFar, toNear } = r.service;
  return toFar === null || toNear === null ? "none" : mbpsText(Math.min(toFar.plannedMbps, toNear.plannedMbps));
};

/** Everything of two designs that an installer would weigh, side by side. */
const rowsOf = (
  now: { readonly design: DesignFields; readonly result: LinkResult },
  other: { readonly design: DesignFields; readonly result: LinkResult },
  hardware: HardwareDto,
  units: Units,
): Row[] => {
  const radio = (id: string): string => hardware.radios.find((r) => r.id === id)?.name ?? id;
  const antenna = (id: string | null): string => (id === null ? "own" : (hardware.antennas.find((a) => a.id === id)?.name ?? id));
  const pair = <T,>(what: string, of: (side: { readonly design: DesignFields; readonly result: LinkResult }) => T): Row => ({
    what,
    now: String(of(now)),
    other: String(of(other)),
  });
  return [
    pair("Verdict", (s) => VERDICT_WORD[s.result.verdict]),
    pair("Clearance", (s) => VERDICT_WORD[s.result.clearance.verdict]),
    pair("Worst place", (s) => roomText(s.result, units)),
    pair("Lost in", (s) => s.result.clearance.lostInYear ?? "not by growth"),
    pair("Level, weaker way", (s) => levelText(s.result)),
    pair("Plan with, slower way", (s) => rateText(s.result)),
    pair("Near mount", (s) => lengthText(units, s.design.nearMountAglM)),
    pair("Far mount", (s) => lengthText(units, s.design.farMountAglM)),
    pair("Near radio", (s) => radio(s.design.nearRadioId)),
    pair("Far radio", (s) => radio(s.design.farRadioId)),
    pair("Near antenna", (s) => antenna(s.design.nearAntennaId)),
    pair("Far antenna", (s) => antenna(s.design.farAntennaId)),
    pair("Channel", (s) => `${figure(s.design.centreMhz)}, ${figure(s.design.widthMhz)} MHz`),
    pair("Powers", (s) => `${figure(s.design.nearPowerDbm)} and ${figure(s.design.farPowerDbm)} dBm`),
    pair("Trees cut", (s) => Object.keys(s.design.trimsM).length),
  ];
};

/** Keeps designs of this link and lays one over the drawing; what differs is marked. */
export const ComparePanel = ({
  design,
  evaluation,
  kept,
  laid,
  forget,
  compared,
  other,
  elsewhere,
  hardware,
  units,
  keep,
  choose,
  take,
  drop,
}: {
  design: DesignFields;
  evaluation: Evaluation;
  kept: readonly KeptDesignDto[];
  /** From the rack, to be looked at here. */
  laid: readonly LaidCandidate[];
  forget: (id: string) => void;
  compared: KeptDesignDto | null;
  other: Evaluation | null;
  /** The kept design stands at other mounting points. */
  elsewhere: boolean;
  hardware: HardwareDto;
  units: Units;
  keep: () => Promise<void>;
  choose: (id: string | null) => void;
  take: (fields: DesignFields) => void;
  drop: (d: KeptDesignDto) => Promise<void>;
}) => {
  const [busy, setBusy] = useState(false);
  const once = (work: () => Promise<void>): void => {
    if (busy) return;
    setBusy(true);
    void work().finally(() => setBusy(false));
  };
  return (
    <ScrollRegion label="Compare" className="flex-1 px-3.5 py-2.5 text-line">
      <button type="button" className="press text-body" disabled={busy} onClick={() => once(keep)}>
        Keep this design to compare
      </button>
      {laid.length > 0 && (
        <>
          <h3 className="m-0 mt-2 text-note font-said text-ink-2">From the rack, each with its first zone in the drawing</h3>
          {laid.map((d) => (
            <Against key={d.id} of={d} isShown={compared?.id === d.id} choose={choose} busy={false} drop={() => forget(d.id)} />
          ))}
        </>
      )}
      {kept.length === 0 && laid.length === 0 && (
        <p className="cap m-0 mt-2">Nothing is kept yet. Keep the design as it is, change it, and hold one against the other.</p>
      )}
      {kept.map((d) => (
        <Against key={d.id} of={d} isShown={compared?.id === d.id} choose={choose} busy={busy} drop={() => once(() => drop(d))} />
      ))}
      {compared !== null && other === null && (
        <p role="status">{elsewhere ? "Sampling its path." : `A radio of ${compared.name} is not in the catalogue any more.`}</p>
      )}
      {elsewhere && other !== null && (
        <p className="cap m-0 mt-2">It stands at other mounting points: its own path is judged here, and not drawn.</p>
      )}
      {compared !== null && other !== null && (
        <>
          <table className="mt-3 w-full border-collapse">
            <thead>
              <tr className="border-b border-ink text-left text-label text-ink-2 [&>th]:font-normal">
                <th scope="col">
                  <span className="sr-only">What</span>
                </th>
                <th scope="col">this</th>
                <th scope="col">{compared.name}</th>
              </tr>
            </thead>
            <tbody>
              {rowsOf({ design, result: evaluation.result }, { design: compared, result: other.result }, hardware, units).map((r) => {
                const differs = r.now !== r.other;
                return (
                  <tr key={r.what} className={`border-b border-rule align-top ${differs ? "" : "text-ink-2"}`} data-differs={differs}>
                    <th scope="row" className="py-1 pr-2 text-left font-normal">
                      {differs && <span aria-hidden="true">≠ </span>}
                      {r.what}
                    </th>
                    <td className={`py-1 pr-2 ${differs ? "font-bold" : ""}`}>{r.now}</td>
                    <td className={`py-1 ${differs ? "font-bold" : ""}`}>{r.other}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          <p className="m-0 mt-2 flex items-center gap-2">
            <VerdictMark verdict={other.result.verdict} a={8} />
            <button
              type="button"
              className="press"
              onClick={() => {
                const { id: _i, version: _v, name: _n, ...fields } = compared;
                take(fields);
              }}
            >
              Plan with {compared.name} instead
            </button>
          </p>
        </>
      )}
    </ScrollRegion>
  );
};
