"use client";
import { useState } from "react";
import { postForFile } from "../../api/client";
import { useServedFile } from "../../api/use-served-file";
import { Choice } from "../../controls/field";

const FORMATS = [
  ["geojson", "GeoJSON"],
  ["kml", "KML"],
  ["gpx", "GPX"],
  ["csv", "CSV"],
] as const;
const WHATS = [
  ["sites", "Sites"],
  ["links", "Links"],
  ["obstacles", "Obstacles"],
  ["features", "Named ground"],
] as const;

/** Parts of the job as open files, and the whole of it as one. */
export const ExportPanel = ({ jobId }: { jobId: string }) => {
  const { busy, take, notice } = useServedFile();
  const ask = (path: string, words: string): void => void take(words, (signal) => postForFile(`/api/jobs/${jobId}/${path}`, signal));
  const [what, setWhat] = useState("sites");
  const [format, setFormat] = useState("geojson");
  return (
    <div className="grid gap-3">
      <div className="grid grid-cols-2 gap-3">
        <Choice label="Part of the job" value={what} onChange={(e) => setWhat(e.target.value)}>
          {WHATS.map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </Choice>
        <Choice label="Written as" value={format} onChange={(e) => setFormat(e.target.value)}>
          {FORMATS.map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </Choice>
      </div>
      {format === "gpx" && (
        <p className="cap m-0">GPX keeps names and places only: enough for a hand-held receiver, not for coming back.</p>
      )}
      <button
        type="button"
        disabled={busy !== null}
        className="main-action justify-self-start"
        onClick={() => ask(`export?what=${what}&format=${format}`, "Writing it out")}
      >
        Take it out
      </button>
      <div className="border-t border-ink pt-3">
        <p className="m-0 mb-2">
          <b>The whole job</b> in one file: sites, links, obstacles, brief, photos, the radios it uses and the terrain about it. It can be
          taken in on another machine from the register.
        </p>
        <button type="button" disabled={busy !== null} className="press" onClick={() => ask("bundle", "Packing the whole job")}>
          Take the whole job out
        </button>
      </div>
      {notice}
    </div>
  );
};
