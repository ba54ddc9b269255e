"use client";
import { useState } from "react";
import type { PhotoDto, PhotoFields, SiteDto } from "@/contract";
import { ApiError, bodyOf } from "../../api/client";
import { useRefresh } from "../../api/queries";
import { sendEdit } from "../../state/browser-outbox";
import { photoQueue, postPhoto, useQueuedPhotos } from "../../state/browser-photos";
import { personNow } from "../../state/person";
import { errorSentence } from "../../wording/errors";
import { readNumber } from "../../wording/numbers";
import { WaitingPhoto } from "./waiting-photo";

const MOST_SIDE_PX = 1600;
const QUALITY = 0.82;

/** A picture made small enough to keep: at most 1600 pixels a side, and nothing of where or by whom it was taken. */
const shrink = async (file: File): Promise<Blob> => {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, MOST_SIDE_PX / Math.max(picture.width, picture.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(picture.width * scale);
  canvas.height = Math.round(picture.height * scale);
  canvas.getContext("2d")?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return new Promise((resolve, reject) => {
    canvas.toBlob((blob) => (blob === null ? reject(new Error("no picture")) : resolve(blob)), "image/jpeg", QUALITY);
  });
};

const FROM: readonly PhotoFields["fromWhere"][] = ["antenna height", "ground", "inside", "other"];

/** Photos with where each was taken from and which way it looks; added by file or by the phone's camera. */
export const PhotoStrip = ({
  jobId,
  photos,
  sites,
  siteId,
}: {
  jobId: string;
  photos: readonly PhotoDto[];
  sites: readonly SiteDto[];
  siteId: string | null;
}) => {
  const refresh = useRefresh();
  const waiting = useQueuedPhotos(jobId).filter((p) => siteId === null || p.about.siteId === siteId);
  const [fault, setFault] = useState<string | null>(null);
  const [from, setFrom] = useState<PhotoFields["fromWhere"]>("antenna height");
  const [busy, setBusy] = useState(false);
  const say = (error: unknown): void => setFault(errorSentence(bodyOf(error)));
  const add = async (file: File): Promise<void> => {
    setFault(null);
    setBusy(true);
    try {
      const about: PhotoFields = { siteId, fromWhere: from, bearingDeg: null, takenOn: new Date().toISOString().slice(0, 10), note: "" };
      const picture = await shrink(file).catch(() => {
        throw new ApiError(422, { code: "not-a-photo" });
      });
      const photo = { id: crypto.randomUUID(), jobId, about, picture, takenAtMs: Date.now(), person: personNow() };
      // A browser that keeps nothing (a private window, a full one) sends it at once.
      await photoQueue.add(photo).catch(async () => {
        await postPhoto(photo);
        await refresh(jobId);
      });
    } catch (error) {
      say(error);
    }
    setBusy(false);
  };
  const set = async (photo: PhotoDto, fields: Partial<PhotoFields> & { deleted?: boolean }): Promise<void> => {
    setFault(null);
    try {
      await sendEdit(jobId, "PATCH", `/api/jobs/${jobId}/photos/${photo.id}`, { version: photo.version, ...fields });
    } catch (error) {
      say(error);
    }
    await refresh(jobId);
  };
  return (
    <section aria-label="Photos">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2 pb-2">
        <label className="field">
          <span>Taken from</span>
          <select value={from} onChange={(e) => setFrom(e.target.value as typeof from)}>
            {FROM.map((f) => (
              <option key={f}>{f}</option>
            ))}
          </select>
        </label>
        <label className="main-action cursor-pointer focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-ink">
          {busy ? "Keeping it" : "Add a photo"}
          <input
            type="file"
            accept="image/*"
            className="sr-only"
            data-testid="photo-file"
            disabled={busy}
            onChange={(e) => {
              const file = e.target.files?.[0];
              e.target.value = "";
              if (file !== undefined) void add(file);
            }}
          />
        </label>
        {fault !== null && (
          <span role="alert" className="text-short-figure">
            {fault}
          </span>
        )}
      </div>
      <ul className="m-0 flex list-none flex-wrap gap-4 p-0" data-testid="photos">
        {photos.map((p) => (
          <li key={p.id} className="w-[190px]">
            {/* biome-ignore lint/performance/noImgElement: it comes from the own database, at its own size */}
            <img
              src={`/api/jobs/${jobId}/photos/${p.id}/file`}
              alt={p.note === "" ? `Photo from ${p.fromWhere}` : p.note}
              className="h-[130px] w-full border border-ink object-cover"
            />
            <span className="cap block">
              {sites.find((s) => s.id === p.siteId)?.name ?? "the job"}, from {p.fromWhere}
              {p.takenOn === null ? "" : `, ${p.takenOn}`}
            </span>
            <div className="grid grid-cols-[64px_1fr] gap-x-2">
              <label className="field">
                <span>Bearing, °</span>
                <input
                  inputMode="decimal"
                  defaultValue={p.bearingDeg ?? ""}
                  onBlur={(e) => {
                    const bearing = readNumber(e.target.value);
                    if (bearing === null && e.target.value.trim() !== "") setFault(`"${e.target.value}" is no bearing.`);
                    else if (bearing !== p.bearingDeg) void set(p, { bearingDeg: bearing });
                  }}
                />
              </label>
              <label className="field">
                <span>What it shows</span>
                <input
                  defaultValue={p.note}
                  maxLength={500}
                  onBlur={(e) => e.target.value !== p.note && void set(p, { note: e.target.value })}
                />
              </label>
            </div>
            <button type="button" className="press mt-1" onClick={() => void set(p, { deleted: true })}>
              Take away
            </button>
          </li>
        ))}
        {waiting.map((p) => (
          <WaitingPhoto key={p.id} photo={p} siteName={sites.find((s) => s.id === p.about.siteId)?.name ?? "the job"} />
        ))}
      </ul>
    </section>
  );
};
