"use client";
import { Volume2, VolumeX } from "lucide-react";
import { useEffect, useMemo, useState } from "react";
import { type AngleWay, SCREW_BELOW_DEG } from "@/core/aim";
import type { Axis, RoofEntry } from "@/core/roof";
import { Choice, Field } from "../../controls/field";
import { figure } from "../../wording/numbers";
import { AXIS_WORDS, angleWords, typedLevel, typedTurn } from "../../wording/roof";
import { type AimSaid, aimOf, sayAim } from "./aim-said";
import { sound, useAwake } from "./awake";
import { Blocks } from "./countdown";
import type { EndView } from "./end-work";
import { LevelScale, SweepChart, TurnArrow } from "./roof-drawings";

const SETTLE_S = 5;
const WAYS: Readonly<Record<Axis, readonly (readonly [AngleWay, string])[]>> = {
  azimuth: [
    ["scale", "the scale on the pole"],
    ["screw", "turns of the screw"],
    ["eye", "by eye"],
    ["compass", "a compass"],
  ],
  tilt: [
    ["level", "an angle gauge"],
    ["screw", "turns of the screw"],
    ["eye", "by eye"],
  ],
};
const MOST_SHOWN = 8;
/** The form of the next reading: its button stands under the thumb, at the foot of the page. */
const READING_FORM = "next-reading";

/** Seconds since a moment, while they matter. */
const useSince = (atMs: number | null, forS: number): number => {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (atMs === null) return;
    setNow(Date.now());
    const timer = setInterval(() => {
      setNow(Date.now());
      if (Date.now() - atMs > forS * 1000) clearInterval(timer);
    }, 250);
    return () => clearInterval(timer);
  }, [atMs, forS]);
  return atMs === null ? forS : Math.max(0, (now - atMs) / 1000);
};

/** A sweep on one axis: what it comes to as the largest words, the level, the chart, and the next reading under the thumb. */
export const AimView = ({ view, axis, isDone }: { view: EndView; axis: Axis; isDone: boolean }) => {
  const { own, stands, otherStands, other } = view;
  const [way, setWay] = useState<AngleWay>(WAYS[axis][0]![0]);
  const [loud, setLoud] = useState(true);
  const awake = useAwake(!isDone);
  const sweep = stands.sweep[axis];
  const { readings } = sweep;
  const otherIsAimed = otherStands.peak.tilt !== null || stands.steps.find((s) => s.id === "other")?.state === "done";
  const { level } = readings[readings.length - 1]?.readAt === "there" ? other : own;
  const aim = useMemo(() => aimOf(own, axis, stands, otherIsAimed, way, level), [own, axis, stands, otherIsAimed, way, level]);
  const said = useMemo(() => (aim === null ? null : sayAim(aim, axis, readings)), [aim, axis, readings]);
  if (aim === null || said === null)
    return <p className="m-0 px-4 py-3">The level to expect is not known: what is open in the plan is settled first.</p>;
  const last = readings[readings.length - 1] ?? null;
  const heard = readings.filter((r) => r.levelDbm !== null);
  const best = heard.length === 0 ? null : Math.max(...heard.map((r) => r.levelDbm!));
  return (
    <>
      <Tabs view={view} axis={axis} loud={loud} setLoud={setLoud} />
      <Said said={said} axis={axis} />
      {aim.screw && (
        <p className="m-0 border-b border-ink px-4 py-2 font-figure" data-testid="screw">
          The beam is {figure(aim.model.beamwidthDeg, 1)}°, under {SCREW_BELOW_DEG}°: only the adjusting screw finds it.
        </p>
      )}
      {!awake && !isDone && <p className="m-0 px-4 pt-2 text-press">This browser lets the screen go dark; set the phone to stay awake.</p>}
      {(said.kind === "peak" || isDone) && last?.levelDbm != null && !isDone && (
        <div className="border-b border-ink px-4 py-2">
          <button
            type="button"
            className="main-action min-h-[64px] w-full text-head"
            disabled={view.busy}
            onClick={() => void view.write({ act: "peak", axis, levelDbm: last.levelDbm })}
          >
            It stands on the peak: {axis === "azimuth" ? "now the tilt" : "then tighten"}
          </button>
        </div>
      )}
      <Reading
        key={readings.length}
        view={view}
        axis={axis}
        way={way}
        setWay={setWay}
        stepDeg={aim.stepDeg}
        said={said}
        loud={loud}
        other={other.name}
      />
      <div className="border-b-[1.6px] border-ink px-4 py-2">
        <div className="flex items-baseline justify-between">
          <span>
            Expected {figure(aim.lowDbm)} to {figure(aim.highDbm)}
          </span>
          <b data-testid="now">{last === null ? "" : last.levelDbm === null ? "not heard" : `now ${figure(last.levelDbm)}`}</b>
        </div>
        {readings.length < 2 ? (
          <LevelScale dbm={last?.levelDbm ?? null} lowDbm={aim.lowDbm} highDbm={aim.highDbm} />
        ) : (
          <SweepChart
            axis={axis}
            readings={readings.map((r) => ({ id: r.id, deg: r.angleDeg ?? 0, dbm: r.levelDbm }))}
            levelAt={said.levelAt}
            peakDeg={said.peakDeg}
            readAtDeg={said.readAtDeg}
            lowDbm={aim.lowDbm}
            highDbm={aim.highDbm}
            beamwidthDeg={aim.model.beamwidthDeg}
            misfit={said.misfit}
          />
        )}
        <div className="flex justify-between gap-3">
          <span>{best === null ? "" : `best so far ${figure(best)}`}</span>
          <span>{best === null || best >= aim.lowDbm ? "" : `${figure(aim.lowDbm - best)} dB to go`}</span>
        </div>
        {readings.length > 0 && <Table axis={axis} readings={readings} />}
      </div>
      <Insist view={view} axis={axis} last={last} isDone={isDone} />
    </>
  );
};

