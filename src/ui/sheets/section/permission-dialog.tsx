"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import { Dialog } from "radix-ui";
import { useEffect } from "react";
import { useForm } from "react-hook-form";
import { z } from "zod";
import { type DesignFields, type RecordedPermission, recordedPermissionSchema } from "@/contract";
import type { Finding } from "@/core/link";
import { Field } from "../../controls/field";
import { SheetDialog } from "../../controls/sheet-dialog";
import { readNumber } from "../../wording/numbers";
import { permissionLine } from "./permission-words";

const fields = recordedPermissionSchema.shape;
const number = (what: string) =>
  z.string().transform((text, ctx) => {
    const value = readNumber(text);
    if (value !== null) return value;
    ctx.addIssue({ code: "custom", message: `${what} must be a number, received "${text}"` });
    return z.NEVER;
  });
/** An empty day is an open one; the record says what is wrong with another. */
const dayOrNone = z.string().transform((text) => (text === "" ? null : text));

const formSchema = z
  .object({
    kind: fields.kind,
    holder: fields.holder,
    number: fields.number,
    place: fields.place,
    lowMhz: number("the lower edge"),
    highMhz: number("the upper edge"),
    maxEirpDbm: z.string().transform((text, ctx) => {
      if (text.trim() === "") return null;
      const value = readNumber(text);
      if (value === null) ctx.addIssue({ code: "custom", message: `the EIRP must be a number, received "${text}"` });
      return value;
    }),
    from: dayOrNone,
    until: dayOrNone,
    note: fields.note,
  })
  .pipe(recordedPermissionSchema);

/** What the rules ask for, from the findings that stop the design or would allow more. */
const asked = (found: readonly Finding[]): string => {
  for (const f of found) {
    if (f.code === "permission" || f.code === "permission-ended" || f.code === "permission-not-yet") return f.values.permission;
    if (f.code === "over-rule" && f.values.morePermission !== null) return f.values.morePermission;
  }
  return "";
};

/** Records a permission: who holds it, which number, what it covers and until when. It covers only that. */
export const PermissionDialog = ({
  open,
  onOpenChange,
  design,
  found,
  day,
  change,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  design: DesignFields;
  found: readonly Finding[];
  day: string;
  change: (fields: Partial<DesignFields>) => void;
}) => {
  const half = design.widthMhz / 2;
  const start = {
    kind: "",
    holder: "",
    number: "",
    place: "",
    lowMhz: String(design.centreMhz - half),
    highMhz: String(design.centreMhz + half),
    maxEirpDbm: "",
    from: day,
    until: "",
    note: "",
  };
  const form = useForm<z.input<typeof formSchema>, unknown, RecordedPermission>({
    resolver: zodResolver(formSchema),
    defaultValues: start,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: the form starts anew each time it is opened
  useEffect(() => {
    if (open) form.reset(start);
  }, [open]);
  const { errors } = form.formState;
  const submit = form.handleSubmit((permission) => {
    change({ permissions: [...design.permissions, permission] });
    onOpenChange(false);
  });
  const wanted = asked(found);
  return (
    <SheetDialog open={open} onOpenChange={onOpenChange} title="Record a permission" width="broad">
      {wanted !== "" && <p className="m-0 mb-3 text-body">The rules ask for: {wanted}.</p>}
      {design.permissions.length > 0 && (
        <ul className="m-0 mb-3 list-none border-y border-rule p-0 py-1.5 text-line" aria-label="On record">
          {design.permissions.map((p, i) => (
            <li key={`${p.number}-${p.lowMhz}-${p.from}`} className="flex gap-3 py-0.5">
              <span className="flex-1">{permissionLine(p, design, day)}</span>
              <button
                type="button"
                className="press"
                aria-label={`Take ${p.number} off the record`}
                onClick={() => change({ permissions: design.permissions.filter((_, k) => k !== i) })}
              >
                Take off
              </button>
            </li>
          ))}
        </ul>
      )}
      <form onSubmit={submit} noValidate className="grid grid-cols-2 gap-x-5 gap-y-3">
        <Field label="Number or reference" fault={errors.number?.message} {...form.register("number")} />
        <Field label="Kind" placeholder="licence, registration" fault={errors.kind?.message} {...form.register("kind")} />
        <Field label="Holder" fault={errors.holder?.message} {...form.register("holder")} />
        <Field label="Place it is for" fault={errors.place?.message} {...form.register("place")} />
        <Field label="From, MHz" inputMode="decimal" fault={errors.lowMhz?.message} {...form.register("lowMhz")} />
        <Field label="To, MHz" inputMode="decimal" fault={errors.highMhz?.message} {...form.register("highMhz")} />
        <Field label="First day" type="date" fault={errors.from?.message} {...form.register("from")} />
        <Field label="Last day, empty for open" type="date" fault={errors.until?.message} {...form.register("until")} />
        <Field label="Highest EIRP granted, dBm" inputMode="decimal" fault={errors.maxEirpDbm?.message} {...form.register("maxEirpDbm")} />
        <Field label="Note, where the paper lies" fault={errors.note?.message} {...form.register("note")} />
        <p className="cap col-span-2 m-0">
          It covers this channel, this power and these days, and nothing else. The rule sets are a planning aid; the local regulator
          decides.
        </p>
        <div className="col-span-2 flex items-center gap-6">
          <button type="submit" className="main-action">
            Record it
          </button>
          <Dialog.Close className="press">Leave it</Dialog.Close>
        </div>
      </form>
    </SheetDialog>
  );
};
