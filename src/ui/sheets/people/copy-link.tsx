"use client";
import { useState } from "react";

/** A link that opens a door, to be handed on: shown once. */
export const CopyLink = ({ url, label = "The link" }: { url: string; label?: string }) => {
  const [copied, setCopied] = useState(false);
  return (
    <div className="mt-3 flex items-center gap-4">
      <input aria-label={label} readOnly value={url} onFocus={(e) => e.target.select()} className="typed min-w-0 flex-1 text-note" />
      <button
        type="button"
        className="press"
        onClick={() =>
          void navigator.clipboard.writeText(url).then(
            () => setCopied(true),
            () => undefined,
          )
        }
      >
        {copied ? "Copied" : "Copy"}
      </button>
    </div>
  );
};
