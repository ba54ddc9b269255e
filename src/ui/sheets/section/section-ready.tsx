"use client";
import { SectionOpen } from "./section-open";
import { SectionWaiting } from "./section-waiting";
import type { SectionRead } from "./use-open-section";

export interface SectionReadyProps {
  readonly jobId: string;
  readonly linkId: string;
  /** Null until all of it is here. */
  readonly read: SectionRead | null;
  readonly trouble: unknown;
}

/** The section once its code is here: open when what it reads is here too. */
export const SectionReady = (p: SectionReadyProps) =>
  p.read === null ? <SectionWaiting {...p} /> : <SectionOpen key={p.read.bundle.link.design.id} {...p.read} />;
