"use client";
import { useEffect, useRef, useState } from "react";
import type { ImportDto, ImportOptions, PreviewDto } from "@/contract";
import { bodyOf, postJson } from "../../api/client";
import { useHeldUp, useImports, useRefresh, useRoom } from "../../api/queries";
import { uploadFile } from "../../api/upload";
import { sendEdit } from "../../state/browser-outbox";
import { errorSentence } from "../../wording/errors";
import { figure, type Units } from "../../wording/numbers";
import { type Columns, Rows } from "./import-parts";
import { PlacesQuestions } from "./places-questions";
import { TerrainQuestions } from "./terrain-questions";

type Stage =
  | { readonly kind: "none" }
  | { readonly kind: "sending"; readonly name: string; readonly share: number }
  | {
      readonly kind: "asked";
      readonly name: string;
      readonly uploadId: string;
      readonly preview: PreviewDto;
      readonly epsg: number | null;
      readonly columns: Columns;
    };

const STATE_WORD: Readonly<Record<ImportDto["state"], string>> = {
  waiting: "waiting its turn",
  running: "being taken in",
  done: "taken in",
  failed: "refused",
  stopped: "stopped",
  removed: "taken away again",
};

/** Files on their way in: sent, looked into, asked about, taken in by the queue, and undone as a whole. */
export const ImportPanel = ({
  jobId,
  units,
  surveyedOn,
  onPreview,
  dropped,
}: {
  jobId: string;
  units: Units;
  surveyedOn: string;
  onPreview: (preview: PreviewDto | null) => void;
  /** A file dropped on the drawing, and how to say that it was taken. */
  dropped: { readonly file: File | null; readonly clear: () => void };
}) => {
  const [stage, setStage] = useState<Stage>({ kind: "none" });
  const [fault, setFault] = useState<string | null>(null);
  const abort = useRef<AbortController | null>(null);
  const refresh = useRefresh();
  const say = (error: unknown): void => {
    const body = bodyOf(error);
    setFault(body.code === "stopped" ? null : errorSentence(body, units));
  };

  const look = async (name: string, uploadId: string, epsg: number | null, columns: Columns): Promise<void> => {
    const preview = await postJson<PreviewDto>(`/api/jobs/${jobId}/uploads/${uploadId}/preview`, { epsg, ...columns });
    onPreview(preview);
    setStage({ kind: "asked", name, uploadId, preview, epsg, columns });
  };
  /** A .prj beside a grid says which system it is in. */
  const systemOf = async (beside: File | undefined): Promise<number | null> => {
    if (beside === undefined) return null;
    return (await postJson<{ epsg: number | null }>("/api/systems", { wkt: await beside.text() })).epsg;
  };
  const send = async (file: File, beside?: File): Promise<void> => {
    setFault(null);
    onPreview(null);
    abort.current = new AbortController();
    setStage({ kind: "sending", name: file.name, share: 0 });
    try {
      const uploadId = await uploadFile(
        jobId,
        file,
        (share) => setStage({ kind: "sending", name: file.name, share }),
        abort.current.signal,
      );
      await look(file.name, uploadId, await systemOf(beside), {});
    } catch (error) {
      setStage({ kind: "none" });
      say(error);
    }
  };
  const sendNow = useRef(send);
  sendNow.current = send;
  const { file: droppedFile, clear: clearDropped } = dropped;
  useEffect(() => {
    if (droppedFile === null) return;
    clearDropped();
    void sendNow.current(droppedFile);
  }, [droppedFile, clearDropped]);
  const begin = async (options: ImportOptions): Promise<void> => {
    if (stage.kind !== "asked") return;
    setFault(null);
    try {
      await sendEdit(jobId, "POST", `/api/jobs/${jobId}/imports`, { uploadId: stage.uploadId, options });
      setStage({ kind: "none" });
      onPreview(null);
      await refresh(jobId);
    } catch (error) {
      say(error);
    }
  };
  const again = (epsg: number | null, columns: Columns): void => {
    if (stage.kind !== "asked") return;
    setFault(null);
    look(stage.name, stage.uploadId, epsg, columns).catch(say);
  };
  const leave = (): void => {
    abort.current?.abort();
    setStage({ kind: "none" });
    onPreview(null);
  };

  return (
    <div className="grid gap-3">
      {stage.kind === "none" && (
        <label className="block cursor-pointer border-[1.6px] border-dashed border-ink px-3 py-4 text-center focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-ink">
          <b>Choose a file</b>, or drop it on the drawing
          <input
            type="file"
            multiple
            className="sr-only"
            data-testid="import-file"
            onChange={(e) => {
              const files = [...(e.target.files ?? [])];
              e.target.value = "";
              const prj = files.find((f) => /\.prj$/i.test(f.name));
              const others = files.filter((f) => f !== prj);
              if (others.length > 1) setFault("Bring files in one by one; only a .prj may come along with its grid.");
              else if (others[0] !== undefined) void send(others[0], prj);
            }}
          />
          <span className="cap block pt-1">
            Terrain: GeoTIFF, SRTM HGT, ASCII grid (with its .prj, or zipped). Places: GeoJSON, KML, KMZ, GPX, CSV.
          </span>
        </label>
      )}
      {stage.kind === "sending" && (
        <div className="grid gap-1.5">
          <span className="truncate">{stage.name}</span>
          <progress value={stage.share} className="w-full" aria-label={`Sending ${stage.name}`} />
          <button type="button" className="press justify-self-start" onClick={leave}>
            Stop
          </button>
        </div>
      )}
      {stage.kind === "asked" && (
        <>
          <h2 className="m-0 truncate text-press font-bold">{stage.name}</h2>
          {stage.preview.kind === "terrain" ? (
            <TerrainQuestions
              key={`${stage.uploadId}${stage.epsg}`}
              name={stage.name}
              preview={stage.preview}
              units={units}
              onSystem={(epsg) => again(epsg, stage.columns)}
              onBegin={begin}
              onLeave={leave}
            />
          ) : (
            <PlacesQuestions
              key={stage.uploadId}
              preview={stage.preview}
              units={units}
              surveyedOn={surveyedOn}
              epsg={stage.epsg}
              columns={stage.columns}
              onAgain={again}
              onBegin={begin}
              onLeave={leave}
            />
          )}
        </>
      )}
      {fault !== null && (
        <p role="alert" className="m-0 text-short-figure">
          {fault}
        </p>
      )}
      <Room jobId={jobId} />
      <ImportList jobId={jobId} onFault={setFault} />
    </div>
  );
};

