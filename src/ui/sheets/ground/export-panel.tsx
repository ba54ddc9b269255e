"use client";
import { useEffect, useRef, useState } from "react";
import { bodyOf, postForBinary } from "../../api/client";
import { keepFile } from "../../api/keep-file";
import { Choice } from "../../controls/field";
import { errorSentence } from "../../wording/errors";

/** A large job takes a while to pack. */
const MOST_MS = 600_000;

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
  const [busy, setBusy] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const abort = useRef<AbortController | null>(null);
  // Leaving the panel, or pressing Stop, ends the work on the server, too.
  useEffect(() => () => abort.current?.abort(), []);
  const take = async (path: string, words: string): Promise<void> => {
    const own = new AbortController();
    abort.current = own;
    setBusy(words);
    setFault(null);
    try {
      const answer = await postForBinary(path, {}, own.signal, MOST_MS);
      const name = /filename="([^"]+)"/.exec(answer.headers.get("content-disposition") ?? "")?.[1] ?? "dry-arc";
      keepFile(await answer.blob(), name);
    } catch (error) {
      if (!own.signal.aborted) setFault(errorSentence(bodyOf(error)));
    }
    setBusy(null);
  };
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
        onClick={() => void take(`/api/jobs/${jobId}/export?what=${what}&format=${format}`, "Writing it out")}
      >
        Take it out
      </button>
      <div className="border-t border-ink pt-3">
        <p className="m-0 mb-2">
          <b>The whole job</b> in one file: sites, links, obstacles, brief, photos, the radios it uses and the terrain about it. It can be
          taken in on another machine from the register.
        </p>
        <button
          type="button"
          disabled={busy !== null}
          className="press"
          onClick={() => void take(`/api/jobs/${jobId}/bundle`, "Packing the whole job")}
        >
          Take the whole job out
        </button>
      </div>
      {busy !== null && (
        <div role="status" className="flex items-center gap-4">
          <span>{busy}</span>
          <progress aria-label={busy} className="min-w-0 flex-1" />
          <button type="button" className="press" onClick={() => abort.current?.abort()}>
            Stop
          </button>
        </div>
      )}
      {fault !== null && (
        <p role="alert" className="m-0 text-short-figure">
          {fault}
        </p>
      )}
    </div>
  );
};
