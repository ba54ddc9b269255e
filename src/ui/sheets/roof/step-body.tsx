"use client";
import { useState } from "react";
import type { RoofEnd } from "@/contract";
import type { AngleWay } from "@/core/aim";
import type { StepStands } from "@/core/roof";
import { usePhotos } from "../../api/queries";
import { Choice, Field } from "../../controls/field";
import { lazyPart } from "../../controls/lazy-part";
import { usePreferences } from "../../state/preferences";
import { RISK_CAUTION, RISK_WORDS, riskText } from "../../wording/kit";
import { angleText, bearingText, figure, lengthText, waitText } from "../../wording/numbers";
import { PART_WORDS, STEP_WORDS, typedLevel } from "../../wording/roof";
import { AimView } from "./aim-view";
import { Countdown } from "./countdown";
import type { EndView } from "./end-work";

const PhotoStrip = lazyPart(() => import("../brief/photo-strip").then((m) => m.PhotoStrip));
const Compass = lazyPart(() => import("./compass").then((m) => m.Compass));
const PackPages = lazyPart(() => import("./pack-pages").then((m) => m.PackPages));

const BOOT_S = 90;
const WAYS: readonly (readonly [AngleWay, string])[] = [
  ["eye", "a landmark, by eye"],
  ["compass", "a compass"],
  ["phone", "this phone's compass"],
];

/** Risks that stop an end. */
const stopsOf = (end: RoofEnd): readonly RoofEnd["risks"][number][] => end.risks.filter((r) => r.verdict === "short");

/** The step that is open. */
export const StepBody = ({ view, step, number }: { view: EndView; step: StepStands; number: number }) => {
  const [title, how] = STEP_WORDS[step.id];
  const stopping = step.id === "risks" ? stopsOf(view.own) : [];
  return (
    <section aria-label={title} className="border-b-[1.6px] border-ink pb-3">
      {step.id === "azimuth" || step.id === "tilt" ? (
        <AimView view={view} axis={step.id} isDone={step.state === "done"} />
      ) : (
        <>
          {stopping.length > 0 && (
            <p role="alert" className="m-0 px-4 pt-2 text-verdict font-verdict leading-[58px]">
              Stop
            </p>
          )}
          <h2 className="m-0 px-4 pt-3 text-title font-heading leading-7">
            {number} {title}
          </h2>
          <p className="m-0 px-4 pb-2 leading-5">{how}</p>
          <Before view={view} step={step} />
          <Parts view={view} step={step} />
          <After view={view} step={step} />
        </>
      )}
      {step.state === "done" && (
        <button
          type="button"
          className="press mx-4 mt-2 min-h-12"
          disabled={view.busy}
          onClick={() => void view.write({ act: "back", step: step.id })}
        >
          Take this step back, and what rests on it
        </button>
      )}
    </section>
  );
};

const Parts = ({ view, step }: { view: EndView; step: StepStands }) => {
  const { own } = view;
  const [way, setWay] = useState<AngleWay>("eye");
  const stops = step.id === "risks" && stopsOf(own).length > 0;
  return (
    <>
      {step.id === "coarse" && (
        <div className="px-4 pb-2 [&_select]:min-h-12 [&_select]:text-name">
          <Choice label="Aimed by" value={way} onChange={(e) => setWay(e.target.value as AngleWay)}>
            {WAYS.map(([key, words]) => (
              <option key={key} value={key}>
                {words}
              </option>
            ))}
          </Choice>
        </div>
      )}
      {stops && (
        <p role="alert" className="m-0 border-y-[2.4px] border-ink px-4 py-2 font-figure">
          {stopsOf(own)
            .map((r) => RISK_WORDS[r.risk])
            .join(", ")}{" "}
          stops this end. It is lifted under 09 Kit by somebody who does not do the work; then this step opens.
        </p>
      )}
      <ul className="m-0 list-none p-0">
        {step.parts.map(({ part, by }) => (
          <li key={part} className="border-t border-rule">
            <label className="flex min-h-[50px] items-center gap-3 px-4">
              <input
                type="checkbox"
                className="!min-h-0 h-8 w-8 flex-none"
                checked={by !== null}
                aria-readonly={by !== null}
                disabled={stops}
                onChange={() =>
                  by === null &&
                  !view.busy &&
                  void view.write({ act: "tick", step: step.id, part, ...(step.id === "coarse" ? { way } : {}) })
                }
              />
              <span className={by === null ? "font-figure" : ""}>{PART_WORDS[part]}</span>
            </label>
          </li>
        ))}
      </ul>
    </>
  );
};

