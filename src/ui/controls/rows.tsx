"use client";
import { Plus, X } from "lucide-react";
import type { ReactNode } from "react";

/** Takes a row of a list away. */
export const RemoveRow = ({ label, onClick }: { label: string; onClick: () => void }) => (
  <button type="button" aria-label={label} className="flex h-8 w-7 items-center justify-center" onClick={onClick}>
    <X size={16} aria-hidden="true" />
  </button>
);

/** Adds a row to a list. */
export const AddRow = ({ children, disabled = false, onClick }: { children: ReactNode; disabled?: boolean; onClick: () => void }) => (
  <button type="button" className="press mt-2 flex items-center gap-1" disabled={disabled} onClick={onClick}>
    <Plus size={14} aria-hidden="true" /> {children}
  </button>
);
