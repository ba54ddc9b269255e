"use client";
import { Fragment, type ReactNode, useMemo } from "react";
import { createPortal } from "react-dom";
import type { JobDto, LinkDto, ProfileDto, SiteDto } from "@/contract";
import type { Finding, LinkResult, Verdict } from "@/core/link";
import { LevelDrawing } from "../../../drawing/level-drawing";
import { MastDimension } from "../../../drawing/mast-dimension";
import { SectionDrawing } from "../../../drawing/section-drawing";
import type { ClearsFrom } from "../../../drawing/section-props";
import { sectionScale } from "../../../drawing/section-scale";
import { DistanceAxis, KeyPlan, WidthsStrip } from "../../../drawing/strips";
import { VerdictMark } from "../../../marks/verdict-mark";
import { findingText, mendText } from "../../../wording/findings";
import { bearingText, dbmText, distanceText, ghzText, lengthText, type Units } from "../../../wording/numbers";
import { policyText } from "../../../wording/policy";
import { summaryText } from "../../../wording/reading";
import { explanationLine } from "../../../wording/terms";
import { VERDICT_WORD } from "../../../wording/verdicts";
import { PathTable } from "../path-table";
import { lookedAt, restsOn } from "../section-words";
import { bandOffsets, type Doubt } from "../use-doubt";
import type { Evaluation } from "../use-evaluation";

/** Width of the paper between its margins, CSS px: the narrower of A4 and Letter, lying. */
const WIDTH = 998;
const SECTION_PX = 256;
const WIDTHS_PX = 78;
const LEVEL_PX = 214;
const nothing = (): void => undefined;

export interface SectionPaperProps {
  readonly job: JobDto;
  readonly link: LinkDto;
  readonly profile: ProfileDto;
  readonly near: SiteDto;
  readonly far: SiteDto;
  readonly verdict: Verdict;
  readonly found: readonly Finding[];
  readonly evaluation: Evaluation;
  readonly shown: LinkResult;
  readonly year: number;
  readonly trueShape: boolean;
  readonly clearsFrom: ClearsFrom;
  readonly doubt: Doubt | null;
  readonly units: Units;
}

const plain = (text: string): string => text.replace(/\*/g, "");

/** The section on paper: drawn for it, not the screen made smaller. Drawing, widths and levels, then all that is found and the table. */
export const SectionPaper = (p: SectionPaperProps) =>
  createPortal(
    <div className="paper-sheet" inert aria-hidden="true" style={{ width: WIDTH }}>
      <DrawnPage {...p} />
      <ToldPage {...p} />
    </div>,
    document.body,
  );

const DrawnPage = (p: SectionPaperProps) => {
  const { evaluation, near, far, verdict, shown, units, trueShape } = p;
  const { path, plan, ray, result } = evaluation;
  const { profile } = p;
  const scale = useMemo(() => sectionScale(path, plan, ray, WIDTH, SECTION_PX, trueShape), [path, plan, ray, trueShape]);
  const common = { path, plan, result: shown, ray, scale, units };
  const { toFar } = result.service;
  return (
    <section className="paper-page">
      <header className="flex items-start gap-4 px-4 pt-2 pb-1">
        <VerdictMark verdict={verdict} a={26} />
        <div className={`text-word font-verdict leading-10 v-${verdict}`}>{VERDICT_WORD[verdict]}</div>
        <div className="min-w-0 flex-1 border-l border-hair pl-4">
          <h1 className="m-0 text-head font-bold leading-6">
            <span className="text-near">{near.name}</span> to <span className="text-far">{far.name}</span>
            {p.link.label === "" ? "" : `, ${p.link.label}`}
          </h1>
          <p className="m-0">
            {distanceText(units, profile.pathM)}, bearing {bearingText(profile.nearBearingDeg)} true (
            {bearingText(profile.nearBearingDeg - profile.nearDeclinationDeg + 360)} magnetic), back {bearingText(profile.farBearingDeg)}
          </p>
          <p className="m-0 text-line">
            {ghzText(plan.centreMhz)}, {plan.widthMhz} MHz; {scale.exaggeration === 1 ? "heights 1:1" : `heights ×${scale.exaggeration}`}
            {p.year === plan.policy.year ? "" : `; as it will stand in ${p.year}, if nobody cuts`}
          </p>
        </div>
        <KeyPlan path={path} verdictShort={shown.clearance.verdict === "short"} worstAtM={shown.clearance.worst?.atM ?? null} />
      </header>
      <div className="relative" style={{ height: SECTION_PX }}>
        <SectionDrawing
          {...common}
          clearsFrom={p.clearsFrom}
          settled={{ nearAglM: plan.near.mountAglM, farAglM: plan.far.mountAglM }}
          ghost={null}
          zones={[]}
          onBegin={nothing}
          onEnd={nothing}
          onMount={nothing}
        />
        {(["near", "far"] as const).map((end) => (
          <MastDimension
            key={end}
            end={end}
            ray={ray}
            scale={scale}
            groundAmslM={(end === "near" ? result.geometry.nearAmslM : result.geometry.farAmslM) - plan[end].mountAglM}
            figure={lengthText(units, plan[end].mountAglM)}
          />
        ))}
      </div>
      <DistanceAxis scale={scale} pathM={profile.pathM} units={units} />
      <div className="border-y border-rule">
        <WidthsStrip {...common} height={WIDTHS_PX} />
      </div>
      {toFar === null ? <NoLevel /> : <Level p={p} reverse={false} />}
      <Strip p={p} part="drawn" />
    </section>
  );
};

