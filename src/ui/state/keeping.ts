/* Whether this page may put something by for a place without coverage, and what it is just putting by: forgetting waits for that, and nothing is put by after it. */

let over = false;
let now: Promise<unknown> = Promise.resolve();

/** Puts something by, unless all is being forgotten. @param work asks again after each step whether it still may. */
export const keepBy = (work: (may: () => boolean) => Promise<void>): Promise<void> => {
  if (over) return Promise.resolve();
  const mine = work(() => !over);
  now = Promise.allSettled([now, mine]);
  return mine;
};

/** From here on nothing is put by any more. @returns what is on its way still. */
export const endKeeping = (): Promise<unknown> => {
  over = true;
  return now;
};
