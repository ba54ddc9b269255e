"use client";
import type { Channel } from "@/core/air";
import { VerdictMark } from "../../marks/verdict-mark";
import { VERDICT_WORD } from "../../wording/verdicts";
import type { UnitRow } from "./air-view";
import { airText, channelText, dbRise } from "./air-words";

/** Every unit on its channel of today, and beside it what a search proposes; differences stand out. */
export const AirTable = ({
  rows,
  after,
  chosen,
  choose,
  locks,
  lock,
  aside,
  setAside,
  take,
}: {
  rows: readonly UnitRow[];
  /** The same units on the channels that are proposed; null while none are. */
  after: ReadonlyMap<string, UnitRow> | null;
  chosen: string | null;
  choose: (unitId: string) => void;
  locks: readonly string[];
  lock: (unitId: string) => void;
  aside: readonly { readonly id: string; readonly name: string }[];
  setAside: (unitId: string, aside: boolean) => void;
  take: (unitId: string, channel: Channel) => void;
}) => (
  <table className="w-full border-collapse text-line" data-testid="channels">
    <thead>
      <tr className="text-label text-ink-2 [&>th]:font-normal">
        <th scope="col" className="text-left">
          Channels, the worst first
        </th>
        <th scope="col" className="text-left">
          today, MHz
        </th>
        <th scope="col" className="text-right">
          noise
        </th>
        <th scope="col" className="text-right">
          air asked
        </th>
        <th scope="col" className="pl-4 text-left">
          proposed
        </th>
        <th scope="col" className="text-right">
          noise
        </th>
        <th scope="col" className="text-right">
          air asked
        </th>
        <th scope="col">
          <span className="sr-only">Do</span>
        </th>
      </tr>
    </thead>
    <tbody>
      {rows.map((u) => {
        const to = after?.get(u.unit.id);
        const moves = to !== undefined && (to.channel.centreMhz !== u.channel.centreMhz || to.channel.widthMhz !== u.channel.widthMhz);
        return (
          <tr key={u.unit.id} className={`border-t border-rule ${u.unit.id === chosen ? "bg-band" : ""}`}>
            <td className="py-0.5 pr-2">
              <button
                type="button"
                className="flex min-h-6 w-full items-center gap-1.5 text-left"
                aria-pressed={u.unit.id === chosen}
                onClick={() => choose(u.unit.id)}
              >
                <VerdictMark verdict={u.verdict} a={7} />
                <span className={`font-figure v-${u.verdict}`}>
                  <span className="sr-only">{VERDICT_WORD[u.verdict]}: </span>
                  {u.unit.name}
                  {u.links.length > 1 ? `, ${u.links.length} remotes` : ""}
                </span>
              </button>
            </td>
            <td className="whitespace-nowrap font-mono">
              {channelText(u.channel)}
              {u.radar && <span className="ml-1 font-sans text-label text-ink-2">radar</span>}
            </td>
            <td className={`whitespace-nowrap pl-2 text-right font-mono ${u.verdict === "short" ? "v-short" : ""}`}>{dbRise(u.riseDb)}</td>
            <td className={`whitespace-nowrap pl-2 text-right font-mono ${u.verdict === "short" ? "v-short" : ""}`}>{airText(u)}</td>
            <td className={`whitespace-nowrap pl-4 font-mono ${moves ? "font-figure" : "text-ink-2"}`}>
              {to === undefined ? "" : moves ? channelText(to.channel) : "stays"}
              {to?.radar === true && <span className="ml-1 font-sans text-label text-ink-2">radar</span>}
            </td>
            <td className="whitespace-nowrap pl-2 text-right font-mono">{to === undefined ? "" : dbRise(to.riseDb)}</td>
            <td className="whitespace-nowrap pl-2 text-right font-mono">{to === undefined ? "" : airText(to)}</td>
            <td className="whitespace-nowrap pl-3 text-right">
              <span className="flex justify-end gap-x-3">
                {moves && (
                  <button
                    type="button"
                    className="press min-h-6"
                    aria-label={`Draw ${u.unit.name} as proposed`}
                    onClick={() => take(u.unit.id, to.channel)}
                  >
                    This one
                  </button>
                )}
                <button
                  type="button"
                  className="press min-h-6"
                  aria-pressed={locks.includes(u.unit.id)}
                  aria-label={`${locks.includes(u.unit.id) ? "Unlock" : "Lock"} ${u.unit.name}`}
                  onClick={() => lock(u.unit.id)}
                >
                  {locks.includes(u.unit.id) ? "Unlock" : "Lock"}
                </button>
                <button
                  type="button"
                  className="press min-h-6"
                  aria-label={`Leave ${u.unit.name} aside`}
                  onClick={() => setAside(u.unit.id, true)}
                >
                  Aside
                </button>
              </span>
            </td>
          </tr>
        );
      })}
      {aside.map((u) => (
        <tr key={u.id} className="border-t border-rule text-ink-2">
          <td className="py-0.5 pr-2">{u.name}</td>
          <td colSpan={6}>left aside: not on the air as it is</td>
          <td className="text-right">
            <button type="button" className="press min-h-6" aria-label={`Count ${u.name} again`} onClick={() => setAside(u.id, false)}>
              Count it
            </button>
          </td>
        </tr>
      ))}
    </tbody>
  </table>
);
