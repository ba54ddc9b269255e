"use client";
import { Tabs } from "radix-ui";

/** Names of what can be shown beneath, the one shown in ink. Within `Tabs.Root`. */
export const TabRow = ({ label, tabs }: { label: string; tabs: readonly (readonly [key: string, words: string])[] }) => (
  <Tabs.List aria-label={label} className="flex flex-wrap gap-x-4 gap-y-1 border-b border-rule pb-1">
    {tabs.map(([key, words]) => (
      <Tabs.Trigger
        key={key}
        value={key}
        className="press min-h-6 data-[state=active]:bg-ink data-[state=active]:px-1 data-[state=active]:text-paper"
      >
        {words}
      </Tabs.Trigger>
    ))}
  </Tabs.List>
);
