"use client";
import type { ReactNode } from "react";
import { Logo } from "./logo";

/** The page before the house: one thing is asked, in one frame. */
export const Door = ({ title, note, children }: { title: string; note?: ReactNode; children: ReactNode }) => (
  <div className="min-h-dvh p-2">
    <div className="grid min-h-[calc(100dvh-16px)] grid-rows-[70px_minmax(0,1fr)] border-[1.6px] border-ink">
      <header className="flex items-center border-b border-ink">
        <div className="flex h-full w-[114px] flex-col justify-center border-r border-ink px-4">
          <Logo />
          <span className="pt-1 text-name font-heading">Dry Arc</span>
        </div>
        <span className="px-5 text-ink-2">Radio links between buildings, planned before going on site</span>
      </header>
      <main className="px-5 py-8 min-[900px]:px-[114px]">
        <div className="max-w-[460px]">
          <h1 className="m-0 text-word font-heading leading-10">{title}</h1>
          {note !== undefined && <div className="mb-6 mt-2 max-w-[60ch] text-press leading-6 text-ink-2">{note}</div>}
          {children}
        </div>
      </main>
    </div>
  </div>
);
