"use client";
import { Plus, X } from "lucide-react";
import type { MountingPointFields } from "@/contract";
import { HIGHEST_TYPED_MOUNT_M } from "@/core/link";
import { Field } from "../../controls/field";
import { UnitField } from "../../controls/unit-field";

/** Other places of a building where a bracket can go, with what is behind the cladding there. */
export const MountingPoints = ({
  points,
  onChange,
}: {
  points: readonly MountingPointFields[];
  onChange: (points: MountingPointFields[]) => void;
}) => {
  const set = (id: string, fields: Partial<MountingPointFields>): void =>
    onChange(points.map((p) => (p.id === id ? { ...p, ...fields } : p)));
  return (
    <fieldset className="m-0 min-w-0 border-0 border-t border-rule p-0 pt-1.5">
      <legend className="float-left w-full p-0 font-bold">Other mounting points</legend>
      {points.map((p) => (
        <div key={p.id} className="clear-both grid grid-cols-2 gap-2 border-b border-rule py-2">
          <Field label="Name" value={p.name} maxLength={80} onChange={(e) => set(p.id, { name: e.target.value })} />
          <UnitField
            label="Above ground"
            quantity="height"
            value={p.aglM}
            allowEmpty={false}
            onChange={(v) => v !== null && set(p.id, { aglM: v })}
            most={HIGHEST_TYPED_MOUNT_M}
          />
          <Field
            label="What is behind"
            value={p.behind}
            maxLength={200}
            placeholder="brick, rafter, sheet"
            onChange={(e) => set(p.id, { behind: e.target.value })}
          />
          <UnitField
            label="Highest it carries"
            quantity="height"
            value={p.maxAglM}
            onChange={(v) => set(p.id, { maxAglM: v })}
            most={HIGHEST_TYPED_MOUNT_M}
          />
          <UnitField
            label="East of the site"
            quantity="height"
            value={p.eastM}
            allowEmpty={false}
            onChange={(v) => v !== null && set(p.id, { eastM: v })}
            least={-500}
            most={500}
          />
          <UnitField
            label="North of the site"
            quantity="height"
            value={p.northM}
            allowEmpty={false}
            onChange={(v) => v !== null && set(p.id, { northM: v })}
            least={-500}
            most={500}
          />
          <button
            type="button"
            className="press col-span-2 flex items-center gap-1 justify-self-start"
            onClick={() => onChange(points.filter((q) => q.id !== p.id))}
          >
            <X size={14} aria-hidden="true" /> Take {p.name === "" ? "it" : p.name} away
          </button>
        </div>
      ))}
      <button
        type="button"
        className="press clear-both mt-1.5 flex items-center gap-1"
        disabled={points.length >= 40}
        onClick={() =>
          onChange([
            ...points,
            {
              id: crypto.randomUUID().slice(0, 8),
              name: `Point ${points.length + 2}`,
              aglM: 6,
              maxAglM: null,
              behind: "",
              eastM: 0,
              northM: 0,
            },
          ])
        }
      >
        <Plus size={14} aria-hidden="true" /> Add a mounting point
      </button>
    </fieldset>
  );
};
