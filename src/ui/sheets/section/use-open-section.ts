"use client";
import { useEffect, useMemo, useState } from "react";
import { airVerdictOf, type DesignFields, FIRST_STAGE, type HardwareDto, type ProfileDto } from "@/contract";
import { clearanceUnder, type DesignAction, type LinkResult, type Verdict, verdictOf, worseVerdict } from "@/core/link";
import { MOST_YEARS } from "@/core/solve";
import type { LinkBundle } from "../../api/queries";
import { useVerdicts } from "../../api/queries";
import { usePaced } from "../../controls/use-paced";
import { laidOn, useLaid } from "../../state/laid-candidates";
import { shown as shownNow } from "../../state/open-record";
import { usePreferences } from "../../state/preferences";
import { useRecord, useRecordState } from "../../state/use-record";
import type { Beside } from "./beside-tabs";
import type { View } from "./bottom-panel";
import { changeOf } from "./design-actions";
import { useClearsFrom } from "./use-clears-from";
import { useDoubt } from "./use-doubt";
import { type Evaluation, useCoreProfile, useEvaluation, useFindings } from "./use-evaluation";
import { useGhost } from "./use-ghost";

/** What the open section was read with. */
export interface SectionRead {
  readonly jobId: string;
  readonly bundle: LinkBundle;
  readonly profile: ProfileDto;
  readonly hardware: HardwareDto;
}

/** The result as a later year would have it: clearance of that year, everything else as it is. */
const inYear = (e: Evaluation, year: number): LinkResult => ({
  ...e.result,
  clearance: clearanceUnder({ ...e.plan, policy: { ...e.plan.policy, year, horizonYears: 0 } }, e.path),
});

/** Which of its views are open. */
const useViews = (linkId: string) => {
  const [view, setView] = useState<View>("level");
  // Who comes from the rack with candidates to look at finds them open.
  const [beside, setBeside] = useState<Beside>(() => (useLaid.getState().justLaid === linkId ? "compare" : "findings"));
  useEffect(() => {
    useLaid.setState({ justLaid: null });
  }, []);
  /** Null: never opened yet. */
  const [recording, setRecording] = useState<boolean | null>(null);
  const [trueShape, setTrueShape] = useState(false);
  const [reverse, setReverse] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  return { view, setView, beside, setBeside, recording, setRecording, trueShape, setTrueShape, reverse, setReverse, said, setSaid };
};

/**
 * The section as it stands open: the design under the hand, what it comes to, what is found of it, and what is looked at.
 * All of it is worked out here, once a frame.
 */
export const useOpenSection = (read: SectionRead) => {
  const { jobId, bundle, profile, hardware } = read;
  const { units } = usePreferences();
  const record = useRecord(jobId, "design", bundle.link.design);
  const { fields: design, settled, status, setAside, drag } = useRecordState(record);
  const views = useViews(bundle.link.id);
  const [comparedId, setComparedId] = useState<string | null>(null);
  const [previewed, setPreviewed] = useState<DesignAction | null>(null);

  const ground = useCoreProfile(profile);
  const evaluation = useEvaluation(bundle, hardware, ground, design);
  const settledEvaluation = useEvaluation(bundle, hardware, ground, settled);
  const doubt = useDoubt(evaluation);
  const found = useFindings(evaluation, doubt, drag);
  const clearsFrom = useClearsFrom(found, drag, design, settled);
  const laid = useLaid((l) => laidOn(l, bundle.link.id));
  const ghosts = useGhost({
    jobId,
    bundle,
    hardware,
    ground,
    design,
    previewed,
    laid,
    zonesShown: views.beside === "compare",
    comparedId,
    units,
    ray: evaluation?.ray ?? null,
  });
  // What stands beside the drawing may come a little later.
  const now = useMemo(() => ({ design, evaluation, found, doubt }), [design, evaluation, found, doubt]);
  const calm = usePaced(now, drag);

  const firstYear = Number(bundle.job.visitOn.slice(0, 4));
  const lastYear = firstYear + MOST_YEARS;
  const [askedYear, setYear] = useState(firstYear);
  const year = Math.max(firstYear, Math.min(lastYear, askedYear));
  const shown = useMemo(
    () => (evaluation === null ? null : year === firstYear ? evaluation.result : inYear(evaluation, year)),
    [evaluation, year, firstYear],
  );
  // The largest word is the worst of all that is found; in a later year, of that year's path and the radios.
  const alone: Verdict =
    evaluation === null ? "unknown" : verdictOf(found.length === 0 ? [{ verdict: evaluation.result.verdict, about: "clearance" }] : found);
  // What the network makes of it stands as it was last worked out: it rests on all links of the job.
  const listed = useVerdicts(jobId).data?.find((l) => l.linkId === bundle.link.id);
  const chain = listed?.chain ?? null;
  const inAir = listed?.inAir ?? null;
  const aired = inAir === null ? null : airVerdictOf(inAir);
  const besides = [chain, aired].flatMap((x) => (x === null ? [] : [x.verdict]));
  const own = evaluation === null ? alone : besides.reduce(worseVerdict, alone);
  const verdict = year === firstYear || shown === null ? own : worseVerdict(shown.clearance.verdict, verdictOf(found, "service"));

  const { change } = record;
  const { setView, setBeside, setRecording } = views;
  /** Takes what a finding proposes: a change of the design, or a look at what tells more. */
  const apply = (action: DesignAction): void => {
    setPreviewed(null);
    if (action.type !== "look") {
      const fields = changeOf(design, action);
      if (fields !== null) change(fields);
    } else if (action.view === "gear") setBeside("gear");
    else if (action.view === "permission") setRecording(true);
    else setView(action.view);
  };

  return {
    ...read,
    ...views,
    ...ghosts,
    laid,
    units,
    record,
    change,
    beginGesture: (): void => record.begin("drag"),
    endGesture: record.end,
    design,
    /** The design at the moment of a press, where what is drawn may lie a little behind it. */
    designNow: (): DesignFields => shownNow(record),
    settled,
    status,
    setAside,
    drag,
    evaluation,
    settledEvaluation,
    doubt,
    found,
    calm,
    clearsFrom,
    firstYear,
    lastYear,
    year,
    setYear,
    shown,
    /** Of the link as it is; the other is that of the year drawn. */
    own,
    /** Null where nothing on its way is over, or the link by itself is as bad. */
    chain: chain !== null && worseVerdict(alone, chain.verdict) !== alone ? chain : null,
    /** What others' radios make of it on its channel, and what is found of that. */
    inAir,
    aired,
    /** What the sheet is named by, where that is none of its own findings. */
    besides:
      aired !== null && worseVerdict(alone, aired.verdict) !== alone
        ? aired.code
        : chain !== null && worseVerdict(alone, chain.verdict) !== alone
          ? chain.code
          : null,
    verdict,
    setComparedId,
    preview: setPreviewed,
    apply,
    /** Chosen for it, and touched by nobody yet. */
    isStart: bundle.link.stage === FIRST_STAGE && bundle.link.design.version === 1 && status.kind === "saved",
  };
};

export type OpenSection = ReturnType<typeof useOpenSection>;
