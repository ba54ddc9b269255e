"use client";
import { postJson } from "../api/client";
import { endKeeping } from "./keeping";

/* A phone that was ended forgets what it keeps: pages, data, photos that wait, edits, drafts. One whose time is over keeps what waits. */

/** Scripts and letters are the same for everybody. */
const CODE = "dry-arc.code";

/** Databases of this origin, by name; a browser that names none is asked for those that are known. */
const databases = async (): Promise<string[]> => {
  const known = ["dry-arc", "dry-arc-roof"];
  if (!("databases" in indexedDB)) return known;
  const all = await indexedDB.databases();
  return [...new Set([...known, ...all.flatMap((d) => (d.name === undefined ? [] : [d.name]))])];
};

const drop = (name: string): Promise<void> =>
  new Promise((done) => {
    const request = indexedDB.deleteDatabase(name);
    request.onsuccess = () => done();
    request.onerror = () => done();
    // Another window holds it: it goes when that one closes.
    request.onblocked = () => done();
  });

/** Takes what was kept for a place without coverage out of this browser: whoever signs in next has their own. What waits to be sent stays. */
export const forgetPages = async (): Promise<void> => {
  if (!("caches" in window)) return;
  for (const name of await caches.keys()) if (name !== CODE) await caches.delete(name);
};

/** Forgets what is kept of the server, and says so; what waits here to be sent stays for who made it. */
export const forgetCopies = async (): Promise<void> => {
  await forgetPages();
  await postJson("/api/sign-out", {}).catch(() => undefined);
};

const STEP_MS = 2000;
/** A step that another window or the worker holds up goes on by itself: the rest is not kept waiting. */
const inTime = (step: Promise<unknown>): Promise<unknown> =>
  Promise.race([step.catch(() => undefined), new Promise((go) => setTimeout(go, STEP_MS))]);

/** Forgets all that this browser keeps of this server, then says so to it. */
export const forgetAll = async (): Promise<void> => {
  const all = async <T>(named: Promise<readonly T[]>, forget: (one: T) => Promise<unknown>): Promise<void> => {
    await Promise.all((await named).map((one) => inTime(forget(one))));
  };
  // First who puts things by: what it puts by later would stay.
  await inTime(endKeeping());
  await inTime(
    all(navigator.serviceWorker.getRegistrations(), (r) => {
      r.active?.postMessage({ forget: true });
      return r.unregister();
    }),
  );
  await inTime(all(databases(), drop));
  await inTime(all(caches.keys(), (name) => caches.delete(name)));
  // Last: until the page goes it may still write down where it was.
  localStorage.clear();
  sessionStorage.clear();
  await postJson("/api/sign-out", {}).catch(() => undefined);
};
