"use client";
import { Dialog } from "radix-ui";
import type { ReactNode } from "react";
import type { Opened } from "./lazy-part";

const WIDTH = { slim: "w-[460px]", usual: "w-[520px]", broad: "w-[560px]", wide: "w-[940px]" } as const;

/** A dialog over a sheet: framed, as tall as the window lets it be, with its title. `Dialog.Close` from radix-ui closes it. */
export const SheetDialog = ({
  open,
  onOpenChange,
  title,
  note,
  width = "usual",
  onEscape,
  children,
}: Opened & {
  title: string;
  note?: ReactNode;
  width?: keyof typeof WIDTH;
  /** Asked at the Escape key; true keeps the dialog open. */
  onEscape?: () => boolean;
  children: ReactNode;
}) => (
  <Dialog.Root open={open} onOpenChange={onOpenChange}>
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/30" />
      <Dialog.Content
        aria-describedby={undefined}
        onEscapeKeyDown={(event) => {
          if (onEscape?.() === true) event.preventDefault();
        }}
        className={`fixed left-1/2 top-1/2 z-20 max-h-[96dvh] ${WIDTH[width]} max-w-[96vw] -translate-x-1/2 -translate-y-1/2 overflow-auto border-[1.6px] border-ink bg-paper p-6`}
      >
        <Dialog.Title className={`m-0 text-head font-bold ${note === undefined ? "mb-3" : ""}`}>{title}</Dialog.Title>
        {note !== undefined && <div className="cap mb-3 mt-0.5">{note}</div>}
        {children}
      </Dialog.Content>
    </Dialog.Portal>
  </Dialog.Root>
);
