"use client";
import { bodyOf } from "../../api/client";
import { useVerdicts } from "../../api/queries";
import { lazyPart } from "../../controls/lazy-part";
import { TypingScope } from "../../controls/typing-scope";
import { useKeys } from "../../controls/use-keys";
import { linkCell, openLinkActions } from "../../frame/link-cell";
import { Sheet } from "../../frame/sheet";
import { useJobHistory } from "../../state/job-history";
import { errorSentence } from "../../wording/errors";
import { useJobIndex } from "../job-index";
import { jobStrip } from "../job-strip";
import { SHEETS } from "../registry";
import { VIEWS } from "./bottom-panel";
import { SectionArea } from "./section-area";
import { SectionBeside } from "./section-beside";
import { SectionBottom } from "./section-bottom";
import { useLinkActions } from "./use-link-actions";
import { type SectionRead, useOpenSection } from "./use-open-section";

const PermissionDialog = lazyPart(() => import("./permission-dialog").then((m) => m.PermissionDialog));

/** The section of one link: what is in its way, how far out of it, what mends it, and what then arrives. */
export const SectionOpen = (read: SectionRead) => {
  const open = useOpenSection(read);
  const { jobId, bundle, record, design, status, units, view, year, firstYear, own, reverse, trueShape, setView, setYear } = open;
  const { job, link, near, far } = bundle;
  const verdicts = useVerdicts(jobId);
  const history = useJobHistory(jobId, (error) => open.setSaid(errorSentence(bodyOf(error), units)));
  const index = useJobIndex(jobId, verdicts.data, link.id, own);
  const actions = useLinkActions(open);

  useKeys({
    r: () => open.setReverse((r) => !r),
    t: () => open.setTrueShape((t) => !t),
    ".": () => setYear(year + 1),
    ",": () => setYear(Math.max(firstYear, year - 1)),
    [`([1-${VIEWS.length}])`]: (event) => setView(VIEWS[Number(event.key) - 1]!),
  });

  return (
    <TypingScope of={record}>
      <Sheet
        rows={index}
        jobId={jobId}
        of={SHEETS.section}
        undo={{ ...history, canUndo: history.canUndo || status.kind !== "saved" }}
        actions={[
          { name: "Level line the other way", run: () => open.setReverse(!reverse) },
          { name: trueShape ? "Heights drawn taller" : "True shape", run: () => open.setTrueShape(!trueShape) },
          { name: "Print this sheet", run: () => window.print() },
          { name: "Keep this design to compare", run: () => void actions.keepDesign().then(() => open.setBeside("compare")) },
          ...VIEWS.filter((v) => v !== view).map((v) => ({ name: `Show the ${v}`, run: () => setView(v) })),
          ...openLinkActions(
            jobId,
            (verdicts.data ?? []).filter((l) => l.linkId !== link.id),
          ),
        ]}
        strip={jobStrip(job, linkCell({ verdict: own, nearName: near.name, farName: far.name, label: link.label }), status, history.last)}
      >
        <div className="section-sheet grid h-full min-h-0 grid-cols-[minmax(0,1fr)_232px] grid-rows-[minmax(0,1fr)_242px] min-[1500px]:grid-cols-[minmax(0,1fr)_264px]">
          <SectionArea open={open} />
          <SectionBeside open={open} actions={actions} />
          {open.recording !== null && (
            <PermissionDialog
              open={open.recording}
              onOpenChange={open.setRecording}
              design={design}
              found={open.found}
              day={job.visitOn}
              change={open.change}
            />
          )}
          <SectionBottom open={open} actions={actions} />
        </div>
      </Sheet>
    </TypingScope>
  );
};
