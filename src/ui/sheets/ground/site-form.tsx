"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { useForm } from "react-hook-form";
import { z } from "zod";
import { newSiteSchema, type SiteDto } from "@/contract";
import { parseLatLon } from "@/core/geo";
import { ApiError } from "../../api/client";
import { Field } from "../../controls/field";
import { coordinateFault } from "../../wording/coordinates";
import { errorSentence } from "../../wording/errors";
import { latLonText, lengthIn, lengthUnit, metresFrom, type Units } from "../../wording/numbers";

export interface SiteValues {
  readonly name: string;
  readonly latDeg: number;
  readonly lonDeg: number;
  readonly mountAglM: number;
  readonly mountMaxAglM: number | null;
}

const formSchema = (units: Units) =>
  z.object({ name: newSiteSchema.shape.name, where: z.string(), mount: z.string(), limit: z.string() }).transform((f, ctx): SiteValues => {
    const position = parseLatLon(f.where);
    if ("error" in position) {
      ctx.addIssue({ code: "custom", path: ["where"], message: coordinateFault(f.where, position) });
      return z.NEVER;
    }
    const length = (text: string, path: "mount" | "limit"): number => {
      const number = Number(text.trim().replace(",", ".").replace("\u2212", "-"));
      if (text.trim() === "" || Number.isNaN(number)) {
        ctx.addIssue({
          code: "custom",
          path: [path],
          message: `"${text}" is not a number; type the height above ground in ${lengthUnit(units)}.`,
        });
        return 0;
      }
      const checked = newSiteSchema.shape.mountAglM.safeParse(metresFrom(units, number));
      if (!checked.success) ctx.addIssue({ code: "custom", path: [path], message: `${checked.error.issues[0]?.message ?? ""}.` });
      return metresFrom(units, number);
    };
    return {
      name: f.name,
      ...position,
      mountAglM: length(f.mount, "mount"),
      mountMaxAglM: f.limit.trim() === "" ? null : length(f.limit, "limit"),
    };
  });

/** A site: name, position, mount. Faults stand under the field they belong to. */
export const SiteForm = ({
  site,
  at,
  units,
  submitName,
  onSubmit,
  onCancel,
  onDelete,
}: {
  site: SiteDto | null;
  at: { latDeg: number; lonDeg: number } | null;
  units: Units;
  submitName: string;
  onSubmit: (values: SiteValues) => Promise<void>;
  onCancel: () => void;
  onDelete?: (() => Promise<void>) | undefined;
}) => {
  const [fault, setFault] = useState<string | null>(null);
  const place = site ?? at;
  const form = useForm<z.input<ReturnType<typeof formSchema>>, unknown, SiteValues>({
    resolver: zodResolver(formSchema(units)),
    defaultValues: {
      name: site?.name ?? "",
      where: place === null ? "" : latLonText(place),
      mount:
        site === null ? String(Math.round(lengthIn(units, 6) * 10) / 10) : String(Math.round(lengthIn(units, site.mountAglM) * 10) / 10),
      limit: site?.mountMaxAglM == null ? "" : String(Math.round(lengthIn(units, site.mountMaxAglM) * 10) / 10),
    },
  });
  const { errors, isSubmitting } = form.formState;
  const run = async (work: () => Promise<void>): Promise<void> => {
    setFault(null);
    try {
      await work();
    } catch (error) {
      setFault(errorSentence(error instanceof ApiError ? error.body : { code: "internal" }, units));
    }
  };
  const unit = lengthUnit(units);
  return (
    <form
      noValidate
      aria-label={site === null ? "New site" : `Site ${site.name}`}
      className="grid gap-3"
      onSubmit={form.handleSubmit((values) => run(() => onSubmit(values)))}
    >
      <Field label="Name" autoFocus fault={errors.name?.message} {...form.register("name")} />
      <Field label="Latitude, longitude" fault={errors.where?.message} {...form.register("where")} />
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
      {fault !== null && (
        <p role="alert" className="m-0 text-short-figure">
          {fault}
        </p>
      )}
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <button type="submit" className="main-action" disabled={isSubmitting}>
          {submitName}
        </button>
        <button type="button" className="press" onClick={onCancel}>
          Leave it
        </button>
        {onDelete !== undefined && (
          <button type="button" className="press" onClick={() => void run(onDelete)}>
            Take away
          </button>
        )}
      </div>
    </form>
  );
};
