/* The risk screen of an end: what may hurt somebody, what is known of it, and whether work may begin. */

export const RISKS = [
  "height",
  "roof-edge",
  "fragile-roof",
  "mains",
  "lines",
  "road",
  "plant",
  "trees",
  "alone",
  "lifting",
  "laser",
  "rf",
  "lightning",
  "drilling",
  "others-radio",
] as const;
export type Risk = (typeof RISKS)[number];

export type RiskState = "open" | "none" | "do" | "help" | "stop";

export interface RiskAnswer {
  readonly state: RiskState;
  readonly note: string;
  /** Who is competent for it; a stop is lifted by somebody else than the one who does the work. */
  readonly competent: string;
  readonly lifted: boolean;
}

export interface RiskFacts {
  readonly mountAglM: number;
  /** Distance to the nearest overhead line, and the ladder's or mast's length with the local approach distance; null: not told. */
  readonly lineM: number | null;
  readonly reachM: number | null;
  readonly approachM: number | null;
  /** Who does the work, by name. */
  readonly workers: readonly string[];
  /** Somebody is to be tied off there, and how they are brought down is written. */
  readonly harness: boolean;
  readonly rescue: string;
}

export interface JudgedRisk {
  readonly risk: Risk;
  readonly state: RiskState;
  readonly verdict: "clear" | "tight" | "unknown" | "short";
  /** Why it stands as it does, for words. */
  readonly reason:
    | "answered"
    | "open"
    | "line-near"
    | "line-untold"
    | "line-unmeasured"
    | "one-person"
    | "nobody-named"
    | "self-lifted"
    | "no-rescue"
    | "lifted"
    | "stop";
}

/** One risk judged. A stop holds until the risk is gone, or until somebody competent who does not do the work himself lifts it. */
export const judgeRisk = (risk: Risk, answer: RiskAnswer | undefined, f: RiskFacts): JudgedRisk => {
  const state = answer?.state ?? "open";
  if (risk === "lines" && f.lineM !== null) {
    if (f.reachM === null || f.approachM === null) return { risk, state, verdict: "unknown", reason: "line-untold" };
    // Nearer than what is raised there and the distance that the local rule keeps: nothing but moving away lifts it.
    if (f.lineM < f.reachM + f.approachM) return { risk, state: "stop", verdict: "short", reason: "line-near" };
  }
  // Lines that are there are worked beside by their distance, never by sight.
  if (risk === "lines" && f.lineM === null && (state === "do" || state === "help"))
    return { risk, state, verdict: "unknown", reason: "line-unmeasured" };
  if (risk === "alone" && state !== "open" && f.workers.length === 1 && state !== "stop")
    return { risk, state, verdict: state === "none" ? "short" : "tight", reason: "one-person" };
  if (state === "open") return { risk, state, verdict: "unknown", reason: "open" };
  if (state === "stop") {
    const by = answer!.competent.trim();
    if (!answer!.lifted || by === "") return { risk, state, verdict: "short", reason: "stop" };
    // Nobody can tell whether it is one of those who do the work.
    if (f.workers.length === 0) return { risk, state, verdict: "short", reason: "nobody-named" };
    const isWorker = f.workers.some((w) => w.trim().toLowerCase() === by.toLowerCase());
    return isWorker ? { risk, state, verdict: "short", reason: "self-lifted" } : { risk, state, verdict: "tight", reason: "lifted" };
  }
  if (risk === "height" && f.harness && state !== "none" && f.rescue.trim() === "")
    return { risk, state, verdict: "unknown", reason: "no-rescue" };
  return { risk, state, verdict: state === "help" && answer!.competent.trim() === "" ? "tight" : "clear", reason: "answered" };
};

export const judgeScreen = (answers: Readonly<Partial<Record<Risk, RiskAnswer>>>, f: RiskFacts): JudgedRisk[] =>
  RISKS.map((r) => judgeRisk(r, answers[r], f));
