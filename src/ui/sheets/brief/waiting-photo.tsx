"use client";
import { useEffect, useState } from "react";
import { photoQueue } from "../../state/browser-photos";
import type { QueuedPhoto } from "../../state/photo-queue";
import { errorSentence } from "../../wording/errors";

/** A photo that is kept in this browser and not on the server yet. */
export const WaitingPhoto = ({ photo, siteName }: { photo: QueuedPhoto; siteName: string }) => {
  const [address, setAddress] = useState<string | null>(null);
  useEffect(() => {
    const made = URL.createObjectURL(photo.picture);
    setAddress(made);
    return () => URL.revokeObjectURL(made);
  }, [photo.picture]);
  return (
    <li className="w-[190px]" data-testid="waiting-photo">
      {address !== null && (
        // biome-ignore lint/performance/noImgElement: it lies in this browser
        <img
          src={address}
          alt={photo.about.note === "" ? `Photo from ${photo.about.fromWhere}, not sent yet` : photo.about.note}
          className="h-[130px] w-full border border-dashed border-ink object-cover"
        />
      )}
      <span className="cap block">
        {siteName}, from {photo.about.fromWhere}
      </span>
      {photo.refused === null ? (
        <span role="status" className="block text-line">
          Kept on this device, not sent yet
        </span>
      ) : (
        <span role="alert" className="block text-line text-short-figure">
          {errorSentence(photo.refused)}{" "}
          <button type="button" className="press text-line text-ink" onClick={() => void photoQueue.retry(photo.id)}>
            Send again
          </button>
        </span>
      )}
      <label className="field">
        <span>What it shows</span>
        <input
          defaultValue={photo.about.note}
          maxLength={500}
          onBlur={(e) => e.target.value !== photo.about.note && void photoQueue.tell(photo.id, { note: e.target.value })}
        />
      </label>
      <button type="button" className="press mt-1" onClick={() => void photoQueue.drop(photo.id)}>
        Take away
      </button>
    </li>
  );
};
