"use client";
import { Dialog } from "radix-ui";
import { SheetDialog } from "../controls/sheet-dialog";
import type { JobHistory } from "../state/job-history";
import { HistoryPanel } from "./history-panel";

/** The history of the job over any sheet. */
export const HistoryDialog = ({
  jobId,
  open,
  onOpenChange,
  takeBack,
}: {
  jobId: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  takeBack: JobHistory["takeBack"];
}) => (
  <SheetDialog open={open} onOpenChange={onOpenChange} title="History of the job" width="broad">
    <HistoryPanel jobId={jobId} takeBack={takeBack} />
    <Dialog.Close className="press mt-4">Close</Dialog.Close>
  </SheetDialog>
);
