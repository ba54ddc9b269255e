import type { PackDto, PackFacts, PackFor } from "../contract";
import type { Page } from "../core/page";
import { coverPages, jobPages, linkName, permissionPages, pointsFor, verdictOf, withoutText, worstOf } from "./cover";
import { endPages, type PagesAsk } from "./end-pages";
import type { FrameSaid } from "./frame";

export type { PagesAsk } from "./end-pages";
export { radarWaitS } from "./order";

/** What the pages say first: the worst of what is open, and, of a single link, all of it. A link without pages is not known. */
export const packTold = (facts: PackFacts, isFor: PackFor, { units }: Pick<PagesAsk, "units">): Pick<PackDto, "verdict" | "points"> => {
  const all = facts.links.map((l) => pointsFor(l, units, isFor));
  const without = facts.without.map((w) => ({ verdict: "unknown" as const, words: withoutText(w) }));
  return {
    verdict: worstOf([...all.map(verdictOf), ...without.map((w) => w.verdict)]),
    points: [...(all.length === 1 ? all[0]! : []), ...without],
  };
};

/** All pages of a pack, in the order in which they are printed. */
export const packPages = (facts: PackFacts, isFor: PackFor, ask: PagesAsk): Page[] => {
  const saidOf = (link: string): FrameSaid => ({
    job: facts.job.name,
    link,
    visit: facts.job.visitOn,
    made: `Plan of ${facts.madeAt}. Levels are per receive chain. Magnetic bearings are for the day of the visit.`,
  });
  const whole = facts.links.length === 1 && facts.without.length === 0 ? [] : jobPages(facts, ask, saidOf("all links"), isFor);
  return [
    ...whole,
    ...facts.links.flatMap((l) => {
      const said = saidOf(linkName(l));
      if (isFor === "permission") return permissionPages(facts, l, ask, said);
      const cover = coverPages(facts, l, ask, said, isFor);
      return isFor === "customer" ? cover : [...cover, ...endPages(facts, l, 0, ask, said), ...endPages(facts, l, 1, ask, said)];
    }),
  ];
};