/** How much of the room for files on their way is taken; nothing is said while none is. */
const Room = ({ jobId }: { jobId: string }) => {
  const room = useRoom(jobId).data;
  if (room === undefined || room.allBytes === 0) return null;
  const gb = (bytes: number): string => figure(bytes / 1e9, 1);
  return (
    <p className="cap m-0">
      Files on their way and maps beneath take {gb(room.jobBytes)} of {gb(room.mostJobBytes)} GB for this job, {gb(room.allBytes)} of{" "}
      {gb(room.mostAllBytes)} GB in all.
    </p>
  );
};

const ImportList = ({ jobId, onFault }: { jobId: string; onFault: (fault: string | null) => void }) => {
  const imports = useImports(jobId);
  const refresh = useRefresh();
  const act = async (id: string, action: "stop" | "remove" | "restore"): Promise<void> => {
    onFault(null);
    try {
      await sendEdit(jobId, "POST", `/api/jobs/${jobId}/imports/${id}`, { action });
    } catch (error) {
      onFault(errorSentence(bodyOf(error)));
    }
    await refresh(jobId);
  };
  const held = useHeldUp(imports.data?.some((i) => i.state === "waiting" || i.state === "running") === true);
  if ((imports.data ?? []).length === 0) return null;
  return (
    <section aria-label="Files taken in" className="border-t border-ink pt-2">
      <h2 className="m-0 text-press font-bold">Files taken in</h2>
      <ul className="m-0 list-none p-0" data-testid="imports">
        {imports.data?.map((i) => (
          <li key={i.id} className="border-b border-rule py-1.5">
            <span className="flex justify-between gap-2">
              <span className="truncate font-figure">{i.fileName}</span>
              <span className={i.state === "failed" ? "flex-none text-short-figure" : "flex-none"}>
                {i.state === "waiting" || i.state === "running" ? (held ?? STATE_WORD[i.state]) : STATE_WORD[i.state]}
              </span>
            </span>
            {i.state === "running" && (
              <progress value={i.doneShare} className="w-full" aria-label={`${i.fileName}: ${figure(i.doneShare * 100)} per cent`} />
            )}
            {i.fault !== null && <span className="block text-line text-short-figure">{i.fault}.</span>}
            {i.result !== null && i.state !== "failed" && (
              <span className="block text-line">
                {i.what === "terrain" ? `${figure(i.result.kept / 1e6, 1)} million heights` : `${figure(i.result.kept)} ${i.what} kept`}
                {i.result.refused > 0 ? `, ${figure(i.result.refused)} refused` : ""}
              </span>
            )}
            {(i.result?.faults.length ?? 0) > 0 && (
              <details className="text-line">
                <summary className="cursor-pointer">
                  {(i.result?.refused ?? 0) > (i.result?.faults.length ?? 0)
                    ? `The first ${i.result?.faults.length} refused rows and why`
                    : "Refused rows and why"}
                </summary>
                <Rows rows={i.result?.faults ?? []} />
              </details>
            )}
            {(i.result?.notes?.length ?? 0) > 0 && (
              <details className="text-line">
                <summary className="cursor-pointer">Taken otherwise than it stood there</summary>
                <Rows rows={i.result?.notes ?? []} />
              </details>
            )}
            <span className="flex gap-4 pt-0.5">
              {(i.state === "waiting" || i.state === "running") && (
                <button type="button" className="press" onClick={() => void act(i.id, "stop")}>
                  Stop
                </button>
              )}
              {i.state === "done" && (
                <button type="button" className="press" onClick={() => void act(i.id, "remove")}>
                  Take it all away
                </button>
              )}
              {i.state === "removed" && (
                <button type="button" className="press" onClick={() => void act(i.id, "restore")}>
                  Bring it back
                </button>
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
};
