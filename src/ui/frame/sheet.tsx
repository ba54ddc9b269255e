"use client";
import { Redo2, Undo2 } from "lucide-react";
import Link from "next/link";
import { type ReactNode, useEffect, useState } from "react";
import type { Verdict } from "@/core/link";
import { lazyPart, useFetchAhead } from "../controls/lazy-part";
import { useKeys } from "../controls/use-keys";
import { VerdictMark } from "../marks/verdict-mark";
import type { SheetDef } from "../sheets/registry";
import type { JobHistory } from "../state/job-history";
import { usePreferences } from "../state/preferences";

import { Logo } from "./logo";
import type { PaletteAction } from "./palette";

const HistoryDialog = lazyPart(() => import("./history-dialog").then((m) => m.HistoryDialog));
const KeyList = lazyPart(() => import("./keys").then((m) => m.KeyList));
const Palette = lazyPart(() => import("./palette").then((m) => m.Palette));

export interface IndexRow {
  readonly key: string;
  readonly number: string;
  readonly name: string;
  readonly href: string;
  /** "settled" and "open" are bars; a verdict is its mark with a word or two. */
  readonly state: "settled" | "open" | { readonly verdict: Verdict; readonly words: string };
}

export interface StripCell {
  readonly label: ReactNode;
  readonly value: ReactNode;
  readonly grow?: number;
}

const StateMark = ({ row, selected }: { row: IndexRow; selected: boolean }) => {
  if (typeof row.state === "string") {
    return (
      <span className={`flex items-center gap-1.5 text-note leading-4 ${selected ? "text-paper" : "text-ink-2"}`}>
        <span
          aria-hidden="true"
          className="inline-block h-[4px] w-[14px] border border-current"
          style={row.state === "settled" ? { background: "currentColor" } : undefined}
        />
        {row.state}
      </span>
    );
  }
  return (
    <span className={`flex items-center gap-1 whitespace-nowrap text-note leading-4 ${selected ? "text-paper" : `v-${row.state.verdict}`}`}>
      <VerdictMark verdict={row.state.verdict} a={7} inverted={selected} />
      {row.state.words}
    </span>
  );
};

const MODES = ["system", "paper", "night", "sun"] as const;

/** A landscape page of A4 or Letter inside its margins, whichever is smaller, CSS px. */
const PAGE = { width: 1000, height: 738 };

/** Before printing: the sheet keeps its size and is shrunk to one page. */
const useOnePage = (): void => {
  useEffect(() => {
    const fit = (): void => {
      const { innerWidth, innerHeight } = window;
      const { style } = document.documentElement;
      style.setProperty("--sheet-width", `${innerWidth}px`);
      style.setProperty("--sheet-height", `${innerHeight}px`);
      style.setProperty("--sheet-zoom", String(Math.min(PAGE.width / innerWidth, PAGE.height / innerHeight)));
    };
    window.addEventListener("beforeprint", fit);
    return () => window.removeEventListener("beforeprint", fit);
  }, []);
};

