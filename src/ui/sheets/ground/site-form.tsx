"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { useForm } from "react-hook-form";
import { z } from "zod";
import { FIRST_MOUNT_M, type MountingPointFields, type SiteDto, siteFieldsSchema } from "@/contract";
import { type FarPosition, farFromJob, type LatLon } from "@/core/geo";
import { STANDS, type Stands } from "@/core/link";
import { readPosition } from "../../api/position";
import { FarQuestion } from "../../controls/far-question";
import { Choice, Field } from "../../controls/field";
import { FormTrouble, useSubmit } from "../../controls/use-submit";
import { coordinateFault } from "../../wording/coordinates";
import { latLonText, lengthIn, lengthUnit, metresFrom, readNumber, type Units } from "../../wording/numbers";
import { ByBearing } from "./by-bearing";
import { MountingPoints } from "./mounting-points";

export interface SiteValues {
  readonly name: string;
  readonly latDeg: number;
  readonly lonDeg: number;
  readonly mountAglM: number;
  readonly mountMaxAglM: number | null;
  readonly mastCostPerM: number | null;
  readonly stands: Stands | null;
  readonly structure: string;
  readonly material: string;
  readonly power: string;
  readonly cableEntry: string;
  readonly access: string;
  readonly owner: string;
  readonly notes: string;
  readonly mountingPoints: readonly MountingPointFields[];
}

/** What else is asked of a building, with what helps to answer it. */
const WORDS = [
  ["structure", "Structure", "two floors, slate roof, chimney"],
  ["material", "Material of the walls", "brick, render, sheet steel"],
  ["power", "Power there", "mains, PoE from inside, battery and solar"],
  ["cableEntry", "Where the cable comes in", "existing gland, soffit, duct"],
  ["access", "How to get up", "ladder 6 m, key from the office, lift needed"],
  ["owner", "Who owns it", ""],
  ["notes", "Notes", ""],
] as const;

const formSchema = (units: Units) =>
  z
    .object({
      name: siteFieldsSchema.shape.name,
      where: z.string(),
      mount: z.string(),
      limit: z.string(),
      cost: z.string(),
      stands: z.string().transform((t): Stands | null => STANDS.find((s) => s === t) ?? null),
      structure: siteFieldsSchema.shape.structure.unwrap(),
      material: siteFieldsSchema.shape.material.unwrap(),
      power: siteFieldsSchema.shape.power.unwrap(),
      cableEntry: siteFieldsSchema.shape.cableEntry.unwrap(),
      access: siteFieldsSchema.shape.access.unwrap(),
      owner: siteFieldsSchema.shape.owner.unwrap(),
      notes: siteFieldsSchema.shape.notes.unwrap(),
    })
    .transform(async (f, ctx): Promise<Omit<SiteValues, "mountingPoints">> => {
      const position = await readPosition(f.where);
      if ("error" in position) {
        ctx.addIssue({ code: "custom", path: ["where"], message: coordinateFault(f.where, position) });
        return z.NEVER;
      }
      const length = (text: string, path: "mount" | "limit"): number => {
        const number = readNumber(text);
        if (number === null) {
          ctx.addIssue({
            code: "custom",
            path: [path],
            message: `"${text}" is not a number; type the height above ground in ${lengthUnit(units)}.`,
          });
          return 0;
        }
        const checked = siteFieldsSchema.shape.mountAglM.safeParse(metresFrom(units, number));
        if (!checked.success) ctx.addIssue({ code: "custom", path: [path], message: `${checked.error.issues[0]?.message ?? ""}.` });
        return metresFrom(units, number);
      };
      const perM = (): number | null => {
        if (f.cost.trim() === "") return null;
        const typed = readNumber(f.cost);
        const number = typed === null ? null : typed * lengthIn(units, 1);
        const checked = siteFieldsSchema.shape.mastCostPerM.safeParse(number);
        if (number === null || !checked.success) {
          ctx.addIssue({
            code: "custom",
            path: ["cost"],
            message:
              number === null
                ? `"${f.cost}" is not a number; type what a ${units === "metric" ? "metre" : "foot"} of mast costs, or leave it empty.`
                : "The cost must be 0 to 1 000 000.",
          });
          return null;
        }
        return number;
      };
      const { where: _w, mount: _m, limit: _l, cost: _c, ...words } = f;
      return {
        ...words,
        ...position,
        mountAglM: length(f.mount, "mount"),
        mountMaxAglM: f.limit.trim() === "" ? null : length(f.limit, "limit"),
        mastCostPerM: perM(),
      };
    });

/** A site as it is typed. */
const typedOf = (site: SiteDto | null, place: LatLon | null, units: Units) => ({
  name: site?.name ?? "",
  where: place === null ? "" : latLonText(place),
  mount: String(Math.round(lengthIn(units, site?.mountAglM ?? FIRST_MOUNT_M) * 10) / 10),
  ...Object.fromEntries(WORDS.map(([key]) => [key, site?.[key] ?? ""])),
  stands: site?.stands ?? "",
  cost: site?.mastCostPerM == null ? "" : String(Math.round((site.mastCostPerM / lengthIn(units, 1)) * 100) / 100),
  limit: site?.mountMaxAglM == null ? "" : String(Math.round(lengthIn(units, site.mountMaxAglM) * 10) / 10),
});