const Tabs = ({ view, axis, loud, setLoud }: { view: EndView; axis: Axis; loud: boolean; setLoud: (loud: boolean) => void }) => (
  <div className="flex items-stretch border-b-[2.4px] border-ink">
    {(["azimuth", "tilt"] as const).map((a, i) => (
      <span
        key={a}
        aria-current={a === axis ? "step" : undefined}
        className={`flex min-h-12 flex-1 items-center justify-center border-r-[1.6px] border-ink ${a === axis ? "bg-ink font-heading text-paper" : ""}`}
      >
        {i + 1} {a === "azimuth" ? "Azimuth" : "Tilt"}
        {view.stands.peak[a] !== null && a !== axis ? " ✓" : ""}
      </span>
    ))}
    <button
      type="button"
      aria-pressed={loud}
      aria-label={loud ? "Tone on" : "Tone off"}
      className="flex min-h-12 w-16 items-center justify-center"
      onClick={() => setLoud(!loud)}
    >
      {loud ? <Volume2 size={26} aria-hidden="true" /> : <VolumeX size={26} aria-hidden="true" />}
    </button>
  </div>
);

const Said = ({ said, axis }: { said: AimSaid; axis: Axis }) => (
  <div className="border-b-[1.6px] border-ink px-4 py-2" role="status" data-testid="said">
    {said.turn === null ? (
      <p className="m-0 text-word font-heading leading-10">{said.head}</p>
    ) : (
      <>
        <p className="m-0 text-title font-heading leading-7">{said.head}</p>
        <div className="flex items-center gap-3">
          <TurnArrow axis={axis} deg={said.turn.deg} />
          <p className="m-0 flex items-baseline gap-3">
            <b className="font-mono text-[64px] leading-[68px]" data-testid="turn">
              {figure(Math.abs(said.turn.deg), Math.abs(said.turn.deg) < 5 ? 1 : 0)}°
            </b>
            <span>
              <b className="block text-head">± {figure(said.turn.plusMinusDeg, said.turn.plusMinusDeg < 3 ? 1 : 0)}°</b>
              <span className="block">sure: {said.turn.sure} in 100</span>
            </span>
          </p>
        </div>
      </>
    )}
    {said.words.map((w) => (
      <p key={w} className="m-0 leading-5">
        {w}
      </p>
    ))}
  </div>
);

