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
  const server = {
    answer: (_id: string): unknown => undefined,
    got: [] as string[],
    held: new Set<string>(),
    amended: [] as object[],
  };
  let retry: (() => void) | null = null;
  let turn: Promise<unknown> = Promise.resolve();
  const db = open(name);
  const queue = createPhotoQueue({
    open: () => db,
    post: async (p) => {
      await server.answer(p.id);
      server.got.push(p.id);
      return 1;
    },
    amend: (p, patch) => {
      server.amended.push({ id: p.id, ...patch });
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

test("what is said of a photo while it is on its way reaches the server; one taken away meanwhile is taken away there", async () => {
  const { queue, server, settled } = rig();
  server.answer = offline;
  await queue.add(photo("a", 1));
  await queue.add(photo("b", 2));
  await queue.add(photo("c", 3));
  await settled();
  server.answer = async (id) => {
    if (id === "a") await queue.tell("a", { note: "the bracket", bearingDeg: 80 });
    if (id === "b") await queue.drop("b");
  };
  expect(await settled()).toEqual([]);
  expect(server.got).toEqual(["a", "b", "c"]);
  expect(server.amended).toEqual([
    { id: "a", version: 1, note: "the bracket", bearingDeg: 80 },
    { id: "b", version: 1, deleted: true },
  ]);
});

test("one that was refused for a while goes when it is tried again", async () => {
  const { queue, server, settled } = rig();
  server.answer = () => {
    throw new ApiError(507, { code: "disk-full" });
  };
  await queue.add(photo("a", 1));
  expect(await settled()).toEqual(["a"]);
  server.answer = () => undefined;
  expect(await settled()).toEqual(["a"]);
  await queue.retry("a");
  expect(queue.photos()).toEqual([]);
  expect(server.got).toEqual(["a"]);
});

test("who looks at the queue is told of a change, and not of a look that found none", async () => {
  const { queue, server, settled } = rig();
  server.answer = offline;
  let told = 0;
  queue.subscribe(() => {
    told++;
    // As a page does: whenever it is told it looks again.
    void queue.send();
  });
  await queue.add(photo("a", 1));
  await settled();
  await settled();
  expect(told).toBe(1);
  server.answer = () => undefined;
  await settled();
  expect(told).toBe(2);
});