/** The fields of a site behind each thing that is typed. */
const BEHIND: Readonly<Record<string, readonly (keyof SiteValues)[]>> = {
  name: ["name"],
  where: ["latDeg", "lonDeg"],
  mount: ["mountAglM"],
  limit: ["mountMaxAglM"],
  cost: ["mastCostPerM"],
  stands: ["stands"],
  ...Object.fromEntries(WORDS.map(([key]) => [key, [key]])),
};

/** What nobody touched stays to the last digit: what is shown of it is rounded. */
const untouched = (
  values: Omit<SiteValues, "mountingPoints">,
  row: SiteDto,
  dirty: Readonly<Record<string, unknown>>,
): Omit<SiteValues, "mountingPoints"> => {
  const same = Object.entries(BEHIND).flatMap(([typed, fields]) => (dirty[typed] === true ? [] : fields));
  return { ...values, ...Object.fromEntries(same.map((field) => [field, row[field]])) };
};

/** A site: name, position, mount. Faults stand under the field they belong to. */
export const SiteForm = ({
  site,
  at,
  known,
  others,
  units,
  submitName,
  onSubmit,
  onCancel,
  onDelete,
  onTaken,
}: {
  site: SiteDto | null;
  at: { latDeg: number; lonDeg: number } | null;
  /** Places of the job beside this one: a position far from all of them is asked about before it is kept. */
  known: readonly LatLon[];
  /** Sites that a new one may be told from. */
  others: readonly SiteDto[];
  units: Units;
  submitName: string;
  onSubmit: (values: SiteValues) => Promise<void>;
  onCancel: () => void;
  onDelete?: (() => Promise<void>) | undefined;
  /** Somebody else's version of it was taken into the form: the next edit is made on that. */
  onTaken?: (row: SiteDto) => void;
}) => {
  const sending = useSubmit(units);
  const [points, setPoints] = useState<readonly MountingPointFields[]>(site?.mountingPoints ?? []);
  const place = site ?? at;
  const form = useForm<z.input<ReturnType<typeof formSchema>>, unknown, Omit<SiteValues, "mountingPoints">>({
    resolver: zodResolver(formSchema(units)),
    defaultValues: typedOf(site, place, units),
  });
  const { errors, isSubmitting, dirtyFields } = form.formState;
  /** The row that the form shows. */
  const [row, setRow] = useState(site);
  const [asked, setAsked] = useState<FarPosition | null>(null);
  const submit = (sure: boolean) =>
    form.handleSubmit((typed) => {
      const values = row === null ? typed : untouched(typed, row, dirtyFields);
      const far = sure ? null : farFromJob(values, known);
      setAsked(far);
      sending.say(null);
      return far === null ? sending.run(() => onSubmit({ ...values, mountingPoints: points })) : undefined;
    });
  const unit = lengthUnit(units);
  return (
    <form noValidate aria-label={site === null ? "New site" : `Site ${site.name}`} className="grid gap-3" onSubmit={submit(false)}>
      <Field label="Name" autoFocus fault={errors.name?.message} {...form.register("name")} />
      <Field label="Latitude, longitude" fault={errors.where?.message} {...form.register("where")} />
      {asked !== null && (
        <FarQuestion
          far={asked}
          units={units}
          takeMeant={(p) => {
            setAsked(null);
            form.setValue("where", latLonText(p), { shouldValidate: true, shouldDirty: true });
          }}
          keep={() => void submit(true)()}
        />
      )}
      {site === null && (
        <ByBearing
          sites={others}
          onFound={(at) => form.setValue("where", latLonText(at), { shouldValidate: form.formState.isSubmitted, shouldDirty: true })}
        />
      )}
      <div className="grid grid-cols-2 gap-3">
        <Field label={`Mount above ground, ${unit}`} inputMode="decimal" fault={errors.mount?.message} {...form.register("mount")} />
        <Field
          label={`Highest it carries, ${unit}`}
          inputMode="decimal"
          placeholder="not known"
          fault={errors.limit?.message}
          {...form.register("limit")}
        />
      </div>
      <details>
        <summary className="cursor-pointer font-figure">
          More of this site
          {points.length > 0 ? `, ${points.length} more mounting point${points.length === 1 ? "" : "s"}` : ""}
        </summary>
        <div className="grid gap-2.5 pt-2">
          <Field
            label={`What a ${units === "metric" ? "metre" : "foot"} of mast costs here`}
            inputMode="decimal"
            placeholder="not known"
            fault={errors.cost?.message}
            {...form.register("cost")}
          />
          <Choice label="Its bracket is fixed to" {...form.register("stands")}>
            <option value="">not known: no wind is counted</option>
            {STANDS.map((s) => (
              <option key={s}>{s}</option>
            ))}
          </Choice>
          {WORDS.map(([key, label, hint]) =>
            key === "notes" ? (
              <label key={key} className="field">
                <span>{label}</span>
                <textarea rows={3} className="border border-rule bg-paper p-1.5" {...form.register(key)} />
              </label>
            ) : (
              <Field key={key} label={label} placeholder={hint} fault={errors[key]?.message} {...form.register(key)} />
            ),
          )}
          <MountingPoints points={points} onChange={setPoints} />
        </div>
      </details>
      <FormTrouble
        of={sending}
        kind="site"
        units={units}
        kept={onCancel}
        take={(theirs) => {
          const now = theirs as unknown as SiteDto;
          form.reset(typedOf(now, now, units));
          setRow(now);
          setPoints(now.mountingPoints);
          onTaken?.(now);
        }}
      />
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <button type="submit" className="main-action" disabled={isSubmitting}>
          {submitName}
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
