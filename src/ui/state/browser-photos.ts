"use client";
import { openDB } from "idb";
import { useEffect, useSyncExternalStore } from "react";
import { recordPath } from "@/contract";
import { postBytes } from "../api/client";
import { useRefresh } from "../api/queries";
import { outboxState, sendEdit } from "./browser-outbox";
import { laterOrOnline } from "./later";
import { isOwn } from "./person";
import { createPhotoQueue, type PhotoSchema, type QueuedPhoto } from "./photo-queue";

const sentListeners = new Set<(photo: QueuedPhoto) => void>();
let opened: ReturnType<typeof openDB<PhotoSchema>> | null = null;

/** Sends one photo. @returns its version there. */
export const postPhoto = async (photo: Pick<QueuedPhoto, "id" | "jobId" | "about" | "picture" | "person">): Promise<number> => {
  const query = new URLSearchParams({ about: JSON.stringify(photo.about), id: photo.id });
  return (await postBytes<{ version: number }>(`/api/jobs/${photo.jobId}/photos?${query}`, photo.picture, photo.person)).version;
};

const tellSent = (photo: QueuedPhoto): void => {
  for (const l of sentListeners) l(photo);
};

/** A site that is itself not made yet, or something else of it on its way, goes first. */
const siteIsThere = (photo: QueuedPhoto): boolean => {
  if (!isOwn(photo)) return false;
  const { siteId } = photo.about;
  if (siteId === null) return true;
  const sites = `/api/jobs/${photo.jobId}/sites`;
  return !outboxState().edits.some((e) => e.path === sites && (e.body as { id?: string } | undefined)?.id === siteId);
};

export const photoQueue = createPhotoQueue({
  open: () => {
    opened ??= openDB<PhotoSchema>("dry-arc", 1, {
      upgrade: (db) => {
        db.createObjectStore("photo", { keyPath: "id" });
      },
    });
    opened.catch(() => {
      opened = null;
    });
    return opened;
  },
  post: postPhoto,
  amend: (photo, patch) => {
    sendEdit(photo.jobId, "PATCH", recordPath(photo.jobId, "photo", photo.id), patch)
      .catch(() => undefined)
      .finally(() => tellSent(photo));
  },
  mayGo: siteIsThere,
  alone: async (work) => {
    if (!("locks" in navigator)) return work();
    await navigator.locks.request("dry-arc.photos", work);
  },
  later: laterOrOnline,
  sent: tellSent,
});

const NONE: readonly QueuedPhoto[] = [];

/** Photos of a job that wait in this browser; those that wait begin to go when a page asks. */
export const useQueuedPhotos = (jobId: string): readonly QueuedPhoto[] => {
  const refresh = useRefresh();
  const all = useSyncExternalStore(photoQueue.subscribe, photoQueue.photos, () => NONE);
  useEffect(() => {
    const listen = (photo: QueuedPhoto): void => {
      if (photo.jobId === jobId) void refresh(jobId);
    };
    sentListeners.add(listen);
    photoQueue.send().catch(() => undefined);
    return () => {
      sentListeners.delete(listen);
    };
  }, [jobId, refresh]);
  return all.filter((p) => p.jobId === jobId);
};

/** Whether a record of this job has something in this browser that the server does not have: an edit or a draft. */
export const siteIsUnsent = (jobId: string, siteId: string): boolean => {
  const path = recordPath(jobId, "site", siteId);
  return outboxState().edits.some((e) => e.path === path || (e.body as { id?: string } | undefined)?.id === siteId);
};
