import type { Delay, TestReading } from "@/core/load";
import { rateText } from "../../wording/gear";
import { figure } from "../../wording/numbers";
import type { LoadView, ShownPlace } from "./load-view";

/** "26 Mbps free", "29 Mbps short". */
export const freeText = ({ figures: { askedMbps, fitsMbps } }: Pick<ShownPlace, "figures">): string => {
  const free = fitsMbps - askedMbps;
  if (!Number.isFinite(fitsMbps)) return "not said";
  return free < 0 ? `${rateText(Math.max(0.1, -free))} Mbps short` : `${rateText(free)} Mbps free`;
};

/** The year in which a place is full, or that it is not within the years that matter. */
export const fullYearText = (p: Pick<ShownPlace, "yearsLeft">, thisYear: number): string | null =>
  p.yearsLeft === null || p.yearsLeft > 30 ? null : p.yearsLeft === 0 ? "full now" : `full in ${Math.floor(thisYear + p.yearsLeft)}`;

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

const LANES = [" there", " back"] as const;

/** The place that the verdict of the whole rests on: of those as bad the narrowest. */
export const decidingPlace = ({ places, verdict, narrowest }: LoadView): ShownPlace | null =>
  narrowest === null || narrowest.verdict === verdict
    ? narrowest
    : places.reduce<ShownPlace | null>(
        (best, p) => (p.verdict === verdict && (best === null || p.multiple < best.multiple) ? p : best),
        null,
      );

/** Why the load is what it is, in one sentence; null where nothing is asked. */
export const loadReason = (view: LoadView, thisYear: number, horizonYears: number): string | null => {
  const p = decidingPlace(view);
  if (p === null) return null;
  const { askedMbps, fitsMbps, lane } = p.figures;
  const way = lane === null ? "" : LANES[lane];
  switch (p.verdict) {
    case "short":
      return fitsMbps > 0
        ? `${capital(p.name)}: ${rateText(askedMbps)} Mbps${way} asked, ${rateText(fitsMbps)} fit`
        : `${capital(p.name)} passes nothing`;
    case "unknown":
      return `Nobody said what ${p.name} carries`;
    case "tight":
      return `${capital(fullYearText(p, thisYear) ?? "")}: ${p.name} has ${rateText(fitsMbps - askedMbps)} Mbps${way} left`;
    default:
      return `Narrowest: ${p.name}, ${freeText(p)}${fullYearText(p, thisYear) === null ? "" : `, ${fullYearText(p, thisYear)}, beyond the ${figure(horizonYears)} years of the job`}`;
  }
};

export const delayText = (ms: number): string => (Number.isFinite(ms) ? `${figure(ms, ms < 9.5 ? 1 : 0)} ms` : "without end");

/** What each use bears, held against a delay one way. */
export const usesUnder = (
  { mostMs, jitterMs }: Pick<Delay, "mostMs" | "jitterMs">,
  bounds: { readonly voiceMs: number; readonly voiceJitterMs: number; readonly controlMs: number; readonly viewMs: number },
): readonly { readonly name: string; readonly boundMs: number; readonly bears: boolean; readonly why: string }[] => [
  {
    name: "control",
    boundMs: bounds.controlMs,
    bears: mostMs <= bounds.controlMs,
    why: `${delayText(mostMs)} against ${figure(bounds.controlMs)}`,
  },
  {
    name: "voice",
    boundMs: bounds.voiceMs,
    bears: mostMs <= bounds.voiceMs && jitterMs <= bounds.voiceJitterMs,
    why:
      jitterMs > bounds.voiceJitterMs
        ? `jitter ${delayText(jitterMs)} against ${figure(bounds.voiceJitterMs)}`
        : `${delayText(mostMs)} against ${figure(bounds.voiceMs)}`,
  },
  {
    name: "live picture",
    boundMs: bounds.viewMs,
    bears: mostMs <= bounds.viewMs,
    why: `${delayText(mostMs)} against ${figure(bounds.viewMs)}`,
  },
];

export const TEST_WORDS: Readonly<Record<TestReading["kind"], string>> = {
  internet: "to the internet",
  across: "across the link, two wired testers",
  radios: "between its radios, by their own test",
};

/** What a test would show, and so what it would prove. */
export const readingText = (r: TestReading, placeName: (place: number) => string): string => {
  const [there, back] = r.mbps;
  const holder = r.heldBy[1] ?? r.heldBy[0];
  const shows =
    r.heldBy[0] === null && r.heldBy[1] === null ? "the tester's port" : holder === null ? "the tester's port" : placeName(holder);
  const proves = r.proves[0] && r.proves[1];
  return `${rateText(there)} there, ${rateText(back)} back: ${proves ? "proves the link" : `shows ${shows}, a floor and no more`}`;
};
