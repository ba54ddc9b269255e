"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import { useQueryClient } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { Dialog } from "radix-ui";
import { useForm } from "react-hook-form";
import { z } from "zod";
import { type JobDto, newJobSchema } from "@/contract";
import { postJson } from "../../api/client";
import { readPosition } from "../../api/position";
import { keys } from "../../api/queries";
import { Choice, Field } from "../../controls/field";
import type { Opened } from "../../controls/lazy-part";
import { SheetDialog } from "../../controls/sheet-dialog";
import { FormTrouble, useSubmit } from "../../controls/use-submit";
import { coordinateFault } from "../../wording/coordinates";
import { readNumber } from "../../wording/numbers";
import { RuleCaution, RuleOptions } from "./rule-options";

const formSchema = z
  .object({
    name: newJobSchema.shape.name,
    place: z.string(),
    where: z.string(),
    visitOn: newJobSchema.shape.visitOn,
    ruleDomain: newJobSchema.shape.ruleDomain,
    rain: z.string(),
  })
  .transform(async (f, ctx) => {
    const position = await readPosition(f.where);
    if ("error" in position) {
      ctx.addIssue({ code: "custom", path: ["where"], message: coordinateFault(f.where, position) });
      return z.NEVER;
    }
    const rain = readNumber(f.rain) ?? Number.NaN;
    const checked = newJobSchema.shape.rainRate001MmH.safeParse(rain);
    if (!checked.success) {
      ctx.addIssue({ code: "custom", path: ["rain"], message: checked.error.issues[0]?.message ?? "" });
      return z.NEVER;
    }
    return {
      name: f.name,
      place: f.place,
      visitOn: f.visitOn,
      ruleDomain: f.ruleDomain,
      rainRate001MmH: rain,
      centreLatDeg: position.latDeg,
      centreLonDeg: position.lonDeg,
    };
  });

/** Makes a job: what it is called, where it is, under which rules and rain. */
export const NewJobDialog = ({ open, onOpenChange }: Opened) => {
  const sending = useSubmit();
  const router = useRouter();
  const client = useQueryClient();
  const form = useForm<z.input<typeof formSchema>, unknown, z.output<typeof formSchema>>({
    resolver: zodResolver(formSchema),
    defaultValues: { name: "", place: "", where: "", visitOn: new Date().toISOString().slice(0, 10), ruleDomain: "cautious", rain: "30" },
  });
  const { errors, isSubmitting } = form.formState;
  const submit = form.handleSubmit((values) =>
    sending.run(async () => {
      const job = await postJson<JobDto>("/api/jobs", values);
      await client.invalidateQueries({ queryKey: keys.jobs });
      router.push(`/jobs/${job.id}/ground`);
    }),
  );
  return (
    <SheetDialog open={open} onOpenChange={onOpenChange} title="New job">
      <form onSubmit={submit} noValidate className="grid grid-cols-2 gap-x-5 gap-y-3.5">
        <div className="col-span-2">
          <Field label="Customer or job" fault={errors.name?.message} {...form.register("name")} />
        </div>
        <Field label="Where, in words" {...form.register("place")} />
        <Field label="Day of visit" type="date" fault={errors.visitOn?.message} {...form.register("visitOn")} />
        <div className="col-span-2">
          <Field
            label="Position of the first building: latitude, longitude"
            placeholder="47.3000 N, 19.4000 W"
            fault={errors.where?.message}
            {...form.register("where")}
          />
        </div>
        <Choice label="Rules" {...form.register("ruleDomain")}>
          <RuleOptions />
        </Choice>
        <Field label="Rain passed 0.01 % of the year, mm/h" inputMode="decimal" fault={errors.rain?.message} {...form.register("rain")} />
        <RuleCaution className="cap col-span-2 m-0" />
        <FormTrouble of={sending} />
        <div className="col-span-2 flex items-center gap-6">
          <button type="submit" className="main-action" disabled={isSubmitting}>
            Make the job
          </button>
          <Dialog.Close className="press">Leave it</Dialog.Close>
        </div>
      </form>
    </SheetDialog>
  );
};
