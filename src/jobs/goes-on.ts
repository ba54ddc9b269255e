/** Told to whoever watches over this process: the work goes on. Silence for too long counts as hanging. */
let tell: () => void = () => undefined;

export const goesOn = (): void => tell();

/** @param told called whenever the work has come a step further. */
export const watchProgress = (told: () => void): void => {
  tell = told;
};
