"use client";
import { useState } from "react";
import { type GroundTold, groundToldSchema, type LinkDto } from "@/contract";
import { TOLD_SIGMA_M } from "@/core/link";
import { Choice } from "../../controls/field";
import { UnitField } from "../../controls/unit-field";
import { FormTrouble, sentence, useSubmit } from "../../controls/use-submit";
import { lengthIn, lengthUnit, metresFrom, readNumber, type Units } from "../../wording/numbers";

const pointsText = (told: GroundTold | null, units: Units): string =>
  (told?.points ?? [])
    .map((p) => `${Number(lengthIn(units, p.distanceM).toFixed(2))} ${Number(lengthIn(units, p.heightAmslM).toFixed(2))}`)
    .join("\n");

/** "0 5.2 / 30 4.8": a distance and a height a line. */
const readPoints = (text: string, units: Units): { points: { distanceM: number; heightAmslM: number }[] } | { fault: string } => {
  const points: { distanceM: number; heightAmslM: number }[] = [];
  for (const [i, line] of text.split("\n").entries()) {
    if (line.trim() === "") continue;
    const [d, h, more] = line.trim().split(/[\s;]+/);
    const distance = readNumber(d ?? "");
    const height = readNumber(h ?? "");
    if (distance === null || height === null || more !== undefined) {
      return { fault: `Line ${i + 1}, "${line.trim().slice(0, 30)}", is not a distance and a height.` };
    }
    points.push({ distanceM: metresFrom(units, distance), heightAmslM: metresFrom(units, height) });
  }
  return { points };
};

/** The ground of one path told by hand: enough for a short link where no terrain file is at hand. */
export const ToldPanel = ({
  link,
  title,
  units,
  onSave,
  onCancel,
  onTaken,
}: {
  link: LinkDto;
  title: string;
  units: Units;
  onSave: (told: GroundTold | null) => Promise<void>;
  onCancel: () => void;
  onTaken: (row: LinkDto) => void;
}) => {
  const [kind, setKind] = useState<"terrain" | "level" | "typed">(link.groundTold?.kind ?? "terrain");
  const [heightM, setHeightM] = useState<number | null>(link.groundTold?.points[0]?.heightAmslM ?? 10);
  const [sigmaM, setSigmaM] = useState<number | null>(link.groundTold?.sigmaM ?? TOLD_SIGMA_M);
  const [text, setText] = useState(() => pointsText(link.groundTold, units));
  const sending = useSubmit(units);
  const unit = lengthUnit(units);
  const save = async (): Promise<void> => {
    let told: GroundTold | null = null;
    if (kind !== "terrain") {
      const read = kind === "level" ? { points: [{ distanceM: 0, heightAmslM: heightM ?? Number.NaN }] } : readPoints(text, units);
      if ("fault" in read) {
        sending.say(read.fault);
        return;
      }
      const parsed = groundToldSchema.safeParse({ kind, sigmaM, points: read.points });
      if (!parsed.success) {
        sending.say(sentence(parsed.error.issues[0]?.message));
        return;
      }
      told = parsed.data;
    }
    await sending.run(() => onSave(told));
  };
  return (
    <div className="grid gap-2.5">
      <h2 className="m-0 text-press font-bold">Ground from {title}</h2>
      <Choice label="Taken from" value={kind} onChange={(e) => setKind(e.target.value as typeof kind)}>
        <option value="terrain">terrain, the finest that knows it</option>
        <option value="level">level ground, give or take</option>
        <option value="typed">heights I tell, at distances</option>
      </Choice>
      {kind === "level" && (
        <UnitField label="Height of the ground, AMSL" quantity="height" value={heightM} onChange={setHeightM} least={-500} most={9000} />
      )}
      {kind === "typed" && (
        <label className="field">
          <span>Distance from the near end and height AMSL, {unit}, one pair a line</span>
          <textarea
            rows={7}
            className="border border-rule bg-paper p-1.5 font-mono text-line"
            placeholder={"0 5.2\n30 4.8\n62 5.5"}
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
        </label>
      )}
      {kind !== "terrain" && (
        <UnitField label="Give or take" quantity="height" value={sigmaM} allowEmpty={false} onChange={setSigmaM} most={100} />
      )}
      {kind !== "terrain" && <p className="cap m-0">Mounts and obstacles of this path then stand on the ground told here.</p>}
      <FormTrouble of={sending} kind="link" units={units} kept={onCancel} take={(theirs) => onTaken(theirs as unknown as LinkDto)} />
      <div className="flex gap-4">
        <button type="button" className="main-action" onClick={() => void save()}>
          Keep
        </button>
        <button type="button" className="press" onClick={onCancel}>
          Leave it
        </button>
      </div>
    </div>
  );
};
