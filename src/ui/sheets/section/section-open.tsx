"use client";
import { Tabs } from "radix-ui";
import { useEffect, useId, useMemo, useState } from "react";
import { useStore } from "zustand";
import type { HardwareDto, ProfileDto } from "@/contract";
import { type DesignAction, type Explanation, explainDirection, explainPath, worseVerdict } from "@/core/link";
import { type LinkBundle, useRefresh, useVerdicts } from "../../api/queries";
import { TypedFigure } from "../../controls/typed-figure";
import { SectionDrawing } from "../../drawing/section-drawing";
import type { ClearsFrom } from "../../drawing/section-props";
import { sectionScale } from "../../drawing/section-scale";
import { DistanceAxis, KeyPlan, WidthsStrip } from "../../drawing/strips";
import { useSize } from "../../drawing/use-size";
import { Sheet, UnitsButton } from "../../frame/sheet";
import { VerdictMark } from "../../marks/verdict-mark";
import { createDesignStore } from "../../state/design-store";
import { useJobNews } from "../../state/job-news";
import { usePreferences } from "../../state/preferences";
import { cutMiddle } from "../../wording/names";
import { bearingText, distanceText, ghzText, lengthIn, lengthUnit, metresFrom } from "../../wording/numbers";
import { troubleText } from "../../wording/troubles";
import { VERDICT_WORD } from "../../wording/verdicts";
import { BasisDialog } from "../basis/basis-dialog";
import { useJobIndex } from "../job-index";
import { BottomPanel, VIEWS, type View } from "./bottom-panel";
import { FindingsColumn } from "./findings-column";
import { GearPanel } from "./gear-panel";
import { ClashNotice, SavedCell } from "./saved-cell";
import { useEvaluation, useFindings } from "./use-evaluation";

