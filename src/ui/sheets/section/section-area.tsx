"use client";
import { Calm } from "../../controls/calm";
import { lazyPart } from "../../controls/lazy-part";
import { Said } from "../../controls/said";
import { useSize } from "../../drawing/use-size";
import { linkPolicyText, policyText } from "../../wording/policy";
import { VERDICT_WORD } from "../../wording/verdicts";
import { DrawingArea } from "./drawing-area";
import { NARROW_PX } from "./narrow";
import { pictureLines, SectionPaper, type SectionPaperProps } from "./paper/section-paper";
import { usePaper } from "./paper/use-paper";
import { SectionHeader } from "./section-header";
import type { OpenSection } from "./use-open-section";
import { YearChoice } from "./year-choice";

const PictureMenu = lazyPart(
  () => import("./picture-menu").then((m) => m.PictureMenu),
  () => <span className="press flex-none text-line">Picture</span>,
);
const PolicyChoice = lazyPart(
  () => import("./policy-choice").then((m) => m.PolicyChoice),
  // As long as what comes, so that nothing moves when it is here.
  ({ evaluation, over }) => <span className="press min-w-10 truncate text-line">{linkPolicyText(evaluation.plan.policy, over)}</span>,
);

const HEADER_PX = 76;
const NARROW_HEADER_PX = 164;

/** What goes on paper; null while there is nothing to draw. */
const onPaper = (open: OpenSection): SectionPaperProps | null => {
  const { evaluation, shown, bundle } = open;
  return evaluation === null || shown === null ? null : { ...open, ...bundle, evaluation, shown };
};

/** The drawing with its headline above, what is chosen over it, and the same on paper. */
export const SectionArea = ({ open }: { open: OpenSection }) => {
  const { bundle, design, evaluation, settledEvaluation, shown, settled, units, year, firstYear, lastYear, change, setSaid } = open;
  const { job, link, near, far } = bundle;
  const [ref, area] = useSize<HTMLDivElement>();
  const narrow = area.width > 0 && area.width < NARROW_PX;
  const paper = usePaper();
  const printed = onPaper(open);
  return (
    <div ref={ref} className="section-area relative min-h-0 min-w-0 overflow-hidden">
      {paper.out && printed !== null && <SectionPaper {...printed} />}
      <SectionHeader open={open} narrow={narrow} />
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
              trueShape={open.trueShape}
              setTrueShape={open.setTrueShape}
              clearsFrom={open.clearsFrom}
              ghost={open.ghost}
              zones={open.zones}
              onBegin={open.beginGesture}
              onEnd={open.endGesture}
              onMount={(end, m) => change(end === "near" ? { nearMountAglM: m } : { farMountAglM: m })}
            >
              <Calm of={[open.calm, bundle, units, year, open.verdict, design.policyOver]}>
                {() => (
                  <>
                    <PolicyChoice
                      evaluation={open.calm.evaluation ?? evaluation}
                      job={job}
                      over={design.policyOver}
                      units={units}
                      choose={(policyOver) => change({ policyOver })}
                    />
                    <YearChoice year={year} first={firstYear} last={lastYear} choose={open.setYear} />
                    <PictureMenu
                      lay={paper.lay}
                      words={() => (printed === null ? [] : pictureLines(printed))}
                      title={`${near.name} to ${far.name}: ${VERDICT_WORD[open.verdict]}`}
                      note={`${job.name}, ${job.visitOn}, ${policyText(job)}`}
                      fileName={`section-${job.number}-${link.number}`}
                      say={setSaid}
                    />
                  </>
                )}
              </Calm>
            </DrawingArea>
          )
        )}
      </div>
      <Said words={open.said} close={() => setSaid(null)} />
    </div>
  );
};
