"use client";
import { type ReactNode, useEffect, useState } from "react";
import type { Verdict } from "@/core/link";
import { lazyPart, useFetchAhead } from "../controls/lazy-part";
import { useKeys } from "../controls/use-keys";
import type { SheetDef } from "../sheets/registry";
import type { JobHistory } from "../state/job-history";
import { usePreferences } from "../state/preferences";
import type { PaletteAction } from "./palette";
import { MODES, SheetNav } from "./sheet-nav";

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
        <SheetNav
          jobId={jobId}
          rows={rows}
          selectedName={of.name}
          canUndo={undo.canUndo}
          canRedo={undo.canRedo}
          undo={undo.undo}
          redo={undo.redo}
          openHistory={setHistoryOpen}
          openPalette={setPaletteOpen}
          openKeys={setKeysOpen}
        />
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
