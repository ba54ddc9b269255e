"use client";
import { proxy, type Remote, wrap } from "comlink";
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { type DesignFields, type HardwareDto, type JobBundle, type Limits, type LinkDto, profileFromDto } from "@/contract";
import type { PathProfile } from "@/core/link";
import { type Candidate, keptMultipleOf, serves, type UnitPair } from "@/core/rack";
import type { RackReply, RackWorker } from "@/workers/messages";
import { bodyOf } from "../../../api/client";
import type { Opened } from "../../../controls/lazy-part";
import { SheetDialog } from "../../../controls/sheet-dialog";
import { sendEdit } from "../../../state/browser-outbox";
import { errorSentence } from "../../../wording/errors";
import { countText, euroText, pairName, REFUSAL_WORDS, refusalFigure, spareText } from "../../../wording/gear";
import { figure, lengthText, type Units } from "../../../wording/numbers";
import { rackLimitsOf, schoolOf } from "./limits-of";
import { kindsOfUnit, presentPrice } from "./many-links";
import { readOtherLink } from "./other-links";
import { designOf } from "./settings";

/** What the pair would come to on one other link. */
type Outcome =
  | { readonly kind: "no-need" }
  | { readonly kind: "fault"; readonly words: string }
  | { readonly kind: "candidate"; readonly best: Candidate; readonly needMbps: number };

const askWorker = async (
  remote: Remote<RackWorker>,
  profile: PathProfile,
  hardware: HardwareDto,
  question: Parameters<RackWorker["rack"]>[0],
): Promise<RackReply | null> => {
  await (remote.open as unknown as (p: PathProfile, h: HardwareDto) => Promise<void>)(profile, hardware);
  let last: RackReply | null = null;
  await (remote.rack as unknown as RackWorker["rack"])(
    question,
    proxy((reply: RackReply) => {
      last = reply;
    }),
    proxy(() => undefined),
  );
  return last;
};

/** The pair alone, tried on another link: its best width there, drawn. */
const outcomeOf = async (
  remote: Remote<RackWorker>,
  jobId: string,
  linkId: string,
  pair: UnitPair,
  hardware: HardwareDto,
  limits: Limits,
): Promise<Outcome> => {
  const other = await readOtherLink(jobId, linkId, hardware);
  if (other.kind === "no-need") return { kind: "no-need" };
  if (other.kind === "no-radio") return { kind: "fault", words: "its radio is not in the catalogue any more" };
  const { plan, bundle, needMbps } = other;
  const ids = [pair.near, pair.far];
  const only: HardwareDto = {
    radios: hardware.radios.filter((r) => ids.some((u) => u.radio.id === r.id)),
    antennas: hardware.antennas.filter((a) => ids.some((u) => u.antenna?.id === a.id)),
  };
  // The pair is given: what narrows the search does not count, what the places ask does.
  const own = { ...rackLimitsOf(limits, linkId, bundle.near.id, bundle.far.id), alike: false, keep: null, bands: null, family: null };
  const reply = await askWorker(remote, profileFromDto(await other.path()), only, { plan, limits: own, school: schoolOf(limits, linkId) });
  const all =
    reply === null
      ? []
      : [...reply.rack.rows.flatMap((r) => [r.best, ...r.widths, ...r.beats]), ...reply.rack.rejected.flatMap((g) => g.candidates)];
  const best = all.find((c) => c.pair.near.key === pair.near.key && c.pair.far.key === pair.far.key);
  return best === undefined ? { kind: "fault", words: "the pair has no channel there" } : { kind: "candidate", best, needMbps };
};

const outcomeWords = (o: Outcome | undefined, units: Units): string => {
  if (o === undefined) return "being worked out";
  if (o.kind === "no-need") return "no required rate is set";
  if (o.kind === "fault") return o.words;
  const { best, needMbps } = o;
  if (best.refusal !== null) return `${REFUSAL_WORDS[best.refusal.code].toLowerCase()}, ${refusalFigure(best.refusal)}`;
  const path = best.clearance?.verdict === "short" ? `, path ${lengthText(units, best.clearance.missM ?? 0)} short` : "";
  return `${spareText((keptMultipleOf(best) - 1) * needMbps)}, ${figure(best.widthMhz)} MHz on ${figure(best.option!.centreMhz)}${path}`;
};

