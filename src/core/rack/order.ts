/* The order of candidates: a total one. What serves first, then price, then the least excess, then what is to spare. */
import { SERVES_PROBABILITY } from "../link";
import type { Candidate } from "./types";

/** Whether the need is kept in nine cases of ten: as drawn, else by the quick sum. */
export const serves = (c: Candidate): boolean =>
  c.option !== null && (c.drawn !== null ? c.drawn.serves >= SERVES_PROBABILITY : c.option.sureMultiple >= 1);

/** The multiple that is kept in nine cases of ten. */
export const keptMultipleOf = (c: Candidate): number => (c.option === null ? 0 : (c.drawn?.p10 ?? c.option.sureMultiple));

/** 0 serves over a path that its policy lets through, 1 serves over one that it does not, 2 does not serve. */
const tierOf = (c: Candidate): number => (!serves(c) ? 2 : c.clearance?.verdict === "short" ? 1 : 0);

/** How likely one that does not serve keeps the need all the same: as drawn, else by what is kept as expected. */
const chanceOf = (c: Candidate): number => c.drawn?.serves ?? Math.min(1, c.option?.multiple ?? 0);

const unknownLast = (value: number | null): number => value ?? Number.POSITIVE_INFINITY;

const byNumber = (a: number, b: number): number => (a === b ? 0 : a < b ? -1 : 1);

/** @param turned the path is looked at from its other end: ids are then compared the other way round, so that a mirrored link has the mirrored order. */
export const orderOf =
  (turned: boolean) =>
  (a: Candidate, b: Candidate): number => {
    const tier = byNumber(tierOf(a), tierOf(b));
    if (tier !== 0) return tier;
    const id = (c: Candidate): string =>
      turned ? `${c.pair.far.key}|${c.pair.near.key}@${c.widthMhz}` : `${c.pair.near.key}|${c.pair.far.key}@${c.widthMhz}`;
    return (
      (serves(a) ? 0 : byNumber(chanceOf(b), chanceOf(a))) ||
      byNumber(unknownLast(a.priceEur), unknownLast(b.priceEur)) ||
      byNumber(a.excessDb, b.excessDb) ||
      byNumber(unknownLast(a.faceCm), unknownLast(b.faceCm)) ||
      byNumber(a.widthMhz, b.widthMhz) ||
      byNumber(keptMultipleOf(b), keptMultipleOf(a)) ||
      (id(a) < id(b) ? -1 : id(a) > id(b) ? 1 : 0)
    );
  };