/** The ruled frame every sheet of a job sits in: index left, drawing, title strip along the bottom. */
export const Sheet = ({
  jobId,
  rows,
  of,
  strip,
  undo,
  actions,
  children,
}: {
  jobId: string;
  rows: readonly IndexRow[];
  of: SheetDef;
  strip: readonly StripCell[];
  undo: JobHistory;
  actions: readonly PaletteAction[];
  children: ReactNode;
}) => {
  // Null: never opened yet, and its code not asked for.
  const [keysOpen, setKeysOpen] = useState<boolean | null>(null);
  const [historyOpen, setHistoryOpen] = useState<boolean | null>(null);
  const [paletteOpen, setPaletteOpen] = useState<boolean | null>(null);
  const { units, setUnits, mode, setMode } = usePreferences();

  useKeys({ "$mod+k": () => setPaletteOpen((open) => open !== true) }, true);
  useKeys({ "$mod+z": undo.undo, "$mod+Shift+z": undo.redo, "[Shift]+?": () => setKeysOpen(true) });

  useOnePage();
  useFetchAhead();

  const all: PaletteAction[] = [
    ...rows.map((r) => ({ name: `Go to ${r.name}`, href: r.href })),
    { name: "Go to the register of jobs", href: "/" },
    ...actions,
    { name: units === "metric" ? "Show feet and miles" : "Show metres", run: () => setUnits(units === "metric" ? "imperial" : "metric") },
    ...MODES.filter((m) => m !== mode).map((m) => ({ name: `Mode: ${m}`, run: () => setMode(m) })),
    { name: "History of the job", run: () => setHistoryOpen(true) },
    { name: "Keys of this sheet", run: () => setKeysOpen(true) },
  ];

  const cells = strip.map((cell): StripCell => (cell.label === "Sheet" ? { ...cell, value: `${of.number} ${of.name}` } : cell));

  return (
    <div className="sheet h-dvh min-h-[560px] p-2">
      <div
        className="sheet-frame grid h-full border-[1.6px] border-ink"
        style={{ gridTemplateColumns: "100px minmax(0,1fr)", gridTemplateRows: "minmax(0,1fr) 42px" }}
      >
        <nav aria-label="Sheets of the job" className="sheet-nav flex min-h-0 flex-col border-r border-ink">
          <Link
            prefetch={false}
            href="/"
            className="block h-[66px] border-b border-ink px-3 pt-3 text-ink no-underline"
            aria-label="Dry Arc, register of jobs"
          >
            <Logo />
            <span className="block pt-1 text-name font-heading leading-5">Dry Arc</span>
          </Link>
          <ol className="m-0 list-none p-0">
            {rows.map((row) => {
              const selected = row.name === of.name;
              return (
                <li key={row.name}>
                  <Link
                    prefetch={false}
                    href={row.href}
                    aria-current={selected ? "page" : undefined}
                    className={`block h-[37px] border-b px-3 pt-[3px] no-underline ${selected ? "border-ink bg-ink text-paper" : "border-rule text-ink"}`}
                  >
                    <span className="flex items-baseline gap-2">
                      <span className={`font-mono text-note ${selected ? "text-paper" : "text-ink-2"}`}>{row.number}</span>
                      <span className={`text-press leading-[17px] ${selected ? "font-bold" : "font-said"}`}>{row.name}</span>
                    </span>
                    <StateMark row={row} selected={selected} />
                  </Link>
                </li>
              );
            })}
          </ol>
          <div className="sheet-tools no-print mt-auto border-t border-ink px-3 py-3">
            <div className="mb-2 flex justify-between">
              <button
                type="button"
                onClick={undo.undo}
                disabled={!undo.canUndo}
                className="flex flex-col items-center text-note disabled:text-hair"
                title="Undo (Ctrl Z)"
              >
                <Undo2 size={18} aria-hidden="true" />
                <span className={undo.canUndo ? "" : "text-ink-2"}>Undo</span>
              </button>
              <button
                type="button"
                onClick={undo.redo}
                disabled={!undo.canRedo}
                className="flex flex-col items-center text-note disabled:text-hair"
                title="Redo (Ctrl Shift Z)"
              >
                <Redo2 size={18} aria-hidden="true" />
                <span className={undo.canRedo ? "" : "text-ink-2"}>Redo</span>
              </button>
            </div>
            <button type="button" className="mb-1 min-h-6 w-full text-left text-note" onClick={() => setHistoryOpen(true)}>
              History
            </button>
            <button
              type="button"
              className="mb-1 min-h-6 w-full text-left text-note"
              onClick={() => setMode(MODES[(MODES.indexOf(mode) + 1) % MODES.length]!)}
              aria-label={`Mode: ${mode}. Press for ${MODES[(MODES.indexOf(mode) + 1) % MODES.length]}.`}
            >
              Mode: {mode === "system" ? "auto" : mode}
            </button>
            <button
              type="button"
              className="flex w-full items-center justify-between gap-1.5 text-note"
              onClick={() => setPaletteOpen(true)}
            >
              Find <span className="whitespace-nowrap border border-ink px-[3px] font-mono text-label tracking-[-0.4px]">Ctrl K</span>
            </button>
            <button type="button" className="mt-1 flex w-full items-center justify-between text-note" onClick={() => setKeysOpen(true)}>
              Keys <span className="border border-ink px-1.5 font-mono text-label">?</span>
            </button>
          </div>
        </nav>
        <main className="min-h-0 min-w-0">{children}</main>
        <section aria-label="Title strip" className="sheet-strip col-span-2 flex min-w-0 border-t-[1.6px] border-ink">
          {cells.map((cell, i) => (
            <div key={i} className="min-w-0 border-r border-ink px-2.5 pt-[5px] last:border-r-0" style={{ flex: `${cell.grow ?? 1} 1 0` }}>
              <div className="label flex items-center gap-1.5 truncate">{cell.label}</div>
              <div className="truncate text-body font-said">{cell.value}</div>
            </div>
          ))}
        </section>
      </div>
      {keysOpen !== null && <KeyList open={keysOpen} onOpenChange={setKeysOpen} rows={of.keys} />}
      {historyOpen !== null && <HistoryDialog jobId={jobId} open={historyOpen} onOpenChange={setHistoryOpen} takeBack={undo.takeBack} />}
      {paletteOpen !== null && <Palette open={paletteOpen} onOpenChange={setPaletteOpen} actions={all} />}
    </div>
  );
};
