"use client";
import { useEffect, useState, useSyncExternalStore } from "react";
import { keepFile } from "../api/keep-file";
import { FormTrouble, useSubmit } from "../controls/use-submit";
import { useOutbox } from "../state/browser-outbox";
import { photoQueue } from "../state/browser-photos";
import { roofLog, useLogged } from "../state/browser-roof";
import { isOwn } from "../state/person";
import type { QueuedPhoto } from "../state/photo-queue";
import { editOfLogged } from "../state/roof-log";
import { packUnsent } from "../state/unsent-file";
import { unsentWords } from "../wording/unsent";

const NONE: readonly QueuedPhoto[] = [];

/**
 * What waits in this browser, to be taken out as a file: it can go by any way there is. It stays here as well; made twice it is one.
 * @param whose what is offered: of who is signed in, or all that lies here.
 */
export const TakeOutUnsent = ({ whose = "own" }: { whose?: "own" | "anybody" }) => {
  const { edits } = useOutbox();
  const photos = useSyncExternalStore(photoQueue.subscribe, photoQueue.photos, () => NONE);
  const [taken, setTaken] = useState("");
  const taking = useSubmit();
  // At the door nothing sends, and so nothing has read the photos yet.
  useEffect(() => {
    photoQueue.look().catch(() => undefined);
    roofLog.look().catch(() => undefined);
  }, []);
  const given = <T extends { readonly person?: string | null }>(all: readonly T[]): readonly T[] =>
    whose === "anybody" ? all : all.filter(isOwn);
  const written = given(useLogged().filter((l) => !l.sent)).map(editOfLogged);
  const [ownEdits, ownPhotos] = [[...given(edits), ...written], given(photos)];
  if (ownEdits.length + ownPhotos.length === 0) return null;
  const take = (): void =>
    void taking.run(async () => {
      const at = new Date().toISOString();
      const packed = await packUnsent(ownEdits, ownPhotos, at);
      keepFile(packed.file, `dry-arc-unsent-${at.slice(0, 16).replace(/[T:]/g, "-")}.zip`);
      setTaken(`Taken out: ${unsentWords(packed.edits, packed.photos)}. They stay here as well, until they are sent.`);
    });
  return (
    <section aria-label="Not sent yet" className="mt-6 border-t border-ink pt-3">
      <p className="m-0">
        <b>{unsentWords(ownEdits.length, ownPhotos.length)}</b> {ownEdits.length + ownPhotos.length === 1 ? "waits" : "wait"} on this device
        to be sent. They are sent by themselves; where that cannot be, take them out as a file and bring it in at the register of jobs on
        another one.
      </p>
      <FormTrouble of={taking} />
      <p role="status" className="m-0">
        {taken}
      </p>
      <button type="button" className="press min-h-12" disabled={taking.busy} onClick={take}>
        Take them out as a file
      </button>
    </section>
  );
};
