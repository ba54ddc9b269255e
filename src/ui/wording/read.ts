import { minutesOf } from "@/core/days";
import { readNumber } from "./numbers";

/* What is typed, read: its value, or why there is none. */

export type Read<T> = { readonly value: T } | { readonly fault: string };
export type Reader<T> = (text: string) => Read<T>;

/** A name that may not be empty. */
export const readName: Reader<string> = (text) => (text.trim() === "" ? { fault: "A name is needed." } : { value: text.trim() });

/** A clock time within a day, with its hour in two digits. */
export const readClock: Reader<string> = (text) =>
  minutesOf(text.trim()) === null ? { fault: "Write it as 09:30." } : { value: text.trim().padStart(5, "0") };

/** A clock time after another, or before one. */
export const readClockWithin = (text: string, after: string | null, before: string | null): Read<string> => {
  const read = readClock(text);
  if ("fault" in read) return read;
  const at = minutesOf(read.value)!;
  if (after !== null && at <= (minutesOf(after) ?? 0)) return { fault: `It must be after ${after}.` };
  return before !== null && at >= (minutesOf(before) ?? 1440) ? { fault: `It must be before ${before}.` } : read;
};

/** Names with commas between. */
export const readNames: Reader<readonly string[]> = (text) => ({
  value: text
    .split(",")
    .map((n) => n.trim())
    .filter((n) => n !== ""),
});

const wordsOf = (text: string): readonly string[] => text.split(/[\s;]+/).filter((t) => t !== "");

/** Sizes with spaces between, each above nought. */
export const readSizes =
  (most: number): Reader<readonly number[]> =>
  (text) => {
    const sizes: number[] = [];
    for (const word of wordsOf(text)) {
      const size = readNumber(word);
      if (size === null) return { fault: `"${word}" is not a number.` };
      if (size <= 0 || size > most) return { fault: `${word} must be above 0 and at most ${most}.` };
      sizes.push(size);
    }
    return { value: sizes };
  };

/** So many figures with spaces between, each within its bounds; null for none at all. */
export const readFigures =
  (count: number, most: number): Reader<readonly number[] | null> =>
  (text) => {
    const words = wordsOf(text);
    if (words.length === 0) return { value: null };
    const figures = words.map(readNumber);
    const wrong = figures.findIndex((n) => n === null || n < 0 || n > most);
    if (wrong >= 0) return { fault: `"${words[wrong]}" must be a number from 0 to ${most}.` };
    return words.length === count
      ? { value: figures as number[] }
      : { fault: `${words.length === 1 ? "One figure is" : `${words.length} figures are`} typed, ${count} are asked.` };
  };

const isAddress = (t: string): boolean =>
  /^(\d{1,3}\.){3}\d{1,3}$/.test(t) && t.split(".").every((p) => Number(p) <= 255 && String(Number(p)) === p);

/** An IPv4 address, or null for none. */
export const readAddress =
  (example: string): Reader<string | null> =>
  (text) => {
    const t = text.trim();
    if (t === "") return { value: null };
    return isAddress(t) ? { value: t } : { fault: `Write it as ${example}.` };
  };

/** An IPv4 network with its bits. */
export const readSubnet: Reader<string> = (text) => {
  const t = text.trim();
  const [address, bits] = t.split("/");
  return isAddress(address ?? "") && /^\d{1,2}$/.test(bits ?? "") && Number(bits) <= 32
    ? { value: t }
    : { fault: "Write it as 192.168.41.0/24." };
};