const NoLevel = () => <p className="m-0 px-4 py-3">No level can be computed while the radios do not fit each other.</p>;

const Level = ({ p, reverse }: { p: SectionPaperProps; reverse: boolean }) => {
  const { evaluation, units } = p;
  const { plan, result } = evaluation;
  const direction = reverse ? result.service.toNear : result.service.toFar;
  if (direction === null) return <NoLevel />;
  const [from, to] = reverse ? [plan.far, plan.near] : [plan.near, plan.far];
  return (
    <LevelDrawing
      direction={direction}
      band={bandOffsets(p.doubt, reverse)}
      width={WIDTH}
      height={LEVEL_PX}
      units={units}
      marginDb={p.job.marginDb}
      still={{ heading: `${from.name} to ${to.name}: ${dbmText(direction.levelDbm)}`, transmit: dbmText(from.txPowerDbm) }}
    />
  );
};

const Strong = ({ text }: { text: string }) => (
  <>
    {text.split("*").map((part, i) => (
      <Fragment key={i}>{i % 2 === 1 ? <strong>{part}</strong> : part}</Fragment>
    ))}
  </>
);

const ToldPage = (p: SectionPaperProps) => {
  const { evaluation, found, near, units } = p;
  return (
    <section className="paper-page paper-last">
      <div className="px-4 pt-2">
        <h2 className="m-0 mb-1 text-head font-bold">
          What is found, {near.name} to {p.far.name}
        </h2>
        <div className="paper-columns">
          {found.map((f, i) => (
            <div key={`${f.code}-${i}`} className="paper-whole mb-1.5 flex gap-2">
              <VerdictMark verdict={f.verdict} a={8} />
              <p className="m-0 text-line">
                <Strong text={findingText(f, units, near.name)} />
                {f.mends.length > 0 && (
                  <span className="text-ink-2"> Mends: {f.mends.map((m) => mendText(m, units).words).join("; ")}.</span>
                )}
              </p>
            </div>
          ))}
          <p className="cap paper-whole m-0">{lookedAt(evaluation)}</p>
          {restsOn(evaluation).map((e) => (
            <p key={e.id} className="cap paper-whole mb-1 mt-0">
              {explanationLine(e, units)}
            </p>
          ))}
        </div>
      </div>
      {evaluation.result.service.toNear !== null && (
        <div className="paper-whole border-t border-rule">
          <Level p={p} reverse />
        </div>
      )}
      <div className="paper-whole border-t border-rule px-4 py-2">
        <p className="m-0 mb-1 text-line">{summaryText(evaluation, units)}</p>
        <PathTable evaluation={evaluation} year={p.year} units={units} />
      </div>
      <p className="cap m-0 px-4 pb-1">
        A plan, not a permit: heights, power, lightning and radio are for qualified people and the rules of the place; the regulator decides
        what may be sent.
      </p>
      <Strip p={p} part="found" />
    </section>
  );
};

const Cell = ({ label, children, grow = 1 }: { label: string; children: ReactNode; grow?: number }) => (
  <div className="min-w-0 border-r border-ink px-2.5 pt-1 last:border-r-0" style={{ flex: `${grow} 1 0` }}>
    <div className="label">{label}</div>
    <div className="text-line font-said">{children}</div>
  </div>
);

const Strip = ({ p, part }: { p: SectionPaperProps; part: string }) => (
  <footer className="paper-strip flex border-t-[1.6px] border-ink">
    <Cell label="Job" grow={2}>
      {p.job.name}
    </Cell>
    <Cell label="Sheet" grow={1.5}>
      03 Section, {part}
    </Cell>
    <Cell label="Link" grow={2}>
      {p.link.number}, revision {p.link.design.version}
    </Cell>
    <Cell label="Day of visit">{p.job.visitOn}</Cell>
    <Cell label="Units" grow={0.8}>
      {p.units === "metric" ? "m, dBm, °" : "ft, dBm, °"}
    </Cell>
    <Cell label="Policy of the job" grow={2.6}>
      {policyText(p.job)}
    </Cell>
  </footer>
);

/** All that a picture of the section says in words, a line each: it stands alone. */
export const pictureLines = (p: SectionPaperProps): string[] => [
  ...p.found.map((f) => `${f.verdict === "clear" ? "To know" : VERDICT_WORD[f.verdict]}: ${plain(findingText(f, p.units, p.near.name))}`),
  plain(lookedAt(p.evaluation)),
];
