"use client";
import { useState } from "react";
import type { FeatureDto } from "@/contract";
import { Field } from "../../controls/field";
import { FormTrouble, useSubmit } from "../../controls/use-submit";
import { usePreferences } from "../../state/preferences";

/** A named piece of ground: findings name it when the ground there is in the way. */
export const FeatureForm = ({
  name: start,
  isNew,
  onSubmit,
  onCancel,
  onDelete,
  onTaken,
}: {
  name: string;
  isNew: boolean;
  onSubmit: (name: string) => Promise<void>;
  onCancel: () => void;
  onDelete?: () => Promise<void>;
  onTaken?: (row: FeatureDto) => void;
}) => {
  const [name, setName] = useState(start);
  const { units } = usePreferences();
  const sending = useSubmit(units);
  return (
    <form
      aria-label="Named ground"
      className="grid gap-2.5"
      onSubmit={(e) => {
        e.preventDefault();
        if (name.trim() === "") sending.say("Name must not be empty.");
        else void sending.run(() => onSubmit(name.trim()));
      }}
    >
      <Field label="Name of this ground" autoFocus value={name} maxLength={120} onChange={(e) => setName(e.target.value)} />
      <p className="cap m-0">A ridge, a saddle, a quay: findings within 500 m speak of it by this name.</p>
      <FormTrouble
        of={sending}
        kind="feature"
        units={units}
        kept={onCancel}
        take={(theirs) => {
          const row = theirs as unknown as FeatureDto;
          setName(row.name);
          onTaken?.(row);
        }}
      />
      <div className="flex gap-4">
        <button type="submit" className="main-action">
          {isNew ? "Put it there" : "Keep"}
        </button>
        <button type="button" className="press" onClick={onCancel}>
          Leave it
        </button>
        {onDelete !== undefined && (
          <button type="button" className="press" onClick={() => void sending.run(onDelete)}>
            Take away
          </button>
        )}
      </div>
    </form>
  );
};
