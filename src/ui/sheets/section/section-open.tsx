"use client";
import { useId, useMemo, useState } from "react";
import { FIRST_STAGE, type HardwareDto, latLons, type ProfileDto } from "@/contract";
import { inverse } from "@/core/geo";
import { clearanceUnder, type DesignAction, type LinkResult, lawfulPowers, verdictOf, worseVerdict } from "@/core/link";
import { MOST_YEARS } from "@/core/solve";
import { bodyOf } from "../../api/client";
import { type LinkBundle, useFeatures, useJob, useVerdicts } from "../../api/queries";
import { Calm } from "../../controls/calm";
import { ClashNotice } from "../../controls/clash-notice";
import { lazyPart } from "../../controls/lazy-part";
import { Said } from "../../controls/said";
import { TypingScope } from "../../controls/typing-scope";
import { useKeys } from "../../controls/use-keys";
import { usePaced } from "../../controls/use-paced";
import { useSize } from "../../drawing/use-size";
import { linkCell, openLinkActions } from "../../frame/link-cell";
import { Sheet } from "../../frame/sheet";
import { UnitsButton } from "../../frame/units-button";
import { useJobHistory } from "../../state/job-history";
import { useJobNews } from "../../state/job-news";
import { usePreferences } from "../../state/preferences";
import { useRecord, useRecordState } from "../../state/use-record";
import { errorSentence } from "../../wording/errors";
import { linkPolicyText, policyText } from "../../wording/policy";
import { VERDICT_WORD } from "../../wording/verdicts";
import { BasisCell } from "../basis/basis-cell";
import { useJobIndex } from "../job-index";
import { SHEETS } from "../registry";
import { type Beside, BesideTabs } from "./beside-tabs";
import { BottomPanel, VIEWS, type View } from "./bottom-panel";
import { changeOf } from "./design-actions";
import { DrawingArea } from "./drawing-area";
import { FindingsColumn } from "./findings-column";
import { GroundWays, StartNote } from "./first-steps";
import { pictureLines, SectionPaper, type SectionPaperProps } from "./paper/section-paper";
import { usePaper } from "./paper/use-paper";
import { SavedCell } from "./saved-cell";
import { SectionHeader } from "./section-header";
import { lookedAt, restsOn } from "./section-words";
import { useClearsFrom } from "./use-clears-from";
import { useDoubt } from "./use-doubt";
import { type Evaluation, useCoreProfile, useEvaluation, useFindings } from "./use-evaluation";
import { useGhost } from "./use-ghost";
import { useLinkActions } from "./use-link-actions";
import { YearChoice } from "./year-choice";

const ComparePanel = lazyPart(() => import("./compare-panel").then((m) => m.ComparePanel));
const GearPanel = lazyPart(() => import("./gear-panel").then((m) => m.GearPanel));
const PermissionDialog = lazyPart(() => import("./permission-dialog").then((m) => m.PermissionDialog));
const PictureMenu = lazyPart(
  () => import("./picture-menu").then((m) => m.PictureMenu),
  () => <span className="press text-line">Picture</span>,
);
const PolicyChoice = lazyPart(
  () => import("./policy-choice").then((m) => m.PolicyChoice),
  // As long as what comes, so that nothing moves when it is here.
  ({ evaluation, over }) => <span className="press truncate text-line">{linkPolicyText(evaluation.plan.policy, over)}</span>,
);
const SolverView = lazyPart(() => import("./solver-view").then((m) => m.SolverView));

const HEADER_PX = 76;
/** Below this width the header stands in three rows. */
const NARROW_PX = 620;
const NARROW_HEADER_PX = 164;
/** Drawn lines this near an end are offered to move it along. */
const LINE_REACH_M = 400;

/** The result as a later year would have it: clearance of that year, everything else as it is. */
const inYear = (e: Evaluation, year: number): LinkResult => ({
  ...e.result,
  clearance: clearanceUnder({ ...e.plan, policy: { ...e.plan.policy, year, horizonYears: 0 } }, e.path),
});

