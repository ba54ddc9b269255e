"use client";
import { Tabs } from "radix-ui";
import type { ReactNode } from "react";
import { TabNames } from "../../controls/tab-names";

const NAMES = ["findings", "gear", "compare"] as const;
export type Beside = (typeof NAMES)[number];

/** What stands beside the drawing, one at a time. */
export const BesideTabs = ({
  shown,
  show,
  children,
}: {
  shown: Beside;
  show: (name: Beside) => void;
  children: Readonly<Record<Beside, ReactNode>>;
}) => (
  <Tabs.Root value={shown} onValueChange={(v) => show(v as Beside)} className="beside flex min-h-0 flex-col border-l border-ink">
    <TabNames names={NAMES} label="Beside the drawing" className="gap-4 border-b border-ink px-3.5 pt-2.5" />
    {NAMES.map((name) => (
      <Tabs.Content key={name} value={name} className="flex min-h-0 flex-1 flex-col data-[state=inactive]:hidden" tabIndex={-1}>
        {children[name]}
      </Tabs.Content>
    ))}
  </Tabs.Root>
);
