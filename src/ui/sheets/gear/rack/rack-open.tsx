"use client";
import { useRouter } from "next/navigation";
import { useMemo, useState } from "react";
import { type HardwareDto, isProblem, type LimitsDto, type ProfileDto, planOf } from "@/contract";
import { preparePath, rayOf, type SectionSketch, sketchOf, type Verdict } from "@/core/link";
import { type Candidate, DRAWN_ROWS, typeKeyOf } from "@/core/rack";
import { bodyOf } from "../../../api/client";
import { keepFile } from "../../../api/keep-file";
import { type LinkBundle, useJob, useRefresh, useVerdicts } from "../../../api/queries";
import { lazyPart } from "../../../controls/lazy-part";
import { ScrollRegion } from "../../../controls/scroll-region";
import { useSize } from "../../../drawing/use-size";
import { linkCell } from "../../../frame/link-cell";
import { Sheet } from "../../../frame/sheet";
import { useJobHistory } from "../../../state/job-history";
import { useLaid } from "../../../state/laid-candidates";
import { usePreferences } from "../../../state/preferences";
import { useRecord, useRecordState } from "../../../state/use-record";
import { errorSentence } from "../../../wording/errors";
import { bandText, pairName } from "../../../wording/gear";
import { distanceText, mbpsText, shareText } from "../../../wording/numbers";
import { troubleText } from "../../../wording/troubles";
import { useJobIndex } from "../../job-index";
import { jobStrip } from "../../job-strip";
import { SHEETS } from "../../registry";
import { Headline } from "../../section/headline";
import { NARROW_PX } from "../../section/narrow";
import { useCoreProfile } from "../../section/use-evaluation";
import { BandLines } from "./band-lines";
import { MOST_COMPARED } from "./compare-dialog";
import { faceText } from "./face-text";
import { FacesDrawing } from "./faces-drawing";
import { lettingIn } from "./let-in";
import { rackLimitsOf, schoolOf, withSearch } from "./limits-of";
import { NoNeed } from "./no-need";
import { oneTypeHolds } from "./one-type-words";
import { PowerTable } from "./power-table";
import { RackAside } from "./rack-aside";
import { RackList } from "./rack-list";
import { RackNotices } from "./rack-notices";
import { RejectedList } from "./rejected-list";
import { designOf, isTaken } from "./settings";
import { useOneType } from "./use-one-type";
import { useRack } from "./use-rack";

const CompareDialog = lazyPart(() => import("./compare-dialog").then((m) => m.CompareDialog));
const AlikeDialog = lazyPart(() => import("./alike-dialog").then((m) => m.AlikeDialog));
const PermissionDialog = lazyPart(() => import("../../section/permission-dialog").then((m) => m.PermissionDialog));

const sentenceCase = (words: string): string => `${words.charAt(0).toUpperCase()}${words.slice(1)}`;

