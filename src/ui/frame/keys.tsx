"use client";
import { Dialog } from "radix-ui";

export interface KeyRow {
  readonly keys: string;
  readonly does: string;
}

const COMMON: readonly KeyRow[] = [
  { keys: "Ctrl K", does: "Find an action or a sheet" },
  { keys: "Ctrl Z", does: "Undo" },
  { keys: "Ctrl Shift Z", does: "Redo" },
  { keys: "?", does: "This list" },
];

/** The keys of a sheet. */
export const KeyList = ({
  open,
  onOpenChange,
  rows,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  rows: readonly KeyRow[];
}) => (
  <Dialog.Root open={open} onOpenChange={onOpenChange}>
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 bg-ink/30" />
      <Dialog.Content
        aria-describedby={undefined}
        className="fixed left-1/2 top-1/2 w-[460px] max-w-[92vw] -translate-x-1/2 -translate-y-1/2 border-[1.6px] border-ink bg-paper p-5"
      >
        <Dialog.Title className="mb-3 text-head font-bold">Keys of this sheet</Dialog.Title>
        <dl className="m-0 grid grid-cols-[150px_1fr] gap-y-1.5">
          {[...rows, ...COMMON].map((row) => (
            <div key={row.keys} className="contents">
              <dt className="font-mono text-line">{row.keys}</dt>
              <dd className="m-0">{row.does}</dd>
            </div>
          ))}
        </dl>
        <Dialog.Close className="press mt-4">Close</Dialog.Close>
      </Dialog.Content>
    </Dialog.Portal>
  </Dialog.Root>
);