/** The last readings as they were taken. */
const Table = ({ axis, readings }: { axis: Axis; readings: readonly RoofEntry[] }) => (
  <ol className="m-0 mt-1 flex list-none border-t border-ink p-0" aria-label="Last readings">
    {readings.slice(-MOST_SHOWN).map((r, i, all) => (
      <li
        key={r.id}
        className={`min-w-0 flex-1 border-r border-ink py-0.5 text-center last:border-r-0 ${i === all.length - 1 ? "bg-ink text-paper" : ""}`}
      >
        <span className="block text-press leading-5">
          {figure(Math.abs(r.angleDeg ?? 0), (r.angleDeg ?? 0) % 1 === 0 ? 0 : 1)}
          {(r.angleDeg ?? 0) === 0 ? "" : axis === "azimuth" ? ((r.angleDeg ?? 0) < 0 ? "l" : "r") : (r.angleDeg ?? 0) < 0 ? "d" : "u"}
        </span>
        <b className="block font-mono leading-5">{r.levelDbm === null ? "no" : figure(r.levelDbm)}</b>
      </li>
    ))}
  </ol>
);

const Reading = ({
  view,
  axis,
  way,
  setWay,
  stepDeg,
  said,
  loud,
  other,
}: {
  view: EndView;
  axis: Axis;
  way: AngleWay;
  setWay: (way: AngleWay) => void;
  stepDeg: number;
  said: AimSaid;
  loud: boolean;
  other: string;
}) => {
  const { readings } = view.stands.sweep[axis];
  const last = readings[readings.length - 1] ?? null;
  const before = readings[readings.length - 2] ?? null;
  // The next of a sweep goes on the way it went; what is told to be read stands there already.
  const onward = Math.sign((last?.angleDeg ?? 0) - (before?.angleDeg ?? 0)) || 1;
  const next = said.readAtDeg ?? (last === null ? 0 : (last.angleDeg ?? 0) + onward * stepDeg);
  const rounded = Math.round(next * (stepDeg >= 1 ? 1 : 10)) / (stepDeg >= 1 ? 1 : 10);
  const [sideText, setSide] = useState(String(Math.abs(rounded)));
  const [minus, setMinus] = useState(rounded < 0);
  const [levelText, setLevel] = useState("");
  const [tried, setTried] = useState(false);
  const [there, setThere] = useState(last?.readAt === "there");
  const turn = typedTurn(sideText);
  const angleDeg = turn === null ? null : turn < 0 ? turn : minus ? -turn : turn;
  const level = typedLevel(levelText);
  const gone = useSince(last === null ? null : Date.parse(last.at), SETTLE_S);
  const shift = (by: number): void => {
    const at = Math.round(((angleDeg ?? 0) + by) * 100) / 100;
    setMinus(at < 0);
    setSide(String(Math.abs(at)));
  };
  const mark = (levelDbm: number | null): void => {
    if (angleDeg === null) return;
    if (loud && levelDbm !== null) sound(levelDbm);
    void view.write({ act: "reading", axis, angleDeg, levelDbm, way, readAt: there ? "there" : "here" });
  };
  const [back, forth] = axis === "azimuth" ? ["left", "right"] : ["down", "up"];
  return (
    <form
      aria-label="Next reading"
      className="[&_input]:min-h-14 [&_input]:text-word [&_select]:min-h-12 [&_select]:text-name"
      id={READING_FORM}
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        if (level === null) setTried(true);
        else if (!view.busy) mark(level);
      }}
    >
      <div className="grid gap-2 border-b-[1.6px] border-ink px-4 py-2">
        <div className="grid grid-cols-[48px_1fr_48px] items-end gap-2">
          <button type="button" className="min-h-14 border-[1.6px] border-ink text-press leading-[18px]" onClick={() => shift(-stepDeg)}>
            {stepDeg}° {back}
          </button>
          <Field
            label="Degrees from the start"
            inputMode="decimal"
            value={sideText}
            maxLength={6}
            onChange={(e) => setSide(e.target.value)}
          />
          <button type="button" className="min-h-14 border-[1.6px] border-ink text-press leading-[18px]" onClick={() => shift(stepDeg)}>
            {stepDeg}° {forth}
          </button>
        </div>
        <fieldset className="grid grid-cols-2 border-[1.6px] border-ink" aria-label="Side of the start">
          {[true, false].map((isMinus) => (
            <label
              key={String(isMinus)}
              className={`flex min-h-11 items-center justify-center has-[:focus-visible]:outline-2 ${(angleDeg ?? 0) !== 0 && angleDeg! < 0 === isMinus ? "bg-ink font-figure text-paper" : ""}`}
            >
              <input
                type="radio"
                name="side"
                className="sr-only"
                checked={minus === isMinus}
                onChange={() => {
                  setMinus(isMinus);
                  setSide(sideText.replace(/^[-\u2212\u2013]/, ""));
                }}
              />
              {isMinus ? back : forth} of the start
            </label>
          ))}
        </fieldset>
        <div className="grid grid-cols-[1fr_104px] items-end gap-2">
          <Field
            label="Level a chain, minus dBm"
            inputMode="decimal"
            value={levelText}
            maxLength={6}
            onChange={(e) => setLevel(e.target.value)}
          />
          <button
            type="button"
            className="min-h-14 border-[1.6px] border-ink font-figure"
            disabled={angleDeg === null || view.busy}
            onClick={() => mark(null)}
          >
            Not heard
          </button>
        </div>
        {(turn === null || (level === null && (levelText.trim() !== "" || tried))) && (
          <p role="alert" className="m-0 text-press">
            {turn === null
              ? "A turn is up to 180 degrees, with one or two decimals."
              : levelText.trim() === ""
                ? "Type the level, or press Not heard."
                : "A level is 5 to 120, with one decimal."}
          </p>
        )}
        <div className="flex items-center gap-3">
          <span className="flex-none">{gone < SETTLE_S ? "Let it settle" : "Settled"}</span>
          <span className="flex-1">
            <Blocks share={Math.min(1, gone / SETTLE_S)} />
          </span>
          <b className="w-10 text-right">{Math.max(0, Math.ceil(SETTLE_S - gone))} s</b>
        </div>
        <details>
          <summary className="min-h-12 cursor-pointer py-3 text-press">
            Angle by {WAYS[axis].find(([w]) => w === way)?.[1]}; level read {there ? `at ${other}` : "here"}
          </summary>
          <Choice label="The angle is taken by" value={way} onChange={(e) => setWay(e.target.value as AngleWay)}>
            {WAYS[axis].map(([key, words]) => (
              <option key={key} value={key}>
                {words}
              </option>
            ))}
          </Choice>
          <Choice label="The level is read" value={there ? "there" : "here"} onChange={(e) => setThere(e.target.value === "there")}>
            <option value="here">at this radio</option>
            <option value="there">at {other}, told by phone</option>
          </Choice>
          <button
            type="button"
            className="press min-h-12"
            disabled={readings.length === 0}
            onClick={() => void view.write({ act: "sweep", axis })}
          >
            Begin a new sweep {AXIS_WORDS[axis]}
          </button>
        </details>
      </div>
    </form>
  );
};

