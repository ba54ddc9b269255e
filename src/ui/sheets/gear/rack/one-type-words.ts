import { countText, euroText, pairName } from "../../../wording/gear";
import type { JobType } from "./one-type-search";

/** What was found of one type for all links, and whether it holds under what it may cost more. */
export const oneTypeHolds = (found: JobType | null, mostEur: number | null): boolean =>
  found !== null &&
  mostEur !== null &&
  found.best !== null &&
  found.best.lacks.length === 0 &&
  found.best.dearerEur !== null &&
  found.best.dearerEur <= mostEur;

const beside = (dearerEur: number): string =>
  dearerEur === 0
    ? "as much as the best of each"
    : `${euroText(Math.abs(dearerEur))} ${dearerEur > 0 ? "more" : "less"} than the best of each`;

/** In sentences; @param linkName names a link. */
export const oneTypeWords = (found: JobType, mostEur: number, linkName: (linkId: string) => string): string => {
  const { best, links, unserved, passedOver, ownKinds, oneKinds } = found;
  const named = (ids: readonly string[]): string => ids.map(linkName).join("; ");
  const rest = [
    ...(unserved.length === 0 ? [] : [`Nothing at all serves ${named(unserved)}.`]),
    ...(passedOver.length === 0 ? [] : [`Not looked at, for want of a required rate, a radio or a path: ${named(passedOver)}.`]),
  ];
  if (best === null) return ["No type serves any link of this job.", ...rest].join(" ");
  const name = pairName(best.pair);
  const all = links === 1 ? "the one link" : `all ${links} links`;
  if (best.lacks.length > 0)
    return [`No one type serves ${all}: ${name} serves ${best.serves}, not ${named(best.lacks)}.`, ...rest].join(" ");
  const price =
    best.priceEur === null || best.dearerEur === null
      ? ", at a price that is not stated: each link keeps its own."
      : `, ${euroText(best.priceEur)} in all: ${beside(best.dearerEur)}${
          best.dearerEur <= mostEur ? "" : `, over the ${euroText(mostEur)} set. Each link keeps its own`
        }.`;
  const kinds = `${countText(oneKinds, "kind", "kinds")} of unit on the van in place of ${ownKinds}.`;
  return [`${name} serves ${all}${price}`, kinds, ...rest].join(" ");
};
