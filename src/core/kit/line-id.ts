/* A name of the form of a UUID out of a text: the same text the same name, everywhere. */

/** 32-bit FNV-1a from a start of its own, with a last mixing. */
const hash = (text: string, start: number): number => {
  let h = start;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  h ^= h >>> 16;
  h = Math.imul(h, 0x85ebca6b);
  h ^= h >>> 13;
  h = Math.imul(h, 0xc2b2ae35);
  return (h ^ (h >>> 16)) >>> 0;
};

/** The record under which a line of a job's kit is picked: two people who pick the same line mean the same record. */
export const lineId = (jobId: string, key: string): string => {
  const text = `${jobId}|${key}`;
  const hex = [0x811c9dc5, 0x1b873593, 0xcc9e2d51, 0x9e3779b9].map((s) => hash(text, s).toString(16).padStart(8, "0")).join("");
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-a${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
};
