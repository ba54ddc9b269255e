"use client";
import { useState } from "react";
import { ApiError } from "../../api/client";
import { Field } from "../../controls/field";
import { errorSentence } from "../../wording/errors";

/** A named piece of ground: findings name it when the ground there is in the way. */
export const FeatureForm = ({
  name: start,
  isNew,
  onSubmit,
  onCancel,
  onDelete,
}: {
  name: string;
  isNew: boolean;
  onSubmit: (name: string) => Promise<void>;
  onCancel: () => void;
  onDelete?: () => Promise<void>;
}) => {
  const [name, setName] = useState(start);
  const [fault, setFault] = useState<string | undefined>();
  const run = (work: () => Promise<void>): void => {
    work().catch((error: unknown) => setFault(errorSentence(error instanceof ApiError ? error.body : { code: "internal" })));
  };
  return (
    <form
      aria-label="Named ground"
      className="grid gap-2.5"
      onSubmit={(e) => {
        e.preventDefault();
        if (name.trim() === "") setFault("Name must not be empty.");
        else run(() => onSubmit(name.trim()));
      }}
    >
      <Field label="Name of this ground" autoFocus value={name} maxLength={120} fault={fault} onChange={(e) => setName(e.target.value)} />
      <p className="cap m-0">A ridge, a saddle, a quay: findings within 500 m speak of it by this name.</p>
      <div className="flex gap-4">
        <button type="submit" className="main-action">
          {isNew ? "Put it there" : "Keep"}
        </button>
        <button type="button" className="press" onClick={onCancel}>
          Leave it
        </button>
        {onDelete !== undefined && (
          <button type="button" className="press" onClick={() => run(onDelete)}>
            Take away
          </button>
        )}
      </div>
    </form>
  );
};
