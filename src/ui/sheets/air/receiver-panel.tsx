"use client";
import type { AirBuilt } from "@/contract";
import type { Contribution } from "@/core/air";
import { figure } from "../../wording/numbers";
import type { Receiver } from "./air-view";
import { dbRise, fromText, percent, relationText } from "./air-words";

const PATTERN_WORDS = { "measured cuts": "measured cuts", aperture: "by its aperture", "F.1336": "envelope of F.1336" } as const;

/** The sum that a level at a receiver comes from, term by term. */
const SumOf = ({ built, receiver, c }: { built: AirBuilt; receiver: Receiver; c: Contribution }) => {
  const { field } = built.job;
  if (c.from === null)
    return (
      <p className="m-0 py-1 text-ink-2">
        Heard at {figure(c.carrierDbm, 1)} dBm at this antenna, {figure(-c.overlapDb, 1)} dB of it outside the channel.
      </p>
    );
  const k = field.explain(c.from, receiver.air.receiver);
  const [from, into] = [field.radios[c.from]!, field.radios[receiver.air.receiver]!];
  const sent = c.carrierDbm - k.totalDb;
  const terms: readonly (readonly [string, number])[] =
    k.way === "path"
      ? [
          ["power sent", sent],
          [`gain of ${from.name}`, k.outGainDbi],
          [`towards here, ${from.pattern === null ? "all ways alike" : PATTERN_WORDS[from.pattern.kind]}`, k.outDb],
          [`free space over ${figure(k.distanceM)} m`, -k.freeSpaceDb],
          [k.excessDb === null ? "ground and bodies not looked at" : "ground and bodies", -(k.excessDb ?? 0)],
          [`gain of ${into.name}`, k.inGainDbi],
          [`from there, ${into.pattern === null ? "all ways alike" : PATTERN_WORDS[into.pattern.kind]}`, k.inDb],
          ["one of its chains", -k.chainsDb],
          ["polarisation", -k.polarisationDb],
          ["cables and walls", -k.cablesDb],
        ]
      : [
          ["power sent", sent],
          [
            k.way === "typed isolation" ? "isolation on this mast, typed" : `isolation estimated at ${figure(k.distanceM, 1)} m, ±10 dB`,
            k.totalDb,
          ],
        ];
  return (
    <table className="my-1 border-collapse text-note" aria-label={`Level of ${from.name}`}>
      <tbody>
        {terms.map(([what, db]) => (
          <tr key={what}>
            <td className="pr-4 text-ink-2">{what}</td>
            <td className="text-right font-mono">{figure(db, 1)}</td>
          </tr>
        ))}
        <tr className="border-t border-hair">
          <td className="pr-4">its carrier here, dBm</td>
          <td className="text-right font-mono">{figure(c.carrierDbm, 1)}</td>
        </tr>
        <tr>
          <td className="pr-4 text-ink-2">mask and selectivity between the channels</td>
          <td className="text-right font-mono">{figure(c.overlapDb, 1)}</td>
        </tr>
        <tr className="border-t border-hair">
          <td className="pr-4">in the channel, dBm</td>
          <td className="text-right font-mono">{figure(c.inChannelDbm, 1)}</td>
        </tr>
        {c.wantedHearsDbm !== null && Number.isFinite(c.wantedHearsDbm) && (
          <tr>
            <td className="pr-4 text-ink-2">level at the wanted transmitter, dBm</td>
            <td className="text-right font-mono">{figure(c.wantedHearsDbm, 1)}</td>
          </tr>
        )}
        {c.otherHearsDbm !== null && Number.isFinite(c.otherHearsDbm) && (
          <tr>
            <td className="pr-4 text-ink-2">the wanted transmitter is heard there at, dBm</td>
            <td className="text-right font-mono">{figure(c.otherHearsDbm, 1)}</td>
          </tr>
        )}
      </tbody>
    </table>
  );
};

/** What one receiver hears, loudest first; each opens to its sum. */
export const ReceiverPanel = ({ built, receiver }: { built: AirBuilt; receiver: Receiver | null }) => {
  if (receiver === null) return <p className="m-0 py-2">No receiver to look at: no link holds, or all are left aside.</p>;
  const { air } = receiver;
  return (
    <div className="py-1">
      <p className="m-0">
        <b>{receiver.name}</b> hears with a floor of {figure(air.floorDbm, 1)} dBm
        {air.levelDbm === null ? "" : ` and wants ${figure(air.levelDbm, 1)} dBm`}. It carries {figure(air.quietMbps)} Mbps undisturbed,{" "}
        {figure(air.hitMbps)} while all of them send, {figure(air.meanMbps)} in the mean.
      </p>
      {air.contributions.length === 0 && <p className="m-0 mt-1">Nobody within 20 dB of its noise.</p>}
      <ul className="m-0 mt-1 list-none p-0" aria-label="What it hears">
        {air.contributions.map((c, i) => (
          <li key={`${c.from ?? "h"}${c.heard?.id ?? ""}${i}`} className="border-t border-rule">
            <details>
              <summary className="flex min-h-6 cursor-pointer flex-wrap items-baseline gap-x-3 py-0.5">
                <span className="font-figure">{fromText(built, c)}</span>
                <span className="font-mono">
                  {c.blinds
                    ? "blinds"
                    : Number.isFinite(c.inChannelDbm)
                      ? `${figure(c.inChannelDbm)} dBm, ${dbRise(c.riseDb)}`
                      : "not heard here"}
                </span>
                <span className="text-ink-2">
                  sends {percent(c.activity)}; {relationText(c)}
                  {c.waitShare > 0 ? `, ${percent(c.waitShare)} left to it` : ""}
                  {c.hitShare > 0 ? `, falls on ${percent(c.hitShare)}` : ""}
                </span>
              </summary>
              <SumOf built={built} receiver={receiver} c={c} />
            </details>
          </li>
        ))}
      </ul>
    </div>
  );
};
