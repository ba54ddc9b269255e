"use client";
import { useEffect, useState } from "react";
import { type ObstacleDto, type ObstacleFields, obstacleFieldsSchema } from "@/contract";
import { isSpan, isVegetation } from "@/core/obstacles";
import { postJson } from "../../api/client";
import { Choice, Field } from "../../controls/field";
import { UnitField } from "../../controls/unit-field";
import { FormTrouble, sentence, useSubmit } from "../../controls/use-submit";
import { lengthText, type Units } from "../../wording/numbers";
import { DRAW_KINDS, KIND_NAME } from "./draw-kinds";
import { HeightHelper } from "./height-helper";

interface Proposal {
  readonly heightM: number;
  readonly sigmaM: number;
  readonly dataset: string;
}

/** An obstacle's figures, with how each came about and how sure it is. */
export const ObstacleForm = ({
  jobId,
  start,
  isNew,
  others,
  units,
  onSubmit,
  onCancel,
  onEdit,
  onCut,
  onDelete,
  onTaken,
}: {
  jobId: string;
  start: ObstacleFields;
  isNew: boolean;
  others: readonly ObstacleDto[];
  units: Units;
  onSubmit: (fields: ObstacleFields) => Promise<void>;
  onCancel: () => void;
  onEdit?: () => void;
  onCut?: () => void;
  onDelete?: () => Promise<void>;
  /** Somebody else's version of it was taken into the form: the next edit is made on that. */
  onTaken?: (row: ObstacleDto) => void;
}) => {
  const [f, setF] = useState<ObstacleFields>(start);
  const sending = useSubmit(units);
  const [proposal, setProposal] = useState<Proposal | null>(null);
  const set = (fields: Partial<ObstacleFields>): void => setF((now) => ({ ...now, ...fields }));
  useEffect(() => setF((now) => ({ ...now, outline: start.outline })), [start.outline]);
  useEffect(() => {
    let gone = false;
    postJson<{ proposal: Proposal | null }>(`/api/jobs/${jobId}/heights`, { points: start.outline.slice(0, 400), outline: true })
      .then((answer) => {
        if (!gone) setProposal(answer.proposal);
      })
      .catch(() => undefined);
    return () => {
      gone = true;
    };
  }, [jobId, start.outline]);
  const usual = DRAW_KINDS.find((k) => k.kind === f.kind)?.usualM;
  const submit = (): void => {
    const parsed = obstacleFieldsSchema.safeParse(f);
    if (!parsed.success) {
      sending.say(sentence(parsed.error.issues[0]?.message));
      return;
    }
    void sending.run(() => onSubmit(parsed.data));
  };
  const tree = isVegetation(f.kind);
  return (
    <form
      aria-label={isNew ? "New obstacle" : `Obstacle ${f.name}`}
      noValidate
      className="grid gap-2.5"
      onSubmit={(e) => {
        e.preventDefault();
        // What a field refuses is never taken for what it held before.
        const wrong = e.currentTarget.querySelector<HTMLElement>('[aria-invalid="true"]');
        if (wrong === null) submit();
        else wrong.focus();
      }}
    >
      <div className="grid grid-cols-2 gap-3">
        <Choice label="What it is" value={f.kind} onChange={(e) => set({ kind: e.target.value as ObstacleFields["kind"] })}>
          {Object.entries(KIND_NAME).map(([kind, name]) => (
            <option key={kind} value={kind}>
              {name}
            </option>
          ))}
        </Choice>
        <Field label="Name" value={f.name} maxLength={120} onChange={(e) => set({ name: e.target.value })} />
      </div>
      <div className="grid grid-cols-2 gap-3">
        <UnitField
          label="Height above ground"
          quantity="height"
          value={f.heightM}
          allowEmpty={false}
          onChange={(v) => v !== null && set({ heightM: v, heightSource: "typed" })}
          most={1000}
          {...(usual === undefined ? {} : { usual })}
        />
        <UnitField
          label="Give or take"
          quantity="height"
          value={f.heightSigmaM}
          allowEmpty={false}
          onChange={(v) => v !== null && set({ heightSigmaM: v })}
          most={100}
        />
      </div>
      <HeightHelper
        others={others}
        units={units}
        onFound={(h) => set({ heightM: h.heightM, heightSigmaM: Math.round(h.sigmaM * 100) / 100, heightSource: h.way })}
      />
      {proposal !== null && (
        <p className="m-0 text-line">
          {proposal.dataset} stands {lengthText(units, proposal.heightM)} above the ground here, ± {lengthText(units, proposal.sigmaM)}.{" "}
          <button
            type="button"
            className="press"
            onClick={() =>
              set({
                heightM: Math.round(proposal.heightM * 10) / 10,
                heightSigmaM: Math.round(proposal.sigmaM * 100) / 100,
                heightSource: "surface model",
              })
            }
          >
            Use it
          </button>
        </p>
      )}
      {isSpan(f.kind) && (
        <>
          <UnitField
            label="Free air beneath, up to"
            quantity="height"
            value={f.freeBelowM}
            allowEmpty={false}
            onChange={(v) => v !== null && set({ freeBelowM: v })}
            most={1000}
          />
          <p className="cap m-0">
            {f.kind === "line"
              ? "Keep well clear of overhead lines when surveying and mounting; ask the network operator for heights and distances."
              : "A crane moves: ask its operator for the highest jib and for days when it stands still."}
          </p>
        </>
      )}
      {f.kind === "vehicle" && <p className="cap m-0">Judged as if the tallest vehicle stood there.</p>}
      {tree && (
        <div className="grid grid-cols-2 gap-3">
          <UnitField
            label="Growth a year"
            quantity="height"
            value={f.growthMPerYear}
            allowEmpty={false}
            onChange={(v) => v !== null && set({ growthMPerYear: v })}
            most={5}
          />
          <UnitField
            label="Crown begins at"
            quantity="height"
            value={f.crownBaseM}
            allowEmpty={false}
            onChange={(v) => v !== null && set({ crownBaseM: v })}
            most={1000}
          />
          <Field
            label="Kind of tree"
            value={f.species ?? ""}
            maxLength={60}
            onChange={(e) => set({ species: e.target.value === "" ? null : e.target.value })}
          />
          <Choice
            label="Leaves"
            value={f.leaf ?? ""}
            onChange={(e) => set({ leaf: e.target.value === "" ? null : (e.target.value as "deciduous" | "evergreen") })}
          >
            <option value="">not known</option>
            <option value="deciduous">fall in winter</option>
            <option value="evergreen">stay all year</option>
          </Choice>
        </div>
      )}
      <div className="grid grid-cols-2 gap-3">
        <Choice
          label="Stands on"
          value={f.baseAmslM === null ? "ground" : "told"}
          onChange={(e) => set({ baseAmslM: e.target.value === "ground" ? null : (f.baseAmslM ?? 0) })}
        >
          <option value="ground">the ground as known</option>
          <option value="told">a height I tell</option>
        </Choice>
        {f.baseAmslM === null ? (
          <Field label="Surveyed on" type="date" value={f.surveyedOn} onChange={(e) => set({ surveyedOn: e.target.value })} />
        ) : (
          <UnitField
            label="Ground there, AMSL"
            quantity="height"
            value={f.baseAmslM}
            onChange={(v) => v !== null && set({ baseAmslM: v })}
            least={-500}
            most={9000}
          />
        )}
      </div>
      <p className="cap m-0">
        Height {f.heightSource}; source {f.source}; {f.outline.length} corners.
      </p>
      <FormTrouble
        of={sending}
        kind="obstacle"
        units={units}
        kept={onCancel}
        take={(theirs) => {
          const row = theirs as unknown as ObstacleDto;
          setF(obstacleFieldsSchema.parse(row));
          onTaken?.(row);
        }}
      />
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <button type="submit" className="main-action" disabled={sending.busy}>
          {isNew ? "Put it there" : "Keep"}
        </button>
        <button type="button" className="press" onClick={onCancel}>
          Leave it
        </button>
        {onEdit !== undefined && (
          <button type="button" className="press" onClick={onEdit}>
            Move its corners
          </button>
        )}
        {onCut !== undefined && (
          <button type="button" className="press" onClick={onCut}>
            Cut in two
          </button>
        )}
        {onDelete !== undefined && (
          <button type="button" className="press" onClick={() => void sending.run(onDelete)}>
            Take away
          </button>
        )}
      </div>
    </form>
  );
};