const WIDTHS_PX = 84;
const AXIS_PX = 26;
const HEADER_PX = 96;
const KEYS = [
  { keys: "Tab", does: "Next mast, figure or finding" },
  { keys: "Up, Down", does: "Chosen mast by 0.1 m or 0.5 ft" },
  { keys: "Shift Up, Down", does: "By 1 m or 3 ft" },
  { keys: "Enter, Esc", does: "Take or restore a typed figure" },
  { keys: "R", does: "The other direction" },
  { keys: "1 to 4", does: "Level, rate, year, doubt" },
];

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
  const refresh = useRefresh();
  const verdicts = useVerdicts(jobId);
  const [store] = useState(() => createDesignStore(bundle.link.design, () => void refresh(jobId)));
  const { design, settled, status, past, future, change, beginGesture, endGesture, undo, redo, resolveClash } = useStore(store);
  useEffect(() => () => store.getState().dispose(), [store]);
  useEffect(() => store.getState().adopt(bundle.link.design), [store, bundle.link.design]);
  useJobNews(jobId);
  useEffect(() => {
    const warn = (event: BeforeUnloadEvent): void => {
      const kind = store.getState().status.kind;
      if (kind === "kept" || kind === "clash") event.preventDefault();
    };
    window.addEventListener("beforeunload", warn);
    return () => window.removeEventListener("beforeunload", warn);
  }, [store]);

  const evaluation = useEvaluation(bundle, hardware, profile, design);
  const found = useFindings(evaluation);
  const settledEvaluation = useEvaluation(bundle, hardware, profile, settled);
  const [areaRef, area] = useSize<HTMLDivElement>();
  const [reverse, setReverse] = useState(false);
  const [view, setView] = useState<View>("level");
  const levelId = useId();

  // Axes do not move under a drag: they follow the design as it stood before the gesture.
  const scale = useMemo(
    () =>
      settledEvaluation === null || area.width === 0
        ? null
        : sectionScale(
            settledEvaluation.path,
            settledEvaluation.plan,
            settledEvaluation.ray,
            area.width,
            Math.max(120, area.height - WIDTHS_PX - AXIS_PX - HEADER_PX),
          ),
    [settledEvaluation, area.width, area.height],
  );

  const clearsFrom: ClearsFrom = useMemo(() => {
    const mend = (code: string): number | null => {
      for (const f of found) {
        const m = f.mends.find((x) => x.code === code);
        if (m !== undefined && m.action.type === "mount" && m.amountToday !== null) return m.action.mountAglM - m.amount + m.amountToday;
      }
      return null;
    };
    return { nearAglM: mend("raise-near"), farAglM: mend("raise-far") };
  }, [found]);

  const apply = (action: DesignAction): void => {
    switch (action.type) {
      case "mount":
        change(action.end === "near" ? { nearMountAglM: action.mountAglM } : { farMountAglM: action.mountAglM });
        break;
      case "mounts":
        change({ nearMountAglM: action.nearMountAglM, farMountAglM: action.farMountAglM });
        break;
      case "power":
        change({ nearPowerDbm: action.nearDbm, farPowerDbm: action.farDbm });
        break;
      case "trim":
        change({ trimsM: { ...design.trimsM, [action.bodyId]: action.heightM } });
        break;
      case "width":
        change({ widthMhz: action.widthMhz });
        break;
      case "permission":
        change({ permission: `recorded ${new Date().toISOString().slice(0, 10)}` });
        break;
    }
  };

  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const typing = event.target instanceof HTMLElement && ["INPUT", "SELECT", "TEXTAREA"].includes(event.target.tagName);
      if (typing || event.ctrlKey || event.metaKey) return;
      if (event.key.toLowerCase() === "r") setReverse((r) => !r);
      const shown = VIEWS[Number(event.key) - 1];
      if (shown !== undefined) setView(shown);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);

  const { job, link, near, far } = bundle;
  const result = evaluation?.result ?? null;
  const verdict = result?.clearance.verdict ?? "unknown";
  const index = useJobIndex(jobId, verdicts.data, link.id, result?.verdict);
  const unit = lengthUnit(units);
  const mountFigure = (end: "near" | "far") => {
    const own = end === "near" ? design.nearMountAglM : design.farMountAglM;
    return (
      <TypedFigure
        value={lengthIn(units, own)}
        unit={unit}
        label={`${end === "near" ? near.name : far.name}: mount height above ground`}
        least={0}
        most={lengthIn(units, 300)}
        step={units === "metric" ? 0.1 : 0.5}
        bigStep={units === "metric" ? 1 : 3}
        className="bg-paper text-[16px] font-[650]"
        onChange={(v) => change(end === "near" ? { nearMountAglM: metresFrom(units, v) } : { farMountAglM: metresFrom(units, v) })}
      />
    );
  };
  const dimension = (end: "near" | "far") => {
    if (scale === null || evaluation === null) return null;
    const { ray } = evaluation;
    const isNear = end === "near";
    const x = scale.x(isNear ? ray.startM : ray.endM);
    const ground = isNear ? result!.geometry.nearAmslM - design.nearMountAglM : result!.geometry.farAmslM - design.farMountAglM;
    const top = scale.y(isNear ? ray.startZM : ray.endZM);
    const foot = scale.y(ground);
    const lineX = isNear ? x + 46 : x - 46;
    // Too low a mast for a figure on its line: the figure stands beside it.
    const low = Math.abs(foot - top) < 46;
    const y = low ? (top + foot) / 2 : Math.min(scale.height - 20, Math.max(top + 14, (top + foot) / 2));
    const aside = low ? -6 : 34;
    return (
      <>
        <svg aria-hidden="true" className="pointer-events-none absolute inset-0" width={scale.width} height={scale.height}>
          <path d={`M${x} ${foot}H${lineX}M${x} ${top}H${lineX}`} stroke={`var(--${end})`} strokeWidth="0.8" opacity="0.7" />
          <path
            d={`M${lineX} ${top}V${foot}M${lineX - 4.5} ${top + 4.5}l9 -9M${lineX - 4.5} ${foot + 4.5}l9 -9`}
            stroke={`var(--${end})`}
            strokeWidth="1.2"
          />
        </svg>
        <div
          className="absolute"
          style={isNear ? { left: lineX - aside, top: y - 12 } : { right: scale.width - lineX - aside, top: y - 12 }}
        >
          {mountFigure(end)}
        </div>
      </>
    );
  };

  return (
    <Sheet
      rows={index}
      current="Section"
      undo={{ canUndo: past.length > 0, canRedo: future.length > 0, undo, redo }}
      keys={KEYS}
      actions={[
        { name: "Level line the other way", run: () => setReverse(!reverse) },
        ...VIEWS.filter((v) => v !== view).map((v) => ({ name: `Show the ${v}`, run: () => setView(v) })),
        ...(verdicts.data ?? [])
          .filter((l) => l.linkId !== link.id)
          .map((l) => ({
            name: `Open ${l.nearName} to ${l.farName}${l.label === "" ? "" : `, ${l.label}`}`,
            href: `/jobs/${jobId}/section/${l.linkId}`,
          })),
      ]}
      strip={[
        { label: "Job", value: job.name, grow: 2 },
        {
          label: (
            <>
              Link <VerdictMark verdict={result?.verdict ?? "unknown"} a={7} />
              <span className={`font-[650] v-${result?.verdict ?? "unknown"}`} data-testid="link-verdict">
                {VERDICT_WORD[result?.verdict ?? "unknown"]}
              </span>
            </>
          ),
          value: (
            <>
              <span className="text-near">{cutMiddle(near.name, 22)}</span> to <span className="text-far">{cutMiddle(far.name, 22)}</span>
            </>
          ),
          grow: 2.5,
        },
        { label: "Sheet", value: "03 Section", grow: 1 },
        { label: "Day of visit", value: job.visitOn, grow: 1 },
        { label: "Units", value: <UnitsButton />, grow: 0.9 },
        { label: "Policy in force", value: <BasisDialog job={job} />, grow: 2.3 },
        { label: "Saved", value: <SavedCell status={status} />, grow: 1.6 },
      ]}
    >
      <div className="grid h-full min-h-0 grid-cols-[minmax(0,1fr)_232px] grid-rows-[minmax(0,1fr)_242px] min-[1500px]:grid-cols-[minmax(0,1fr)_264px]">
        <div ref={areaRef} className="relative min-h-0 min-w-0 overflow-hidden">
          <header className="flex h-[96px] items-start gap-4 pl-4 pr-3 pt-3">
            <VerdictMark verdict={verdict} a={30} />
            <div
              className={`text-[54px] font-[750] leading-[58px] tracking-[-0.5px] v-${verdict}`}
              data-testid="verdict"
              aria-live="polite"
            >
              {VERDICT_WORD[verdict]}
            </div>
            <div className="min-w-0 flex-1 border-l border-hair pl-4">
              <h1 className="m-0 truncate text-[21px] font-bold leading-6">
                <span className="text-near" title={near.name}>
                  {cutMiddle(near.name, 24)}
                </span>{" "}
                to{" "}
                <span className="text-far" title={far.name}>
                  {cutMiddle(far.name, 24)}
                </span>
              </h1>
              <p className="m-0 text-[14px]">
                {distanceText(units, profile.pathM)}, bearing {bearingText(profile.nearBearingDeg)} true (
                {bearingText(profile.nearBearingDeg - profile.nearDeclinationDeg + 360)} magnetic), back{" "}
                {bearingText(profile.farBearingDeg)}
                {profile.declinationInModelYears ? "" : ", magnetic extrapolated"}
              </p>
              <p className="cap m-0">
                {ghzText(design.centreMhz)}, {design.widthMhz} MHz wide.{" "}
                {scale === null ? "" : scale.exaggeration === 1 ? "Heights drawn 1:1." : `Heights drawn ×${scale.exaggeration}.`}
                {result !== null && (result.geometry.nearWallOf !== null || result.geometry.farWallOf !== null)
                  ? " Mount taken 0.3 m off its wall."
                  : ""}
              </p>
              {result !== null && worseVerdict(verdict, result.service.verdict) !== verdict && (
                <p
                  className={`m-0 flex items-center gap-1.5 text-[14px] font-[700] v-${result.service.verdict}`}
                  data-testid="headline-trouble"
                >
                  <VerdictMark verdict={result.service.verdict} a={8} />
                  {VERDICT_WORD[result.service.verdict]} all the same:{" "}
                  {troubleText(found.find((f) => f.verdict === result.service.verdict)?.code ?? "")}
                </p>
              )}
            </div>
            {evaluation !== null && (
              <KeyPlan path={evaluation.path} verdictShort={verdict === "short"} worstAtM={result?.clearance.worst?.atM ?? null} />
            )}
          </header>
          {evaluation === null ? (
            <p role="alert" className="px-6">
              A radio of this design is not in the catalogue any more. Choose another under Gear.
            </p>
          ) : (
            scale !== null && (
              <>
                <div className="relative" style={{ height: scale.height }}>
                  <SectionDrawing
                    path={evaluation.path}
                    plan={evaluation.plan}
                    result={evaluation.result}
                    ray={evaluation.ray}
                    scale={scale}
                    units={units}
                    clearsFrom={clearsFrom}
                    settled={{ nearAglM: settled.nearMountAglM, farAglM: settled.farMountAglM }}
                    onBegin={beginGesture}
                    onEnd={endGesture}
                    onMount={(end, m) => change(end === "near" ? { nearMountAglM: m } : { farMountAglM: m })}
                  />
                  {dimension("near")}
                  {dimension("far")}
                </div>
                <DistanceAxis scale={scale} pathM={profile.pathM} units={units} />
                <div className="border-t border-rule">
                  <WidthsStrip
                    path={evaluation.path}
                    plan={evaluation.plan}
                    result={evaluation.result}
                    ray={evaluation.ray}
                    scale={scale}
                    units={units}
                    height={WIDTHS_PX - 1}
                  />
                </div>
              </>
            )
          )}
        </div>
        <Tabs.Root defaultValue="findings" className="flex min-h-0 flex-col border-l border-ink">
          <Tabs.List className="flex gap-5 border-b border-ink px-3.5 pt-2.5" aria-label="Beside the drawing">
            {["findings", "gear"].map((name) => (
              <Tabs.Trigger
                key={name}
                value={name}
                className="border-b-[3px] border-transparent pb-1 text-[15px] font-[520] capitalize data-[state=active]:border-ink data-[state=active]:font-bold"
              >
                {name}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          <Tabs.Content value="findings" className="flex min-h-0 flex-1 flex-col data-[state=inactive]:hidden" tabIndex={-1}>
            {status.kind === "clash" && <ClashNotice resolve={resolveClash} />}
            <FindingsColumn
              findings={found}
              units={units}
              nearName={near.name}
              apply={apply}
              lookedAt={lookedAt(evaluation)}
              restsOn={restsOn(evaluation)}
            />
          </Tabs.Content>
          <Tabs.Content value="gear" className="flex min-h-0 flex-1 flex-col data-[state=inactive]:hidden" tabIndex={-1}>
            <GearPanel design={design} hardware={hardware} nearSite={near} farSite={far} change={change} />
          </Tabs.Content>
        </Tabs.Root>
        <BottomPanel
          evaluation={evaluation}
          design={design}
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
        />
      </div>
    </Sheet>
  );
};

/** Clearance, second opinions and reflection of the path; noise and exposure of the way to the far end. */
const restsOn = (evaluation: ReturnType<typeof useEvaluation>): readonly Explanation[] => {
  if (evaluation === null) return [];
  const { toFar } = evaluation.result.service;
  const ofDirection = toFar === null ? [] : explainDirection(toFar, evaluation.plan);
  return [...explainPath(evaluation.result), ...ofDirection.filter((e) => e.id === "noise" || e.id === "exposure")];
};

const lookedAt = (evaluation: ReturnType<typeof useEvaluation>): string => {
  if (evaluation === null) return "";
  const { path, result } = evaluation;
  const down = result.service.toFar?.outage;
  const lost =
    down == null || result.service.toFar?.held === null
      ? ""
      : ` Rain and clear-air fading take about ${down.minutesAYear < 1 ? "no minute" : `${Math.round(down.minutesAYear)} minutes`} a year.`;
  const from = path.profile.datasets.map((d) => d.name).join(", ");
  return `Looked at: ground${from === "" ? " (none known)" : ` from ${from}`}, ${path.bodies.length} things beside the path, level both ways.${lost}`;
};
