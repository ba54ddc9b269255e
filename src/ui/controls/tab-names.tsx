"use client";
import { Tabs } from "radix-ui";

/** The names of what can be shown in one place, on a line; the one shown is underlined. Within `Tabs.Root`. */
export const TabNames = ({ names, label, className }: { names: readonly string[]; label: string; className: string }) => (
  <Tabs.List className={`flex ${className}`} aria-label={label}>
    {names.map((name) => (
      <Tabs.Trigger
        key={name}
        value={name}
        className="border-b-[3px] border-transparent pb-0.5 text-press font-said capitalize leading-[22px] data-[state=active]:border-ink data-[state=active]:font-bold"
      >
        {name}
      </Tabs.Trigger>
    ))}
  </Tabs.List>
);