/** Which radios, at what width and power: the rack of one link. */
export const RackOpen = ({
  jobId,
  bundle,
  profile,
  hardware,
  kept,
}: {
  jobId: string;
  bundle: LinkBundle;
  profile: ProfileDto;
  hardware: HardwareDto;
  kept: LimitsDto;
}) => {
  const { job, link, near, far } = bundle;
  const { units } = usePreferences();
  const verdicts = useVerdicts(jobId);
  const [said, setSaid] = useState<string | null>(null);
  const [chosenAs, setChosen] = useState<string | null>(null);
  const [ticked, setTicked] = useState<readonly string[]>([]);
  const [comparing, setComparing] = useState<boolean | null>(null);
  const [recording, setRecording] = useState<boolean | null>(null);
  const [elsewhere, setElsewhere] = useState<boolean | null>(null);
  const router = useRouter();
  const whole = useJob(jobId).data;
  const refresh = useRefresh();
  const [areaRef, area] = useSize<HTMLDivElement>();
  const narrow = area.width > 0 && area.width < NARROW_PX;
  const history = useJobHistory(
    jobId,
    (error) => setSaid(errorSentence(bodyOf(error), units)),
    () => setSaid(null),
  );

  const record = useRecord(jobId, "design", link.design);
  const designState = useRecordState(record);
  const design = designState.fields;
  const limitsRecord = useRecord(jobId, "limits", kept);
  const limitsState = useRecordState(limitsRecord);
  const limits = limitsState.fields;

  const ground = useCoreProfile(profile);
  const ends = useMemo(() => ({ nearSiteId: near.id, nearName: near.name, farSiteId: far.id, farName: far.name }), [near, far]);
  const asked = design.needToFarMbps !== null || design.needToNearMbps !== null;
  const needMbps = (design.needToFarMbps ?? 0) + (design.needToNearMbps ?? 0);
  const needed = needMbps > 0;
  const [whatIf, setWhatIf] = useState(1);
  const scaled = useMemo(() => {
    if (whatIf === 1) return design;
    const times = (mbps: number | null): number | null => (mbps === null ? null : Math.round(mbps * whatIf * 10) / 10);
    return { ...design, needToFarMbps: times(design.needToFarMbps), needToNearMbps: times(design.needToNearMbps) };
  }, [design, whatIf]);
  const plan = useMemo(() => {
    const made = planOf(job, near, far, scaled, hardware, link.groundTold);
    return isProblem(made) ? null : made;
  }, [job, near, far, scaled, hardware, link.groundTold]);
  const oneType = useOneType(whole, limits, hardware, units);
  const onlyType = oneTypeHolds(oneType.found, limits.oneTypeMost) ? oneType.found!.best!.key : null;
  const rackLimits = useMemo(() => rackLimitsOf(limits, link.id, near.id, far.id, onlyType), [limits, link.id, near.id, far.id, onlyType]);
  const school = useMemo(() => schoolOf(limits, link.id), [limits, link.id]);
  const { reply, share, failed, fresh, schools } = useRack(needed ? plan : null, ground, hardware, rackLimits, school);
  const rack = needed ? (reply?.rack ?? null) : null;
  const planned = reply?.planned ?? null;

  const listed = verdicts.data?.find((l) => l.linkId === link.id);
  const verdict: Verdict | null = planned?.verdict ?? (listed?.fresh === true ? listed.verdict : null);
  // A question is no verdict of the link: the index keeps the link's own.
  const own = whatIf === 1 ? (verdict ?? undefined) : listed?.verdict;
  const index = useJobIndex(jobId, verdicts.data, link.id, own);
  const rows = rack?.rows ?? [];
  const proposed = rows.find((r) => r.best.id === chosenAs) ?? rows[0];
  const chosen = proposed?.best ?? null;
  const settings = chosen?.option?.settings;
  const taken = settings !== undefined && isTaken(design, settings);

  const take = (c: Candidate): void => {
    if (c.option?.settings === undefined) return;
    record.change(designOf(c.option.settings));
    setChosen(c.id);
    setSaid(`${pairName(c.pair)} is planned now. Undo takes it back.`);
  };
  const tick = (id: string): void =>
    setTicked((now) => (now.includes(id) ? now.filter((x) => x !== id) : now.length >= MOST_COMPARED ? now : [...now, id]));
  const tickedRows = ticked.flatMap((id) => rows.find((r) => r.best.id === id)?.best ?? []);
  const sketch = (c: Candidate): SectionSketch | null => {
    if (plan === null || ground === null || c.option === null) return null;
    const at = { ...plan, centreMhz: c.option.centreMhz };
    const path = preparePath(at, ground);
    const { nearAmslM, farAmslM } = rayOf(at, path);
    return sketchOf(at, path, nearAmslM, farAmslM);
  };
  const compare = (): void => {
    if (tickedRows.length >= 2) setComparing(true);
  };
  /** Loosens the one limit that keeps a candidate out, or opens what would. */
  const letIn = (c: Candidate): void => {
    const change = lettingIn(limits, link.id, ends, c);
    if (change !== null) limitsRecord.change(change);
    else if (c.refusal?.code === "permission") setRecording(true);
  };
  const keepCsv = async (): Promise<void> => {
    if (rack === null) return;
    const { rackCsv } = await import("./rack-csv");
    keepFile(new Blob([rackCsv(rack)], { type: "text/csv" }), `rack-${link.number}.csv`);
  };

  const makeNeed = (): void => {
    record.change({ needToFarMbps: scaled.needToFarMbps, needToNearMbps: scaled.needToNearMbps });
    setWhatIf(1);
  };
  const lay = (): void => {
    const laid = tickedRows.flatMap(({ id, pair, band, option }) =>
      option?.settings === undefined
        ? []
        : [{ id: `rack ${id}`, name: `${pairName(pair)}, ${bandText(band)}`, fields: designOf(option.settings) }],
    );
    useLaid.getState().lay(link.id, laid);
    useLaid.setState({ justLaid: link.id });
    router.push(`/jobs/${jobId}/section/${link.id}`);
  };

  const first = planned?.found[0];
  const trouble = [designState.status, limitsState.status].find((s) => s.kind === "refused" || s.kind === "kept");
  const words = trouble !== undefined && "reason" in trouble ? errorSentence(trouble.reason, units) : said;
  const needWords = `Need ${mbpsText(design.needToFarMbps ?? 0)} there and ${mbpsText(design.needToNearMbps ?? 0)} back, ${shareText(design.needYearPercent)} of the year, in 9 cases of 10`;
  return (
    <Sheet
      rows={index}
      jobId={jobId}
      of={SHEETS.gear}
      undo={history}
      actions={[
        { name: "The catalogue of radios and antennas", href: `/jobs/${jobId}/gear` },
        { name: "Keep the rack as CSV", run: () => void keepCsv() },
        ...(verdicts.data ?? [])
          .filter((l) => l.linkId !== link.id)
          .map((l) => ({
            name: `Gear of ${l.nearName} to ${l.farName}${l.label === "" ? "" : `, ${l.label}`}`,
            href: `/jobs/${jobId}/gear/${l.linkId}`,
          })),
      ]}
      strip={jobStrip(
        job,
        verdict === null
          ? { label: "Link", value: `${near.name} to ${far.name}`, grow: 2.5 }
          : linkCell({ verdict: own ?? verdict, nearName: near.name, farName: far.name, label: link.label }),
        designState.status.kind === "saved" ? limitsState.status : designState.status,
        history.last,
      )}
    >
      <div className="panes grid h-full min-h-0 grid-cols-[minmax(0,1fr)_232px] min-[1500px]:grid-cols-[minmax(0,1fr)_264px]">
        <div ref={areaRef} className="flex min-h-0 flex-col">
          <Headline
            verdict={verdict}
            nearName={near.name}
            farName={far.name}
            label={link.label}
            narrow={narrow}
            beside={
              planned !== null &&
              !narrow && (
                <div className="absolute right-3 top-2">
                  <FacesDrawing plannedCm={planned.faceCm} chosenCm={chosen?.faceCm ?? planned.faceCm} units={units} />
                </div>
              )
            }
          >
            <p className="m-0 truncate text-line leading-[18px]">
              {first !== undefined && first.verdict !== "clear" && verdict !== null && (
                <strong className={`font-heading v-${verdict}`} data-testid="headline-trouble">
                  {sentenceCase(troubleText(first.code))}:{" "}
                </strong>
              )}
              {planned === null
                ? `over ${distanceText(units, profile.pathM)}`
                : `${pairName(planned.pair)}, ${planned.faceCm === null ? "" : `faces of ${faceText(planned.faceCm, units)}, `}over ${distanceText(units, profile.pathM)}`}
            </p>
            <p className="m-0 truncate text-line leading-[18px] text-ink-2">{asked ? needWords : "No required rate is set."}</p>
          </Headline>
          <RackNotices
            of={{ link, ends, job: whole, hardware, units, limits, limitsRecord, limitsState, record, designState, oneType }}
            elsewhere={chosen !== null && onlyType !== null && typeKeyOf(chosen.pair) === onlyType ? () => setElsewhere(true) : null}
            words={words}
            whatIf={
              whatIf === 1
                ? null
                : {
                    toFarMbps: scaled.needToFarMbps ?? 0,
                    toNearMbps: scaled.needToNearMbps ?? 0,
                    needMbps,
                    make: makeNeed,
                    back: () => setWhatIf(1),
                  }
            }
          />
          <ScrollRegion label="What is left and what is not" className="flex-1">
            {!needed ? (
              <NoNeed jobId={jobId} nearName={near.name} farName={far.name} take={record.change} />
            ) : plan === null ? (
              <p className="px-5 py-4 text-body">A radio of this design is not in the catalogue any more. Take another.</p>
            ) : failed ? (
              <p role="alert" className="px-5 py-4 text-body">
                This design cannot be worked out. Its section says what is wrong with it.
              </p>
            ) : rack === null || planned === null ? (
              <p role="status" className="px-5 py-4 text-body">
                Weighing every pair at every width. <progress value={share} max={1} aria-label="Pairs looked at" />
              </p>
            ) : (
              <>
                <RackList
                  rack={rack}
                  planned={planned}
                  design={scaled}
                  ask={(mbps) => setWhatIf(mbps / needMbps)}
                  why={
                    first === undefined || first.verdict === "clear"
                      ? "Kept in nine cases of ten."
                      : `${sentenceCase(troubleText(first.code))}.`
                  }
                  units={units}
                  chosenId={chosen?.id ?? null}
                  ticked={ticked}
                  choose={setChosen}
                  tick={tick}
                  take={take}
                  compare={compare}
                  alike={() => setElsewhere(true)}
                  sectionHref={`/jobs/${jobId}/section/${link.id}`}
                />
                <RejectedList rack={rack} letIn={letIn} />
                <BandLines rack={rack} yearPercent={design.needYearPercent} units={units} />
              </>
            )}
          </ScrollRegion>
        </div>
        {rack !== null && planned !== null ? (
          <RackAside
            jobId={jobId}
            linkId={link.id}
            rack={rack}
            planned={planned}
            chosen={chosen}
            isTaken={taken}
            ticked={tickedRows.length}
            units={units}
            nearName={near.name}
            busy={reply?.done === true && fresh ? null : `Drawing the first ${Math.min(DRAWN_ROWS, rack.rows.length)}.`}
            take={() => chosen !== null && take(chosen)}
            compare={compare}
            keepCsv={() => void keepCsv()}
            alike={() => setElsewhere(true)}
          >
            {chosen !== null && reply?.done === true && (
              <PowerTable
                id={chosen.id}
                name={pairName(chosen.pair)}
                needMbps={rack.needMbps}
                targetDbm={school.targetDbm}
                inForce={school.name}
                ask={schools}
                choose={(power) => limitsRecord.change(withSearch(limits, link.id, { power }, true))}
              />
            )}
          </RackAside>
        ) : (
          <div className="border-l border-ink" />
        )}
      </div>
      {comparing !== null && planned !== null && (
        <CompareDialog
          open={comparing}
          onOpenChange={setComparing}
          candidates={tickedRows}
          planned={planned}
          needMbps={rack?.needMbps ?? 0}
          units={units}
          take={take}
          sketch={sketch}
          lay={lay}
        />
      )}
      {elsewhere !== null && chosen !== null && whole !== undefined && (
        <AlikeDialog
          key={chosen.id}
          open={elsewhere}
          onOpenChange={(on) => setElsewhere(on ? true : null)}
          jobId={jobId}
          linkId={link.id}
          job={whole}
          chosen={chosen}
          hardware={hardware}
          limits={limits}
          units={units}
          done={(words) => {
            setSaid(words);
            void refresh(jobId);
          }}
        />
      )}
      {recording !== null && (
        <PermissionDialog
          open={recording}
          onOpenChange={setRecording}
          design={design}
          found={[]}
          day={job.visitOn}
          change={record.change}
        />
      )}
    </Sheet>
  );
};
