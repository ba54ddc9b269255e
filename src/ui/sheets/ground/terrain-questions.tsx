"use client";
import { useState } from "react";
import type { ImportOptions, PreviewDto } from "@/contract";
import { Choice, Field } from "../../controls/field";
import { UnitField } from "../../controls/unit-field";
import { figure, lengthText, type Units } from "../../wording/numbers";
import { Buttons, HeightUnitChoice, SystemField, useChecked } from "./import-parts";

type TerrainPreview = Extract<PreviewDto, { kind: "terrain" }>;

const DATUMS = [
  ["mean sea level", "mean sea level"],
  ["national heights", "a national height system"],
  ["ellipsoid", "the ellipsoid (GNSS)"],
  ["local", "something local"],
] as const;

/** What a height file leaves open: its system, its kind, its unit and what its heights are counted from. */
export const TerrainQuestions = ({
  name: fileName,
  preview: p,
  units,
  onSystem,
  onBegin,
  onLeave,
}: {
  name: string;
  preview: TerrainPreview;
  units: Units;
  onSystem: (epsg: number | null) => void;
  onBegin: (o: ImportOptions) => Promise<void>;
  onLeave: () => void;
}) => {
  const [name, setName] = useState(fileName.replace(/\.\w+$/, "").slice(0, 80));
  const [kind, setKind] = useState("");
  const [unit, setUnit] = useState<string>(p.verticalUnit ?? "");
  const [datum, setDatum] = useState("");
  const [offsetM, setOffsetM] = useState<number | null>(null);
  const [sigmaM, setSigmaM] = useState<number | null>(p.sigmaM);
  const { fault, begin } = useChecked(onBegin);
  const needsOffset = datum !== "" && datum !== "mean sea level";
  const missing = [
    ...(p.epsg === null ? ["its coordinate system"] : []),
    ...(kind === "" ? ["what its heights are of"] : []),
    ...(unit === "" ? ["their unit"] : []),
    ...(datum === "" ? ["what they are counted from"] : []),
    ...(needsOffset && offsetM === null ? ["the offset to mean sea level"] : []),
    ...(sigmaM === null ? ["how sure they are"] : []),
  ];
  return (
    <div className="grid gap-2.5">
      <p className="m-0 text-line">
        {p.format}, {figure(p.cols)} × {figure(p.rows)} cells
        {p.cellM === null ? "" : ` of ${lengthText(units, p.cellM, p.cellM < 10 ? 1 : 0)}`}.{" "}
        {p.systemName === null ? "It names no coordinate system." : `${p.systemName}.`}
        {p.lowest === null ? "" : ` Sampled values ${figure(p.lowest, 1)} to ${figure(p.highest ?? 0, 1)}.`}
        {p.ring === null ? "" : " Its area is drawn dashed."}
      </p>
      {p.offM > 0 && (
        <p className="m-0 text-line">
          Its datum needs a shift grid that does not ship: places may be off by {lengthText(units, p.offM, 0)}.
        </p>
      )}
      <Field label="Name" value={name} maxLength={80} onChange={(e) => setName(e.target.value)} />
      <SystemField label="Coordinate system" epsg={p.epsg} onChange={onSystem} />
      <Choice label="Its heights are of" value={kind} onChange={(e) => setKind(e.target.value)}>
        <option value="">choose</option>
        <option value="dtm">bare ground</option>
        <option value="dsm">the surface: roofs and tree tops too</option>
      </Choice>
      <div className="grid grid-cols-2 gap-3">
        <HeightUnitChoice value={unit} onChange={setUnit} />
        <UnitField label="Give or take" quantity="height" value={sigmaM} onChange={setSigmaM} most={100} />
      </div>
      <Choice label="Counted from" value={datum} onChange={(e) => setDatum(e.target.value)}>
        <option value="">choose</option>
        {DATUMS.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </Choice>
      {needsOffset && (
        <>
          <UnitField
            label="To add, to reach mean sea level"
            quantity="height"
            value={offsetM}
            onChange={setOffsetM}
            least={-200}
            most={200}
          />
          <p className="cap m-0">
            Unlike datums are never mixed: the offset is added to every height. Type 0 only when you know that they agree.
          </p>
        </>
      )}
      {missing.length > 0 && <p className="cap m-0">Still to say: {missing.join(", ")}.</p>}
      <Buttons
        ready={missing.length === 0}
        fault={fault}
        onLeave={onLeave}
        onBegin={() =>
          begin({
            what: "terrain",
            name: name.trim(),
            epsg: p.epsg,
            kind,
            verticalUnit: unit,
            verticalDatum: datum,
            datumOffsetM: needsOffset ? offsetM : 0,
            sigmaM,
          })
        }
      />
    </div>
  );
};
