"use client";
import type { NetworkFields } from "@/contract";
import { type Delay, hoursKept, type Recorder, type RecorderAnswer, type TestReading } from "@/core/load";
import { rateText } from "../../wording/gear";
import { figure } from "../../wording/numbers";
import { delayText, readingText, TEST_WORDS, usesUnder } from "./load-words";

/** Where the recorder stands, compared: what crosses, and what is still recorded when the link is down. */
export const RecorderTable = ({
  answers,
  now,
  placeName,
  nameOf,
  storeTb,
  recordedMbps,
  take,
}: {
  answers: readonly RecorderAnswer[];
  now: Recorder;
  placeName: string;
  nameOf: (r: Recorder) => string;
  storeTb: number | null;
  recordedMbps: number;
  take: (r: Recorder) => void;
}) => {
  const hours = storeTb === null ? null : hoursKept(storeTb * 1000, recordedMbps);
  const isNow = (r: Recorder): boolean => (r.at === "each" ? now.at === "each" : now.at === "site" && now.siteId === r.siteId);
  return (
    <section aria-label="Where the recorder stands">
      <table className="w-full border-collapse text-line">
        <caption className="sr-only">Where the recorder stands, compared</caption>
        <thead>
          <tr className="text-label text-ink-2">
            <th scope="col" className="text-left text-body font-bold text-ink">
              Recorder
            </th>
            <th scope="col" className="text-right font-normal">
              Mbps, {placeName}
            </th>
            <th scope="col" className="pl-2 text-right font-normal">
              link down
            </th>
          </tr>
        </thead>
        <tbody>
          {answers.map((a) => (
            <tr
              key={a.recorder.at === "each" ? "each" : a.recorder.siteId}
              className={`border-t border-rule ${isNow(a.recorder) ? "bg-band" : ""}`}
            >
              <td className="py-1">
                {isNow(a.recorder) ? (
                  <span className="font-figure">{nameOf(a.recorder)}, now</span>
                ) : (
                  <button type="button" className="press min-h-6 text-line" onClick={() => take(a.recorder)}>
                    {nameOf(a.recorder)}
                  </button>
                )}
              </td>
              <td className="text-right font-mono">{rateText(a.atPlaceMbps)}</td>
              <td className="pl-2 text-right">{a.keepsWhenDown ? "goes on" : "records nothing"}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="cap m-0 mt-1">
        {hours === null
          ? "How long a store lasts: type its size below."
          : `${figure(storeTb!, 1)} TB last ${hours >= 48 ? `${figure(hours / 24, 1)} days` : `${figure(hours)} hours`} at the usual ${rateText(recordedMbps)} Mbps recorded.`}{" "}
        Recorded at each far end, a quarter of the streams is taken to be watched at once (ours).
      </p>
    </section>
  );
};

/** Delay one way as a range, against what voice, control and a live picture bear. */
export const DelayBar = ({ delay, name, bounds }: { delay: readonly [Delay, Delay]; name: string; bounds: NetworkFields["bounds"] }) => {
  const worse = delay[0].mostMs >= delay[1].mostMs ? delay[0] : delay[1];
  const uses = usesUnder(worse, bounds);
  const end = Math.max(bounds.voiceMs, bounds.viewMs, bounds.controlMs) * 1.08;
  const at = (ms: number): string => `${Math.min(100, (ms / end) * 100)}%`;
  const fails = uses.filter((u) => !u.bears);
  return (
    <section aria-label={`Delay to ${name}`} data-testid="delay">
      <h3 className="m-0 flex flex-wrap justify-between gap-x-3 text-body font-bold">
        <span>Delay to {name}, one way</span>
        <span className="font-mono">
          {delayText(worse.leastMs)} to {delayText(worse.mostMs)}
        </span>
      </h3>
      <div className="relative mt-5 mb-5 h-3 border-b border-ink" aria-hidden="true">
        <span
          className="absolute bottom-0 h-3 border border-ink bg-zone"
          style={{
            left: at(worse.leastMs),
            width: `calc(${at(Number.isFinite(worse.mostMs) ? worse.mostMs : end)} - ${at(worse.leastMs)} + 3px)`,
          }}
        />
        {uses.map((u, i) => (
          <span key={u.name} className="absolute bottom-[-4px] h-5 border-l border-ink" style={{ left: at(u.boundMs) }}>
            <span
              className={`absolute whitespace-nowrap text-label ${u.boundMs > end * 0.6 ? "right-1" : "left-1"} ${i % 2 === 0 ? "top-[18px]" : "bottom-[18px]"} ${u.bears ? "" : "v-short font-figure"}`}
            >
              {u.name} {figure(u.boundMs)}
            </span>
          </span>
        ))}
      </div>
      <p className="cap m-0">
        {fails.length === 0 ? "" : `Not for ${fails.map((u) => `${u.name} (${u.why})`).join(", ")}. `}
        Jitter {delayText(worse.jitterMs)}.{" "}
        {worse.hops
          .map(
            (h, i) =>
              `Link ${i + 1}: ${delayText(h.airMs)} on the air${h.frameMs > 0 ? `, ${delayText(h.frameMs)} for its frame` : ""}, ${delayText(h.queueMs)} behind others.`,
          )
          .join(" ")}{" "}
        A model of ours: bursts at random, 95 in 100; wires, routers and what lies outside are not in it.
      </p>
    </section>
  );
};

/** What a test would show at one end, and what it would prove. */
export const TestList = ({
  readings,
  name,
  placeName,
}: {
  readings: readonly TestReading[];
  name: string;
  placeName: (place: number) => string;
}) => (
  <section aria-label={`What a speed test would show at ${name}`} data-testid="tests">
    <h3 className="m-0 text-body font-bold">A speed test at {name}, others silent, shows at most</h3>
    <dl className="m-0 mt-1">
      {readings.map((r) => (
        <div key={r.kind} className="border-t border-rule py-1">
          <dt className="inline font-figure">{TEST_WORDS[r.kind]}: </dt>
          <dd className="m-0 inline">{readingText(r, placeName)}</dd>
        </div>
      ))}
    </dl>
  </section>
);
