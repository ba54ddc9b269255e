"use client";
import { Redo2, Undo2 } from "lucide-react";
import Link from "next/link";
import { memo } from "react";
import { VerdictMark } from "../marks/verdict-mark";
import { useOpen } from "../state/me";
import { usePreferences } from "../state/preferences";
import { Logo } from "./logo";
import { OthersHere } from "./others-here";
import type { IndexRow } from "./sheet";
import { WhoIsHere } from "./signed";

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

export const MODES = ["system", "paper", "night", "sun"] as const;

/** The sheets of the job, and what every sheet can do. It keeps still while something is dragged beside it. */
export const SheetNav = memo(
  ({
    jobId,
    rows,
    selectedName,
    canUndo,
    canRedo,
    undo,
    redo,
    openHistory,
    openPalette,
    openKeys,
  }: {
    jobId: string;
    rows: readonly IndexRow[];
    selectedName: string;
    canUndo: boolean;
    canRedo: boolean;
    undo: () => void;
    redo: () => void;
    openHistory: (open: boolean) => void;
    openPalette: (open: boolean) => void;
    openKeys: (open: boolean) => void;
  }) => {
    const { mode, setMode } = usePreferences();
    const { asks, readsOnly } = useOpen();
    const nextMode = MODES[(MODES.indexOf(mode) + 1) % MODES.length]!;
    return (
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
            const selected = row.name === selectedName;
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
          <OthersHere jobId={jobId} />
          <WhoIsHere narrow />
          <div className={`mb-2 justify-between ${readsOnly ? "hidden" : "flex"}`}>
            <button
              type="button"
              onClick={undo}
              disabled={!canUndo}
              className="flex flex-col items-center text-note disabled:text-hair"
              title="Undo (Ctrl Z)"
            >
              <Undo2 size={18} aria-hidden="true" />
              <span className={canUndo ? "" : "text-ink-2"}>Undo</span>
            </button>
            <button
              type="button"
              onClick={redo}
              disabled={!canRedo}
              className="flex flex-col items-center text-note disabled:text-hair"
              title="Redo (Ctrl Shift Z)"
            >
              <Redo2 size={18} aria-hidden="true" />
              <span className={canRedo ? "" : "text-ink-2"}>Redo</span>
            </button>
          </div>
          {asks("see-history") && (
            <button type="button" className="mb-1 min-h-6 w-full text-left text-note" onClick={() => openHistory(true)}>
              History
            </button>
          )}
          <button
            type="button"
            className="mb-1 min-h-6 w-full text-left text-note"
            onClick={() => setMode(nextMode)}
            aria-label={`Mode: ${mode}. Press for ${nextMode}.`}
          >
            Mode: {mode === "system" ? "auto" : mode}
          </button>
          <button type="button" className="flex w-full items-center justify-between gap-1.5 text-note" onClick={() => openPalette(true)}>
            Find <span className="whitespace-nowrap border border-ink px-[3px] font-mono text-label tracking-[-0.4px]">Ctrl K</span>
          </button>
          <button type="button" className="mt-1 flex w-full items-center justify-between text-note" onClick={() => openKeys(true)}>
            Keys <span className="border border-ink px-1.5 font-mono text-label">?</span>
          </button>
        </div>
      </nav>
    );
  },
);
SheetNav.displayName = "SheetNav";