/** The same pair on other links of the job: tried on each over its own path, taken for a chosen set as one step. */
export const AlikeDialog = ({
  jobId,
  linkId,
  job,
  chosen,
  hardware,
  limits,
  units,
  done,
  ...opened
}: Opened & {
  jobId: string;
  linkId: string;
  job: JobBundle;
  chosen: Candidate;
  hardware: HardwareDto;
  limits: Limits;
  units: Units;
  done: (words: string) => void;
}) => {
  const { pair } = chosen;
  // What was there when it was opened: an edit of others meanwhile is a clash that is told.
  const [others] = useState<readonly LinkDto[]>(() => job.links.filter((l) => l.id !== linkId));
  /** The same question as long as it is open. */
  const [question] = useState(() => ({ jobId, pair, hardware, limits, units }));
  const [outcomes, setOutcomes] = useState<ReadonlyMap<string, Outcome>>(new Map());
  const [checked, setChecked] = useState<ReadonlySet<string>>(new Set());
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState<string | null>(null);

  useEffect(() => {
    const worker = new Worker("/workers/rack.worker.js");
    const remote = wrap<RackWorker>(worker) as Remote<RackWorker>;
    let gone = false;
    const run = async (): Promise<void> => {
      for (const l of others) {
        const outcome = await outcomeOf(remote, question.jobId, l.id, question.pair, question.hardware, question.limits).catch(
          (error: unknown): Outcome => ({ kind: "fault", words: errorSentence(bodyOf(error), question.units) }),
        );
        if (gone) return;
        setOutcomes((now) => new Map(now).set(l.id, outcome));
      }
    };
    void run();
    return () => {
      gone = true;
      worker.terminate();
    };
  }, [question, others]);

  const nameOf = (id: string): string => job.sites.find((s) => s.id === id)?.name ?? "";
  const takeable = (id: string): Candidate | null => {
    const o = outcomes.get(id);
    return o?.kind === "candidate" && o.best.refusal === null && o.best.option?.settings !== undefined ? o.best : null;
  };
  const servesAt = (id: string): boolean => {
    const c = takeable(id);
    return c !== null && serves(c);
  };
  const set = others.filter((l) => checked.has(l.id) && takeable(l.id) !== null);
  const before = set.reduce<number | null>((sum, l) => {
    const price = presentPrice(l.design, hardware);
    return sum === null || price === null ? null : sum + price;
  }, 0);
  const after = chosen.priceEur === null ? null : set.length * chosen.priceEur;
  const designs = job.links.map((l): Pick<DesignFields, "nearRadioId" | "farRadioId" | "nearAntennaId" | "farAntennaId"> => {
    const c = set.some((x) => x.id === l.id) ? takeable(l.id) : null;
    return c === null ? l.design : { ...l.design, ...designOf(c.option!.settings!) };
  });
  const kindsNow = kindsOfUnit(job.links.map((l) => l.design));
  const kindsThen = kindsOfUnit(designs);
  const apply = async (): Promise<void> => {
    setBusy(true);
    setFault(null);
    try {
      await sendEdit(jobId, "POST", `/api/jobs/${jobId}/take`, {
        designs: set.map((l) => ({ id: l.design.id, version: l.design.version, fields: designOf(takeable(l.id)!.option!.settings!) })),
      });
      done(`${pairName(pair)} is planned on ${countText(set.length, "other link", "other links")}. Undo takes all of it back as one step.`);
      opened.onOpenChange(false);
    } catch (error) {
      setFault(errorSentence(bodyOf(error), units));
    } finally {
      setBusy(false);
    }
  };
  return (
    <SheetDialog
      {...opened}
      title={`${pairName(pair)} on other links`}
      note="Each over its own path and to its own need, at its best width there."
      width="wide"
    >
      {others.length === 0 && <p className="m-0">This job has no other link.</p>}
      <ul className="m-0 max-h-[56vh] list-none overflow-auto p-0" data-testid="other-links">
        {others.map((l) => (
          <li key={l.id} className="border-b border-rule">
            <label className="flex min-h-8 items-center gap-3 text-line">
              <input
                type="checkbox"
                className="h-6 w-6 flex-none accent-(--ink)"
                disabled={takeable(l.id) === null}
                checked={checked.has(l.id) && takeable(l.id) !== null}
                onChange={(e) =>
                  setChecked((now) => {
                    const next = new Set(now);
                    if (e.target.checked) next.add(l.id);
                    else next.delete(l.id);
                    return next;
                  })
                }
              />
              <span className="w-[300px] flex-none truncate">
                {nameOf(l.nearSiteId)} to {nameOf(l.farSiteId)}
                {l.label === "" ? "" : `, ${l.label}`}
              </span>
              <span className={`min-w-0 flex-1 ${servesAt(l.id) ? "" : "text-ink-2"}`}>{outcomeWords(outcomes.get(l.id), units)}</span>
            </label>
          </li>
        ))}
      </ul>
      <p className="cap mb-0 mt-3" role="status" data-testid="other-links-sum">
        {countText(set.length, "link", "links")} chosen
        {set.length > 0 && before !== null && after !== null ? `: ${euroText(before)} now, ${euroText(after)} then` : ""}. Kinds of unit in
        the job, each with its spare: {figure(kindsNow)} now, {figure(kindsThen)} then.
      </p>
      {fault !== null && (
        <p role="alert" className="mb-0 mt-2 text-short-figure">
          {fault}
        </p>
      )}
      <div className="mt-4 flex items-center gap-5">
        <button type="button" className="main-action" disabled={busy || set.length === 0} onClick={() => void apply()}>
          Take it on {countText(set.length, "link", "links")}
        </button>
        <button
          type="button"
          className="press"
          disabled={!others.some((l) => servesAt(l.id))}
          onClick={() => setChecked(new Set(others.filter((l) => servesAt(l.id)).map((l) => l.id)))}
        >
          Choose all that it serves
        </button>
        <Dialog.Close className="press">Close</Dialog.Close>
      </div>
    </SheetDialog>
  );
};
