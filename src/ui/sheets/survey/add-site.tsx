"use client";
import { useState } from "react";
import { FIRST_MOUNT_M, toldOf } from "@/contract";
import { type FarPosition, farFromJob, type LatLon, parseLatLon } from "@/core/geo";
import { useRefresh } from "../../api/queries";
import { FarQuestion } from "../../controls/far-question";
import { Field } from "../../controls/field";
import { FormTrouble, useSubmit } from "../../controls/use-submit";
import { sendEdit } from "../../state/browser-outbox";
import { usePreferences } from "../../state/preferences";
import { coordinateFault } from "../../wording/coordinates";
import { latLonText } from "../../wording/numbers";
import { PhonePosition } from "./phone-position";

/** A site found on the spot: its name and where it stands; the rest is asked once it is open. Made without coverage it waits here. */
export const AddSite = ({
  jobId,
  known,
  added,
  leave,
}: {
  jobId: string;
  /** Places of the job: a position far from all of them is asked about before it is kept. */
  known: readonly LatLon[];
  added: (id: string) => void;
  leave: () => void;
}) => {
  const { units } = usePreferences();
  const [name, setName] = useState("");
  const [where, setWhere] = useState("");
  const sending = useSubmit(units);
  const refresh = useRefresh();
  const [asked, setAsked] = useState<FarPosition | null>(null);
  const add = async (sure: boolean): Promise<void> => {
    sending.say(null);
    if (name.trim() === "") {
      sending.say("Name must not be empty.");
      return;
    }
    // Read here and not by the server: there may be none in reach. Systems by their code need it.
    const at = parseLatLon(where);
    if ("error" in at) {
      sending.say(coordinateFault(where, at));
      return;
    }
    const far = sure ? null : farFromJob(at, known);
    setAsked(far);
    if (far !== null) return;
    const id = crypto.randomUUID();
    const body = { id, name: name.trim(), ...at, mountAglM: FIRST_MOUNT_M };
    // Done as soon as it is made, or as soon as it waits here for the connection.
    await sending.run(async () => {
      await new Promise<void>((resolve, reject) => {
        sendEdit(jobId, "POST", `/api/jobs/${jobId}/${toldOf("site").route}`, body, () => resolve())
          .then(() => refresh(jobId))
          .then(resolve, reject);
      });
      added(id);
    });
  };
  return (
    <form
      aria-label="New site"
      noValidate
      className="mt-3 grid gap-3 border-[1.6px] border-ink p-3 [&_input]:min-h-12 [&_input]:text-name"
      onSubmit={(e) => {
        e.preventDefault();
        void add(false);
      }}
    >
      <Field label="Name" value={name} maxLength={80} autoFocus onChange={(e) => setName(e.target.value)} />
      <Field label="Latitude, longitude" value={where} onChange={(e) => setWhere(e.target.value)} />
      {asked !== null && (
        <FarQuestion
          far={asked}
          units={units}
          takeMeant={(p) => {
            setAsked(null);
            setWhere(latLonText(p));
          }}
          keep={() => void add(true)}
        />
      )}
      {/* Far from the job is asked about once, when it is added. */}
      <PhonePosition others={[]} take={(at) => setWhere(latLonText(at))} />
      <FormTrouble of={sending} />
      <div className="flex items-center gap-6">
        <button type="submit" className="main-action min-h-12" disabled={sending.busy}>
          Add it
        </button>
        <button type="button" className="press min-h-12" onClick={leave}>
          Leave it
        </button>
      </div>
    </form>
  );
};
