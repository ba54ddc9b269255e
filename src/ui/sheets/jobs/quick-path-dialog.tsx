"use client";
import { useQueryClient } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { Dialog } from "radix-ui";
import { type ReactNode, useState } from "react";
import { type QuickPath, type QuickPathDto, quickPathSchema } from "@/contract";
import { LONGEST_LINK_M } from "@/core/link";
import { postJson } from "../../api/client";
import { readPosition } from "../../api/position";
import { keys } from "../../api/queries";
import { Choice, Field } from "../../controls/field";
import type { Opened } from "../../controls/lazy-part";
import { NumberField } from "../../controls/number-field";
import { SheetDialog } from "../../controls/sheet-dialog";
import { UnitField } from "../../controls/unit-field";
import { FormTrouble, sentence, useSubmit } from "../../controls/use-submit";
import { coordinateFault } from "../../wording/coordinates";
import { RuleCaution, RuleOptions } from "./rule-options";

interface Asked {
  readonly name: string;
  readonly by: "distance" | "positions";
  readonly distanceM: number | null;
  readonly bearingDeg: number | null;
  readonly nearAt: string;
  readonly farAt: string;
  readonly nearAglM: number | null;
  readonly farAglM: number | null;
  readonly ground: QuickPath["ground"];
  readonly ruleDomain: QuickPath["ruleDomain"];
  readonly needToFarMbps: number | null;
  readonly needToNearMbps: number | null;
}
const START: Asked = {
  name: "Quick path",
  by: "distance",
  distanceM: null,
  bearingDeg: null,
  nearAt: "",
  farAt: "",
  nearAglM: 6,
  farAglM: 6,
  ground: "flat",
  ruleDomain: "cautious",
  needToFarMbps: null,
  needToNearMbps: null,
};

/** What was asked as the server takes it, or the first thing that is missing. */
const read = async (f: Asked): Promise<QuickPath | { readonly fault: string }> => {
  const at = async (text: string, whose: string) => {
    const position = await readPosition(text);
    return "error" in position ? { fault: `${whose}: ${coordinateFault(text, position)}` } : position;
  };
  let where: unknown = { kind: "distance", distanceM: f.distanceM, bearingDeg: f.bearingDeg };
  if (f.by === "positions") {
    const near = await at(f.nearAt, "Near end");
    if ("fault" in near) return near;
    const far = await at(f.farAt, "Far end");
    if ("fault" in far) return far;
    where = { kind: "positions", near, far };
  }
  const parsed = quickPathSchema.safeParse({
    name: f.name,
    visitOn: new Date().toISOString().slice(0, 10),
    near: { name: "Near end", mountAglM: f.nearAglM },
    far: { name: "Far end", mountAglM: f.farAglM },
    where,
    ground: f.ground,
    ruleDomain: f.ruleDomain,
    needToFarMbps: f.needToFarMbps,
    needToNearMbps: f.needToNearMbps,
  });
  if (parsed.success) return parsed.data;
  return { fault: sentence(parsed.error.issues[0]?.message) };
};