/** What is to be seen before it is ticked. */
const Before = ({ view, step }: { view: EndView; step: StepStands }) => {
  const { own, other, facts } = view;
  const { units } = usePreferences();
  switch (step.id) {
    case "risks":
      return (
        <div className="px-4 pb-2">
          <ul className="m-0 list-none p-0">
            {own.risks.map((r) => (
              <li key={r.risk} className="border-t border-rule py-1.5 leading-5">
                <b>
                  {r.verdict === "short" ? "STOP: " : r.verdict === "unknown" ? "Not answered: " : ""}
                  {RISK_WORDS[r.risk]}
                </b>
                , {riskText(r, "")}. {RISK_CAUTION[r.risk]}
              </li>
            ))}
          </ul>
          {own.exposureM !== null && own.exposureM > 0 && (
            <p className="m-0 border-t border-rule py-1.5">
              Nobody nearer than {lengthText(units, own.exposureM)} in front of it while it sends; the local rule decides.
            </p>
          )}
          {own.access !== "" && <p className="m-0 border-t border-rule py-1.5">Way up: {own.access}</p>}
          {facts.contact !== "" && <p className="m-0 border-t border-rule py-1.5">Contact: {facts.contact}</p>}
        </div>
      );
    case "mount":
      return (
        <p className="m-0 px-4 pb-2">
          {own.antenna === own.unit ? own.unit : `${own.unit} with ${own.antenna}`}, {lengthText(units, own.aglM)} above ground
          {own.polarisation === "" ? "" : `, ${own.polarisation}`}.
        </p>
      );
    case "power":
      return (
        <div className="grid gap-2 px-4 pb-2">
          <Countdown name="The radio starts" seconds={BOOT_S} />
          {facts.radarWaitS !== null && (
            <>
              <p className="m-0">
                On this channel it listens {waitText(facts.radarWaitS)} for radar before it sends. That is no fault; nobody gives up before.
              </p>
              <Countdown name="It listens for radar" seconds={facts.radarWaitS} />
            </>
          )}
        </div>
      );
    case "coarse":
    case "look":
      return (
        <div className="px-4 pb-2">
          <p className="figure m-0 text-word leading-10">{bearingText(own.lookDeg - own.declinationDeg + 360)}</p>
          <p className="m-0">
            magnetic; {bearingText(own.lookDeg)} true. Tilt {angleText(own.lookTiltDeg)}.
          </p>
          <p className="m-0 leading-5">Steel turns a compass: stand two metres off mast, roof edge and ladder.</p>
          <table className="mt-2 w-full border-collapse" aria-label="Landmarks">
            <tbody>
              {[own.farEnd, ...own.landmarks.filter((l) => !l.hidden)].slice(0, 7).map((l) => (
                <tr key={l.name} className="border-t border-rule [&>td]:py-1.5">
                  <td className="font-figure">{l.name}</td>
                  <td className="text-right">
                    {Math.abs(l.offDeg) < 0.05 ? "on the line" : `${figure(Math.abs(l.offDeg), 1)}° ${l.offDeg < 0 ? "left" : "right"}`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <Compass targetMagneticDeg={(own.lookDeg - own.declinationDeg + 360) % 360} />
          <PackPages jobId={view.job.job.id} linkId={facts.link.id} letter={view.end === "near" ? "A" : "B"} />
        </div>
      );
    case "other":
      return (
        <p className="m-0 px-4 pb-2">
          {view.otherStands.steps.filter((s) => s.state === "done").length === 0
            ? `Nothing is known here of ${other.name} yet.`
            : `${other.name}: ${view.otherStands.steps.filter((s) => s.state === "done").length} of ${view.otherStands.steps.length} steps are known here.`}
        </p>
      );
    default:
      return null;
  }
};

/** What is read, or told by phone. */
const After = ({ view, step }: { view: EndView; step: StepStands }) => {
  const { own, other, stands } = view;
  switch (step.id) {
    case "look":
    case "again":
      return (
        <LevelForm
          label={step.id === "look" ? "Level read, dBm" : "Level after tightening, dBm"}
          note={
            step.id === "again" && stands.before !== null
              ? `Before it was tightened: ${figure(stands.before.levelDbm ?? 0, 1)} dBm.`
              : own.level === null
                ? ""
                : `Expected ${figure(own.level.lowDbm)} to ${figure(own.level.highDbm)} dBm.`
          }
          busy={view.busy}
          take={(levelDbm) => void view.write({ act: "level", step: step.id, levelDbm })}
        />
      );
    case "other":
    case "both":
      return step.state === "done" ? null : <ToldForm view={view} step={step.id} other={other.name} />;
    case "photos":
      return <Photos view={view} />;
    default:
      return null;
  }
};

const LevelForm = ({ label, note, busy, take }: { label: string; note: string; busy: boolean; take: (dbm: number) => void }) => {
  const [text, setText] = useState("");
  const level = typedLevel(text);
  return (
    <form
      aria-label={label}
      className="grid gap-2 px-4 [&_input]:min-h-14 [&_input]:text-word"
      onSubmit={(e) => {
        e.preventDefault();
        if (level !== null) take(level);
      }}
    >
      {note !== "" && <p className="m-0">{note}</p>}
      <Field label={label} inputMode="decimal" value={text} maxLength={6} onChange={(e) => setText(e.target.value)} />
      {text.trim() !== "" && (
        <p role="status" className="m-0">
          {level === null ? "A level is 5 to 120, with one decimal; the minus need not be typed." : `That is ${figure(level, 1)} dBm.`}
        </p>
      )}
      <button type="submit" className="main-action min-h-[56px]" disabled={level === null || busy}>
        Write it down
      </button>
    </form>
  );
};

/** Where there is no coverage a name on the phone stands for what cannot be seen. */
const ToldForm = ({ view, step, other }: { view: EndView; step: "other" | "both"; other: string }) => {
  const [who, setWho] = useState("");
  const [text, setText] = useState("");
  const level = typedLevel(text);
  const ready = who.trim() !== "" && (step === "other" || level !== null);
  const told = step === "both" ? "again" : view.other.azimuth !== null ? "tilt" : "look";
  return (
    <form
      aria-label="Told by phone"
      className="grid gap-2 px-4 [&_input]:min-h-12 [&_input]:text-name"
      onSubmit={(e) => {
        e.preventDefault();
        if (ready) void view.write({ act: "told", step: told, words: who.trim(), levelDbm: level });
      }}
    >
      <p className="m-0">Seen here by itself when both phones have coverage. Else {other} tells it by phone:</p>
      <Field label="Told by" value={who} maxLength={60} onChange={(e) => setWho(e.target.value)} />
      {step === "both" && (
        <Field
          label={`Level at ${other} after tightening, dBm`}
          inputMode="decimal"
          value={text}
          maxLength={6}
          onChange={(e) => setText(e.target.value)}
        />
      )}
      <button type="submit" className="main-action min-h-[56px]" disabled={!ready || view.busy}>
        {step === "other" ? "The other end stands on its peak" : "The other end has read"}
      </button>
    </form>
  );
};

const Photos = ({ view }: { view: EndView }) => {
  const photos = usePhotos(view.job.job.id);
  const { siteId } = view.own;
  return (
    <div className="px-4 pt-2">
      <PhotoStrip
        jobId={view.job.job.id}
        photos={(photos.data ?? []).filter((p) => p.siteId === siteId)}
        sites={view.job.sites}
        siteId={siteId}
      />
    </div>
  );
};
