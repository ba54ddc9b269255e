"use client";
import { useState } from "react";
import type { ImportOptions, PreviewDto } from "@/contract";
import type { BodyKind } from "@/core/obstacles";
import { Choice } from "../../controls/field";
import { UnitField } from "../../controls/unit-field";
import { figure, type Units } from "../../wording/numbers";
import { KIND_NAME } from "./draw-kinds";
import { Buttons, type Columns, HeightUnitChoice, Rows, SystemField, useChecked } from "./import-parts";

type PlacesPreview = Extract<PreviewDto, { kind: "places" }>;

const first = (p: PlacesPreview, pattern: RegExp, numeric?: boolean): string =>
  p.columns.find((c) => pattern.test(c.name) && (numeric === undefined || c.numeric === numeric))?.name ?? "";

/** What a file of places leaves open: what its places are, which column says what, and how high things are. */
export const PlacesQuestions = ({
  preview: p,
  units,
  surveyedOn,
  epsg,
  columns,
  onAgain,
  onBegin,
  onLeave,
}: {
  preview: PlacesPreview;
  units: Units;
  surveyedOn: string;
  epsg: number | null;
  columns: Columns;
  onAgain: (epsg: number | null, columns: Columns) => void;
  onBegin: (o: ImportOptions) => Promise<void>;
  onLeave: () => void;
}) => {
  const [what, setWhat] = useState<"sites" | "obstacles" | "features">(
    p.own ?? (p.polygons > 0 ? "obstacles" : p.points > 0 && p.lines === 0 ? "sites" : "features"),
  );
  const [nameColumn, setNameColumn] = useState(first(p, /^(name|title|label|bezeichnung|nom)$/i));
  const [heightColumn, setHeightColumn] = useState(first(p, /height|hoehe|hauteur|building:height|\bhgt\b/i, true));
  const [kindColumn, setKindColumn] = useState("");
  const [unit, setUnit] = useState<string>("");
  const [kind, setKind] = useState<BodyKind>("building");
  const [otherM, setOtherM] = useState<number | null>(null);
  const [mountM, setMountM] = useState<number | null>(6);
  const [sigmaM, setSigmaM] = useState<number | null>(1);
  const [growthM, setGrowthM] = useState<number | null>(0);
  const [widthM, setWidthM] = useState<number | null>(4);
  const [freeM, setFreeM] = useState<number | null>(6);
  const [farTaken, setFarTaken] = useState(false);
  const { fault, begin } = useChecked(onBegin);
  const own = p.own === what;
  const table = p.format === "CSV";
  const column = (label: string, value: string, set: (v: string) => void, none: string) => (
    <Choice label={label} value={value} onChange={(e) => set(e.target.value)}>
      <option value="">{none}</option>
      {p.columns.map((c) => (
        <option key={c.name} value={c.name}>
          {c.name} ({c.sample})
        </option>
      ))}
    </Choice>
  );
  const heights = !own && what !== "features" && heightColumn !== "";
  const missing = [
    ...(p.problem !== null ? ["where its places are"] : []),
    ...(heights && unit === "" ? ["the unit of its heights"] : []),
    ...(!own && what === "obstacles" && heightColumn === "" && otherM === null ? ["how high they are"] : []),
    ...(!own && what !== "obstacles" && nameColumn === "" ? ["which column is the name"] : []),
  ];
  const shared = {
    epsg,
    ...(columns.lat === undefined ? {} : { latColumn: columns.lat }),
    ...(columns.lon === undefined ? {} : { lonColumn: columns.lon }),
    nameColumn: nameColumn === "" ? null : nameColumn,
    swapped: columns.swapped === true,
    farTaken,
  };
  return (
    <div className="grid gap-2.5">
      <p className="m-0 text-line">
        {p.format}: {p.more ? "the first " : ""}
        {figure(p.seen)} places{p.more ? ", more follow" : ""}; {figure(p.polygons)} outlines, {figure(p.lines)} lines, {figure(p.points)}{" "}
        points.
        {p.shapes.length > 0 ? " They are drawn dashed." : ""}
      </p>
      {p.problem !== null && <p className="m-0 text-short-figure">No place could be read: {p.problem}.</p>}
      {p.notes.length > 0 && (
        <details className="text-line">
          <summary className="cursor-pointer">{p.notes.length} would be taken otherwise than they stand there</summary>
          <Rows rows={p.notes} />
        </details>
      )}
      {p.far > 0 && (
        <fieldset className="grid gap-1 border border-ink px-3 py-2" aria-label="Far from the job">
          <p className="m-0">
            <b>
              {p.far === p.seen ? "All of them lie" : p.far === 1 ? "One of them lies" : `${figure(p.far)} of them lie`} far from the job
            </b>
            {p.farKm === null ? "." : `, the first ${figure(p.farKm)} km.`}{" "}
            {p.swapped > 0 ? "With latitude and longitude exchanged they would not." : ""}
          </p>
          {(p.swapped > 0 || columns.swapped === true) && (
            <button
              type="button"
              className="press justify-self-start"
              onClick={() => onAgain(epsg, { ...columns, swapped: columns.swapped !== true })}
            >
              {columns.swapped === true ? "Read them as they stand" : "Exchange latitude and longitude"}
            </button>
          )}
          <label className="flex items-center gap-2">
            <input type="checkbox" checked={farTaken} onChange={(e) => setFarTaken(e.target.checked)} /> They are meant to lie there
          </label>
          {!farTaken && <p className="cap m-0">Otherwise they are refused and listed.</p>}
        </fieldset>
      )}
      {columns.swapped === true && p.far === 0 && (
        <p className="m-0 text-line">
          Latitude and longitude are read exchanged.{" "}
          <button type="button" className="press" onClick={() => onAgain(epsg, { ...columns, swapped: false })}>
            Read them as they stand
          </button>
        </p>
      )}
      {p.faults.length > 0 && p.problem === null && (
        <details className="text-line">
          <summary className="cursor-pointer">
            {p.faults.length}
            {p.faults.length >= 20 ? " or more" : ""} would be refused
          </summary>
          <Rows rows={p.faults} />
        </details>
      )}
      <Choice label="They are" value={what} onChange={(e) => setWhat(e.target.value as typeof what)}>
        <option value="sites">sites</option>
        <option value="obstacles">obstacles: buildings, trees, walls</option>
        <option value="features">named ground</option>
      </Choice>
      {table && (
        <div className="grid grid-cols-2 gap-3">
          {column("Latitude, northing, or both", columns.lat ?? p.lat ?? "", (v) => onAgain(epsg, { ...columns, lat: v }), "choose")}
          {column(
            "Longitude or easting",
            columns.lon ?? p.lon ?? "",
            (v) => onAgain(epsg, { swapped: columns.swapped === true, lat: columns.lat ?? p.lat ?? "", ...(v === "" ? {} : { lon: v }) }),
            "in the first",
          )}
        </div>
      )}
      {(table || p.format === "GeoJSON") && (
        <SystemField label="Coordinate system, if not degrees" epsg={epsg} onChange={(next) => onAgain(next, columns)} />
      )}
      {own ? (
        <p className="m-0 text-line">Written by Dry Arc: every value is read as it was.</p>
      ) : (
        <>
          {column("Name", nameColumn, setNameColumn, what === "obstacles" ? "no names" : "choose")}
          {what !== "features" && (
            <div className="grid grid-cols-2 gap-3">
              {column(what === "sites" ? "Mount above ground" : "Height above ground", heightColumn, setHeightColumn, "not in it")}
              {heights && <HeightUnitChoice value={unit} onChange={setUnit} />}
            </div>
          )}
          {what === "sites" && (
            <UnitField
              label="Mount where it says none"
              quantity="height"
              value={mountM}
              allowEmpty={false}
              onChange={setMountM}
              most={300}
            />
          )}
          {what === "obstacles" && (
            <>
              <div className="grid grid-cols-2 gap-3">
                <Choice label="They are all" value={kind} onChange={(e) => setKind(e.target.value as BodyKind)}>
                  {Object.entries(KIND_NAME).map(([key, words]) => (
                    <option key={key} value={key}>
                      {words}
                    </option>
                  ))}
                </Choice>
                {column("Or by a column", kindColumn, setKindColumn, "all the same")}
              </div>
              <div className="grid grid-cols-2 gap-3">
                <UnitField label="Height where it says none" quantity="height" value={otherM} onChange={setOtherM} most={1000} />
                <UnitField label="Give or take" quantity="height" value={sigmaM} allowEmpty={false} onChange={setSigmaM} most={100} />
                <UnitField label="Growth a year" quantity="height" value={growthM} allowEmpty={false} onChange={setGrowthM} most={5} />
                {p.lines + p.points > 0 && (
                  <UnitField
                    label="Width of lines and points"
                    quantity="height"
                    value={widthM}
                    allowEmpty={false}
                    onChange={setWidthM}
                    least={0.1}
                    most={500}
                  />
                )}
                {(kind === "line" || kind === "crane") && (
                  <UnitField label="Free air beneath" quantity="height" value={freeM} allowEmpty={false} onChange={setFreeM} most={1000} />
                )}
              </div>
              {otherM === null && heightColumn !== "" && (
                <p className="cap m-0">Without a height of its own and none here, an outline is refused and listed.</p>
              )}
            </>
          )}
        </>
      )}
      {missing.length > 0 && <p className="cap m-0">Still to say: {missing.join(", ")}.</p>}
      <Buttons
        ready={missing.length === 0}
        fault={fault}
        onLeave={onLeave}
        onBegin={() =>
          begin(
            what === "sites"
              ? {
                  what,
                  ...shared,
                  heightColumn: heightColumn === "" ? null : heightColumn,
                  heightUnit: unit === "" ? "m" : unit,
                  heightDefaultM: mountM,
                }
              : what === "features"
                ? { what, ...shared }
                : {
                    what,
                    ...shared,
                    kind,
                    kindColumn: kindColumn === "" ? null : kindColumn,
                    heightColumn: heightColumn === "" ? null : heightColumn,
                    heightUnit: unit === "" ? "m" : unit,
                    heightDefaultM: otherM,
                    heightSigmaM: sigmaM,
                    growthMPerYear: growthM,
                    widthM,
                    freeBelowM: freeM,
                    surveyedOn,
                  },
          )
        }
      />
      <p className="cap m-0">{units === "imperial" ? "Heights are kept in metres and shown in feet." : ""}</p>
    </div>
  );
};