export const SectionOpen = ({
  jobId,
  bundle,
  profile,
  hardware,
}: {
  jobId: string;
  bundle: LinkBundle;
  profile: ProfileDto;
  hardware: HardwareDto;
}) => {
  const { units } = usePreferences();
  const verdicts = useVerdicts(jobId);
  const wholeJob = useJob(jobId);
  const record = useRecord(jobId, "design", bundle.link.design);
  const { fields: design, settled, status, setAside, drag } = useRecordState(record);
  const { change, end: endGesture } = record;
  const beginGesture = (): void => record.begin("drag");
  const history = useJobHistory(jobId, (error) => setSaid(errorSentence(bodyOf(error), units)));
  useJobNews(jobId);

  const ground = useCoreProfile(profile);
  const evaluation = useEvaluation(bundle, hardware, ground, design);
  const doubt = useDoubt(evaluation);
  const found = useFindings(evaluation, doubt, drag);
  // What stands beside the drawing may come a little later.
  const now = useMemo(() => ({ design, evaluation, found }), [design, evaluation, found]);
  const { design: calm, evaluation: calmEvaluation, found: calmFound } = usePaced(now, drag);
  const settledEvaluation = useEvaluation(bundle, hardware, ground, settled);
  const [areaRef, area] = useSize<HTMLDivElement>();
  const narrow = area.width > 0 && area.width < NARROW_PX;
  const paper = usePaper();
  const [reverse, setReverse] = useState(false);
  const [view, setView] = useState<View>("level");
  const [beside, setBeside] = useState<Beside>("findings");
  const [recording, setRecording] = useState<boolean | null>(null);
  const [trueShape, setTrueShape] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const [comparedId, setComparedId] = useState<string | null>(null);
  const [previewed, setPreviewed] = useState<DesignAction | null>(null);
  const firstYear = Number(bundle.job.visitOn.slice(0, 4));
  const [askedYear, setAskedYear] = useState(firstYear);
  const year = Math.max(firstYear, Math.min(firstYear + MOST_YEARS, askedYear));
  const levelId = useId();

  const clearsFrom = useClearsFrom(found, drag, design, settled);

  const apply = (action: DesignAction): void => {
    setPreviewed(null);
    if (action.type === "look") {
      if (action.view === "gear") setBeside("gear");
      else if (action.view === "permission") setRecording(true);
      else setView(action.view);
      return;
    }
    const fields = changeOf(design, action);
    if (fields !== null) change(fields);
  };

  const { ghost, compared, comparedEvaluation, elsewhere } = useGhost({
    jobId,
    bundle,
    hardware,
    ground,
    design,
    previewed,
    comparedId,
    units,
  });

  useKeys({
    r: () => setReverse((r) => !r),
    t: () => setTrueShape((t) => !t),
    ".": () => setAskedYear((y) => y + 1),
    ",": () => setAskedYear((y) => Math.max(firstYear, y - 1)),
    [`([1-${VIEWS.length}])`]: (event) => setView(VIEWS[Number(event.key) - 1]!),
  });

  const { job, link, near, far } = bundle;
  // Chosen for it, and touched by nobody yet.
  const isStart = link.stage === FIRST_STAGE && link.design.version === 1 && status.kind === "saved";
  const result = evaluation?.result ?? null;
  const shown = useMemo(
    () => (evaluation === null ? null : year === firstYear ? evaluation.result : inYear(evaluation, year)),
    [evaluation, year, firstYear],
  );
  // The largest word is the worst of all that is found; in a later year, of that year's path and the radios.
  const own = result === null ? "unknown" : verdictOf(found.length === 0 ? [{ verdict: result.verdict, about: "clearance" }] : found);
  const verdict = year === firstYear || shown === null ? own : worseVerdict(shown.clearance.verdict, verdictOf(found, "service"));
  const index = useJobIndex(jobId, verdicts.data, link.id, own);
  const features = useFeatures(jobId, [near, far], view === "elsewhere");
  const lines = (features.data?.features ?? []).filter(
    (f) => f.points.length > 1 && [near, far].some((site) => latLons(f.points).some((p) => inverse(p, site).distanceM <= LINE_REACH_M)),
  );

  const { keepDesign, dropDesign, move, addRelay } = useLinkActions({
    jobId,
    bundle,
    design,
    change,
    say: setSaid,
    units,
    compare: setComparedId,
  });

  const clashing = status.kind === "clash" ? status : null;
  const solvers = (which: View, size: { readonly width: number; readonly height: number }) =>
    calmEvaluation === null ? null : (
      <SolverView
        which={which}
        size={size}
        evaluation={calmEvaluation}
        bundle={bundle}
        design={calm}
        sites={wholeJob.data?.sites ?? []}
        lines={lines}
        units={units}
        year={year}
        showYear={setAskedYear}
        onBegin={beginGesture}
        onEnd={endGesture}
        change={change}
        apply={apply}
        preview={setPreviewed}
        move={move}
        addRelay={addRelay}
      />
    );

  const onPaper: SectionPaperProps | null =
    evaluation === null || shown === null
      ? null
      : { job, link, profile, near, far, verdict, found, evaluation, shown, year, trueShape, clearsFrom, doubt, units };

  return (
    <TypingScope of={record}>
      {paper.out && onPaper !== null && <SectionPaper {...onPaper} />}
      <Sheet
        rows={index}
        jobId={jobId}
        of={SHEETS.section}
        undo={{ ...history, canUndo: history.canUndo || status.kind !== "saved" }}
        actions={[
          { name: "Level line the other way", run: () => setReverse(!reverse) },
          { name: trueShape ? "Heights drawn taller" : "True shape", run: () => setTrueShape(!trueShape) },
          { name: "Print this sheet", run: () => window.print() },
          { name: "Keep this design to compare", run: () => void keepDesign().then(() => setBeside("compare")) },
          ...VIEWS.filter((v) => v !== view).map((v) => ({ name: `Show the ${v}`, run: () => setView(v) })),
          ...openLinkActions(
            jobId,
            (verdicts.data ?? []).filter((l) => l.linkId !== link.id),
          ),
        ]}
        strip={[
          { label: "Job", value: job.name, grow: 2 },
          linkCell({ verdict: own, nearName: near.name, farName: far.name, label: link.label }),
          { label: "Sheet", value: "", grow: 1 },
          { label: "Day of visit", value: job.visitOn, grow: 1 },
          { label: "Units", value: <UnitsButton />, grow: 0.9 },
          { label: "Policy of the job", value: <BasisCell job={job} />, grow: 2.3 },
          { label: "Saved", value: <SavedCell status={status} last={history.last} />, grow: 1.6 },
        ]}
      >
        <div className="section-sheet grid h-full min-h-0 grid-cols-[minmax(0,1fr)_232px] grid-rows-[minmax(0,1fr)_242px] min-[1500px]:grid-cols-[minmax(0,1fr)_264px]">
          <div ref={areaRef} className="section-area relative min-h-0 min-w-0 overflow-hidden">
            <SectionHeader
              verdict={verdict}
              near={near}
              far={far}
              label={link.label}
              profile={profile}
              evaluation={evaluation}
              shown={shown}
              narrow={narrow}
              laterYear={year === firstYear ? null : year}
              found={found}
              units={units}
            />
            <div>
              {evaluation === null || settledEvaluation === null || shown === null ? (
                <p role="alert" className="px-6">
                  A radio of this design is not in the catalogue any more. Choose another under Gear.
                </p>
              ) : (
                area.width > 0 && (
                  <DrawingArea
                    width={area.width}
                    height={area.height - (narrow ? NARROW_HEADER_PX : HEADER_PX)}
                    evaluation={evaluation}
                    settledEvaluation={settledEvaluation}
                    shown={shown}
                    shownYear={year}
                    settled={{ nearAglM: settled.nearMountAglM, farAglM: settled.farMountAglM }}
                    units={units}
                    trueShape={trueShape}
                    setTrueShape={setTrueShape}
                    clearsFrom={clearsFrom}
                    ghost={ghost}
                    onBegin={beginGesture}
                    onEnd={endGesture}
                    onMount={(end, m) => change(end === "near" ? { nearMountAglM: m } : { farMountAglM: m })}
                  >
                    <PolicyChoice
                      evaluation={evaluation}
                      job={job}
                      over={design.policyOver}
                      units={units}
                      choose={(policyOver) => change({ policyOver })}
                    />
                    <YearChoice year={year} first={firstYear} last={firstYear + MOST_YEARS} choose={setAskedYear} />
                    <PictureMenu
                      lay={paper.lay}
                      words={() => (onPaper === null ? [] : pictureLines(onPaper))}
                      title={`${near.name} to ${far.name}: ${VERDICT_WORD[verdict]}`}
                      note={`${job.name}, ${job.visitOn}, ${policyText(job)}`}
                      fileName={`section-${job.number}-${link.number}`}
                      say={setSaid}
                    />
                  </DrawingArea>
                )
              )}
            </div>
            <Said words={said} close={() => setSaid(null)} />
          </div>
          <Calm
            of={[
              bundle,
              hardware,
              units,
              beside,
              calm,
              calmEvaluation,
              calmFound,
              clashing,
              setAside,
              isStart,
              compared,
              comparedEvaluation,
              elsewhere,
            ]}
          >
            {() => (
              <BesideTabs shown={beside} show={setBeside}>
                {{
                  findings: (
                    <>
                      <ClashNotice
                        kind="design"
                        status={status}
                        setAside={setAside}
                        units={units}
                        resolve={record.resolve}
                        recall={record.recall}
                      />
                      <FindingsColumn
                        findings={calmFound}
                        units={units}
                        nearName={near.name}
                        apply={apply}
                        preview={setPreviewed}
                        start={
                          isStart ? <StartNote works={verdictOf(calmFound, "service") !== "short"} look={() => setBeside("gear")} /> : null
                        }
                        ways={(code) =>
                          code === "ground-unknown" ? <GroundWays jobId={jobId} link={link} say={setSaid} units={units} /> : null
                        }
                        lookedAt={lookedAt(calmEvaluation)}
                        restsOn={restsOn(calmEvaluation)}
                      />
                    </>
                  ),
                  gear: (
                    <GearPanel
                      design={calm}
                      hardware={hardware}
                      nearSite={near}
                      farSite={far}
                      change={change}
                      record={() => setRecording(true)}
                      day={job.visitOn}
                      lawful={calmEvaluation === null ? null : lawfulPowers(calmEvaluation.plan, calmEvaluation.result)}
                    />
                  ),
                  compare: calmEvaluation !== null && (
                    <ComparePanel
                      design={calm}
                      evaluation={calmEvaluation}
                      kept={bundle.kept}
                      compared={compared}
                      other={comparedEvaluation}
                      elsewhere={elsewhere}
                      hardware={hardware}
                      units={units}
                      keep={keepDesign}
                      choose={setComparedId}
                      take={(fields) => change(fields)}
                      drop={dropDesign}
                    />
                  ),
                }}
              </BesideTabs>
            )}
          </Calm>
          {recording !== null && (
            <PermissionDialog
              open={recording}
              onOpenChange={setRecording}
              design={design}
              found={found}
              day={job.visitOn}
              change={change}
            />
          )}
          <Calm of={[bundle, units, calm, calmEvaluation, doubt, calmFound, reverse, view, year, wholeJob.data, lines.length]}>
            {() => (
              <BottomPanel
                doubt={doubt}
                verdict={verdictOf(calmFound, "service")}
                evaluation={calmEvaluation}
                design={calm}
                job={job}
                nearName={near.name}
                farName={far.name}
                units={units}
                reverse={reverse}
                setReverse={setReverse}
                view={view}
                setView={setView}
                change={change}
                levelId={levelId}
                solvers={solvers}
              />
            )}
          </Calm>
        </div>
      </Sheet>
    </TypingScope>
  );
};