/** A path without a map, out of what is known of it; it becomes an ordinary job. */
export const QuickPathDialog = ({ open, onOpenChange }: Opened) => {
  const [f, setF] = useState(START);
  const sending = useSubmit();
  const router = useRouter();
  const client = useQueryClient();
  const set = (fields: Partial<Asked>): void => setF((now) => ({ ...now, ...fields }));
  const submit = async (): Promise<void> => {
    sending.say(null);
    const asked = await read(f);
    if ("fault" in asked) {
      sending.say(asked.fault);
      return;
    }
    await sending.run(async () => {
      const { jobId, linkId } = await postJson<QuickPathDto>("/api/quick-path", asked);
      await client.invalidateQueries({ queryKey: keys.jobs });
      router.push(`/jobs/${jobId}/section/${linkId}`);
    });
  };
  return (
    <SheetDialog
      open={open}
      onOpenChange={onOpenChange}
      title="Quick path"
      note="What is known is enough. It becomes an ordinary job; everything can be told better later."
    >
      <form
        noValidate
        className="grid grid-cols-2 gap-x-5 gap-y-3"
        onSubmit={(e) => {
          e.preventDefault();
          // What a field refuses is never taken for what it held before.
          const wrong = e.currentTarget.querySelector<HTMLElement>('[aria-invalid="true"]');
          if (wrong === null) void submit();
          else {
            sending.say("One figure cannot be taken as it is typed.");
            wrong.focus();
          }
        }}
      >
        <Where f={f} set={set} />
        <UnitField
          label="Near mount above ground"
          quantity="height"
          value={f.nearAglM}
          onChange={(nearAglM) => set({ nearAglM })}
          usual={{ least: 1.5, most: 60 }}
          most={300}
        />
        <UnitField
          label="Far mount above ground"
          quantity="height"
          value={f.farAglM}
          onChange={(farAglM) => set({ farAglM })}
          usual={{ least: 1.5, most: 60 }}
          most={300}
        />
        <Choice label="Ground between" value={f.ground} onChange={(e) => set({ ground: e.target.value as Asked["ground"] })}>
          <option value="flat">flat land, nothing on it</option>
          <option value="water">water all the way</option>
          <option value="terrain">terrain, which I have or bring in</option>
        </Choice>
        <NumberField
          label="Wanted at the far end"
          unit="Mbps"
          optional
          value={f.needToFarMbps}
          least={0}
          most={100_000}
          onChange={(needToFarMbps) => set({ needToFarMbps })}
        />
        <Choice label="Rules" value={f.ruleDomain} onChange={(e) => set({ ruleDomain: e.target.value as Asked["ruleDomain"] })}>
          <RuleOptions />
        </Choice>
        <Field label="Called" value={f.name} maxLength={80} onChange={(e) => set({ name: e.target.value })} />
        <RuleCaution className="cap m-0 self-end" />
        <NumberField
          label="And back"
          unit="Mbps"
          optional
          value={f.needToNearMbps}
          least={0}
          most={100_000}
          onChange={(needToNearMbps) => set({ needToNearMbps })}
        />
        <FormTrouble of={sending} />
        <div className="col-span-2 flex items-center gap-6">
          <button type="submit" className="main-action" disabled={sending.busy}>
            Draw the path
          </button>
          <Dialog.Close className="press">Leave it</Dialog.Close>
        </div>
      </form>
    </SheetDialog>
  );
};

/** A distance, with a bearing where it is known; or two positions. */
const Where = ({ f, set }: { f: Asked; set: (fields: Partial<Asked>) => void }): ReactNode => (
  <>
    <div className="col-span-2">
      <Choice label="What is known of the path" value={f.by} onChange={(e) => set({ by: e.target.value as Asked["by"] })}>
        <option value="distance">how long it is</option>
        <option value="positions">where both ends are</option>
      </Choice>
    </div>
    {f.by === "distance" ? (
      <>
        <UnitField
          label="Distance"
          quantity="distance"
          value={f.distanceM}
          onChange={(distanceM) => set({ distanceM })}
          usual={{ least: 30, most: 30_000 }}
          most={LONGEST_LINK_M}
        />
        <NumberField
          label="Bearing to the far end, true"
          unit="°"
          optional
          value={f.bearingDeg}
          least={0}
          most={360}
          onChange={(bearingDeg) => set({ bearingDeg })}
        />
      </>
    ) : (
      <>
        <Field
          label="Near end: latitude, longitude"
          placeholder="47.3000 N, 19.4000 W"
          value={f.nearAt}
          onChange={(e) => set({ nearAt: e.target.value })}
        />
        <Field
          label="Far end: latitude, longitude"
          placeholder="47.3100 N, 19.4000 W"
          value={f.farAt}
          onChange={(e) => set({ farAt: e.target.value })}
        />
      </>
    )}
  </>
);
