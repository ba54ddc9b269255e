/* Photos taken without coverage: kept in the browser's database, sent once each, none lost. The database is a real IndexedDB in memory. */
import "fake-indexeddb/auto";
import { type IDBPDatabase, openDB } from "idb";
import { expect, test } from "vitest";
import { ApiError } from "../api/client";
import { createPhotoQueue, type PhotoSchema, type QueuedPhoto } from "./photo-queue";

let databases = 0;
const open = (name: string): Promise<IDBPDatabase<PhotoSchema>> =>
  openDB<PhotoSchema>(name, 1, { upgrade: (db) => void db.createObjectStore("photo", { keyPath: "id" }) });

const photo = (id: string, takenAtMs: number, siteId: string | null = null): Omit<QueuedPhoto, "refused"> => ({
  id,
  jobId: "job",
  about: { siteId, fromWhere: "ground", bearingDeg: null, takenOn: null, note: "" },
  picture: new Blob([id]),
  takenAtMs,
});

/** A queue over a server that answers as told. */
const rig = (name = `photos-${++databases}`) => {
  const server = { answer: (_id: string): void => undefined, got: [] as string[], held: new Set<string>() };
  let retry: (() => void) | null = null;
  let turn: Promise<unknown> = Promise.resolve();
  const db = open(name);
  const queue = createPhotoQueue({
    open: () => db,
    post: async (p) => {
      server.answer(p.id);
      server.got.push(p.id);
    },
    mayGo: (p) => p.about.siteId === null || !server.held.has(p.about.siteId),
    alone: (work) => {
      const mine = turn.then(work);
      turn = mine.catch(() => undefined);
      return mine;
    },
    later: (_ms, work) => {
      retry = work;
    },
    sent: () => undefined,
  });
  return {
    name,
    queue,
    server,
    /** Waits until all that was begun is over. */
    settled: async () => {
      await queue.send();
      return queue.photos().map((p) => p.id);
    },
    retries: () => retry !== null,
  };
};
const offline = (): never => {
  throw new ApiError(0, { code: "offline" });
};

test("without coverage nothing is lost, and all go in the order they were taken when it is back", async () => {
  const { queue, server, settled, retries } = rig();
  server.answer = offline;
  await queue.add(photo("b", 2));
  await queue.add(photo("a", 1));
  expect(await settled()).toEqual(["a", "b"]);
  expect(server.got).toEqual([]);
  expect(retries()).toBe(true);
  server.answer = () => undefined;
  expect(await settled()).toEqual([]);
  expect(server.got).toEqual(["a", "b"]);
});

test("they outlive the window that took them", async () => {
  const first = rig();
  first.server.answer = offline;
  await first.queue.add(photo("a", 1));
  await first.queue.tell("a", { note: "the bracket" });
  const second = rig(first.name);
  second.server.answer = offline;
  expect(await second.settled()).toEqual(["a"]);
  expect(second.queue.photos()[0]!.about.note).toBe("the bracket");
});

test("one that the server will never take stays with its reason, and does not hold up the others", async () => {
  const { queue, server, settled } = rig();
  server.answer = (id) => {
    if (id === "a") throw new ApiError(422, { code: "not-a-photo" });
  };
  await queue.add(photo("a", 1));
  await queue.add(photo("b", 2));
  expect(await settled()).toEqual(["a"]);
  expect(server.got).toEqual(["b"]);
  expect(queue.photos()[0]!.refused).toEqual({ code: "not-a-photo" });
  await queue.drop("a");
  expect(queue.photos()).toEqual([]);
});

test("a photo of a site that is itself on its way waits for it; others go", async () => {
  const { queue, server, settled, retries } = rig();
  server.held.add("new site");
  await queue.add(photo("a", 1, "new site"));
  await queue.add(photo("b", 2));
  expect(await settled()).toEqual(["a"]);
  expect(retries()).toBe(true);
  server.held.clear();
  expect(await settled()).toEqual([]);
  expect(server.got).toEqual(["b", "a"]);
});

test("asked to send twice at once, each goes once", async () => {
  const { queue, server } = rig();
  await queue.add(photo("a", 1));
  await Promise.all([queue.send(), queue.send(), queue.send()]);
  expect(server.got).toEqual(["a"]);
});
