"use client";
import { useState } from "react";
import type { BasemapDto, DatasetDto } from "@/contract";
import { bodyOf } from "../../api/client";
import { useBasemap, useDatasets, useRefresh } from "../../api/queries";
import { uploadFile } from "../../api/upload";
import { Field } from "../../controls/field";
import { Trouble } from "../../frame/trouble";
import { sendEdit } from "../../state/browser-outbox";
import { errorSentence } from "../../wording/errors";
import { lengthText, type Units } from "../../wording/numbers";

/** What is known of the ground, from where, how fine and how sure; and a map of one's own beneath it. */
export const KnownPanel = ({
  jobId,
  units,
  chosenId,
  choose,
}: {
  jobId: string;
  units: Units;
  chosenId: string | null;
  choose: (d: DatasetDto) => void;
}) => {
  const datasets = useDatasets(jobId);
  return (
    <div className="grid gap-2">
      <p className="cap m-0">The finest ground that knows a place is used there. Terrain is shared by all jobs.</p>
      {datasets.data === undefined && <Trouble error={datasets.error} waiting="Reading what is known." />}
      {datasets.data?.length === 0 && (
        <p className="m-0">
          Nothing is known yet: every path stays Unknown. Bring in a terrain file (GeoTIFF, HGT or ASCII grid), or tell the ground of a
          short link by hand.
        </p>
      )}
      <ul className="m-0 list-none p-0">
        {datasets.data?.map((d) => (
          <li key={d.id} className={`border-b border-rule py-1.5 ${d.id === chosenId ? "bg-band" : ""}`}>
            <button type="button" className="block w-full text-left font-figure" onClick={() => choose(d)} aria-pressed={d.id === chosenId}>
              {d.name}
            </button>
            <span className="text-line">
              {d.kind === "dtm" ? "bare ground" : "surface with what stands on it"}; cells of{" "}
              {lengthText(units, d.cellM, d.cellM < 10 ? 1 : 0)}, ± {lengthText(units, d.sigmaM, 2)}
            </span>
            <span className="cap block">
              {d.crs}, {d.cols} × {d.rows}; heights from {d.verticalDatum}
              {d.datumOffsetM === 0 ? "" : `, ${lengthText(units, d.datumOffsetM, 2)} added`}; {d.source}
            </span>
          </li>
        ))}
      </ul>
      <Basemap jobId={jobId} />
    </div>
  );
};

const Basemap = ({ jobId }: { jobId: string }) => {
  const found = useBasemap(jobId);
  const refresh = useRefresh();
  const [address, setAddress] = useState("");
  const [credit, setCredit] = useState("");
  const [fault, setFault] = useState<string | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const set = async (basemap: unknown): Promise<void> => {
    setFault(null);
    try {
      await sendEdit<{ basemap: BasemapDto | null }>(jobId, "PUT", `/api/jobs/${jobId}/basemap`, { basemap });
      await found.refetch();
      await refresh(jobId);
    } catch (error) {
      setFault(errorSentence(bodyOf(error)));
    }
  };
  const send = async (file: File): Promise<void> => {
    setFault(null);
    try {
      const uploadId = await uploadFile(jobId, file, setShare, new AbortController().signal);
      await set({ kind: "pmtiles", name: file.name.slice(0, 80), uploadId, credit });
    } catch (error) {
      setFault(errorSentence(bodyOf(error)));
    }
    setShare(null);
  };
  const now = found.data?.basemap ?? null;
  return (
    <details className="border-t border-ink pt-2">
      <summary className="cursor-pointer text-press font-bold">A map of your own beneath</summary>
      <div className="grid gap-2 pt-2">
        {now !== null && (
          <p className="m-0">
            {now.name}.{" "}
            <button type="button" className="press" onClick={() => void set(null)}>
              Take it away
            </button>
          </p>
        )}
        <Field
          label="Address of tiles, with {z}, {x} and {y}"
          value={address}
          placeholder="http://…/{z}/{x}/{y}.png"
          onChange={(e) => setAddress(e.target.value)}
        />
        <Field label="Credit it asks for" value={credit} onChange={(e) => setCredit(e.target.value)} />
        <button
          type="button"
          className="press justify-self-start"
          disabled={address.trim() === ""}
          onClick={() => {
            let name = address;
            try {
              name = new URL(address.replaceAll(/[{}]/g, "")).host;
            } catch {
              // The server says what is wrong with it.
            }
            void set({ kind: "xyz", name, address: address.trim(), credit });
          }}
        >
          Lay it beneath
        </button>
        <label className="press cursor-pointer justify-self-start">
          Or a PMTiles file
          <input
            type="file"
            accept=".pmtiles"
            className="sr-only"
            onChange={(e) => e.target.files?.[0] !== undefined && void send(e.target.files[0])}
          />
        </label>
        {share !== null && <progress value={share} className="w-full" aria-label="Sending the map" />}
        {fault !== null && (
          <p role="alert" className="m-0 text-short-figure">
            {fault}
          </p>
        )}
        <p className="cap m-0">
          This machine fetches the tiles and hands them on; only pictures pass. Mind the terms of whoever offers the map.
        </p>
      </div>
    </details>
  );
};
