"use client";
import { Dialog } from "radix-ui";
import { SheetDialog } from "../controls/sheet-dialog";

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
  <SheetDialog open={open} onOpenChange={onOpenChange} title="Keys of this sheet" width="slim">
    <dl className="m-0 grid grid-cols-[150px_1fr] gap-y-1.5">
      {[...rows, ...COMMON].map((row) => (
        <div key={row.keys} className="contents">
          <dt className="font-mono text-line">{row.keys}</dt>
          <dd className="m-0">{row.does}</dd>
        </div>
      ))}
    </dl>
    <Dialog.Close className="press mt-4">Close</Dialog.Close>
  </SheetDialog>
);