/** What is pressed again and again while aiming. */
export const AimButtons = ({ view, axis }: { view: EndView; axis: Axis }) => {
  const { readings } = view.stands.sweep[axis];
  const last = readings[readings.length - 1] ?? null;
  return (
    <>
      <button type="submit" form={READING_FORM} className="min-h-[84px] flex-[2] bg-ink px-1 text-head font-heading text-paper">
        Mark reading {readings.length + 1}
      </button>
      <button
        type="button"
        className="min-h-[84px] flex-1 text-head font-heading disabled:font-said"
        disabled={last === null || view.busy}
        aria-label={last === null ? "Undo" : `Undo reading ${readings.length}, ${angleWords(axis, last.angleDeg ?? 0)}`}
        onClick={() => last !== null && void view.write({ act: "void", of: last.id })}
      >
        Undo
      </button>
    </>
  );
};

/** Whoever stands there may know better; why is written down. */
const Insist = ({ view, axis, last, isDone }: { view: EndView; axis: Axis; last: RoofEntry | null; isDone: boolean }) => {
  const [words, setWords] = useState("");
  if (isDone || last === null || last.levelDbm === null) return null;
  return (
    <details className="px-4">
      <summary className="min-h-12 cursor-pointer py-3 text-press">Take it as the peak all the same</summary>
      <Field label="Why" value={words} maxLength={200} onChange={(e) => setWords(e.target.value)} />
      <button
        type="button"
        className="main-action mt-2 min-h-[56px] w-full"
        disabled={words.trim() === "" || view.busy}
        onClick={() => void view.write({ act: "peak", axis, levelDbm: last.levelDbm, words: words.trim() })}
      >
        Take {figure(last.levelDbm)} dBm as the peak
      </button>
    </details>
  );
};
