"use client";
import { useState } from "react";
import { type RoofEntry, writtenAtMs } from "@/core/roof";
import { Field } from "../../controls/field";
import type { EndView } from "./end-work";

/** Stopping needs a reason and nothing else: nobody is asked whether they are sure. */
export const StopForm = ({ view, leave }: { view: EndView; leave: () => void }) => {
  const [words, setWords] = useState("");
  const stop = (): void => {
    if (words.trim() !== "") void view.write({ act: "stop", words: words.trim() }).then(leave);
  };
  return (
    <form
      aria-label="Stop"
      className="grid gap-2 border-t border-ink px-4 py-2 [&_input]:min-h-12 [&_input]:text-name"
      onSubmit={(e) => {
        e.preventDefault();
        stop();
      }}
    >
      <Field label="Why it stops" value={words} maxLength={200} autoFocus onChange={(e) => setWords(e.target.value)} />
      <div className="flex items-center gap-6">
        <button type="submit" className="main-action min-h-[56px] flex-1" disabled={words.trim() === "" || view.busy}>
          Stop this end
        </button>
        <button type="button" className="press min-h-12" onClick={leave}>
          Leave it
        </button>
      </div>
    </form>
  );
};

/** A stop holds, also without coverage, until somebody else than who stopped lifts it by name and reason. */
export const LiftForm = ({ stop, view }: { stop: RoofEntry; view: EndView }) => {
  const [who, setWho] = useState("");
  const [words, setWords] = useState("");
  const same = who.trim() !== "" && who.trim().toLowerCase() === stop.by.trim().toLowerCase();
  const ready = who.trim() !== "" && words.trim() !== "" && !same;
  return (
    <main className="flex-1 px-4 py-3">
      <p className="m-0 text-verdict font-verdict leading-[58px]" data-testid="stopped">
        Stop
      </p>
      <p className="m-0 text-head font-heading">{stop.words}</p>
      <p className="m-0">
        {stop.by}, {new Date(writtenAtMs(stop)).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" })}. Hands off, tools down,
        nobody goes on here.
      </p>
      <form
        aria-label="Lift the stop"
        className="mt-6 grid gap-2 border-t border-ink pt-3 [&_input]:min-h-12 [&_input]:text-name"
        onSubmit={(e) => {
          e.preventDefault();
          if (ready) void view.write({ act: "lift", words: words.trim(), by: who.trim() });
        }}
      >
        <p className="m-0">Somebody else than {stop.by}, competent for it, lets it go on:</p>
        <Field label="Name of who lifts it" value={who} maxLength={60} onChange={(e) => setWho(e.target.value)} />
        {same && (
          <p role="alert" className="m-0 text-press">
            Whoever stopped does not lift it.
          </p>
        )}
        <Field label="Why it may go on" value={words} maxLength={200} onChange={(e) => setWords(e.target.value)} />
        <button type="submit" className="main-action min-h-[56px]" disabled={!ready || view.busy}>
          Lift the stop
        </button>
      </form>
    </main>
  );
};
