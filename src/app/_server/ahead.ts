import { preload } from "react-dom";

/** Has the browser ask for what a page will read while its script is still on the way. */
export const readAhead = (...paths: readonly string[]): void => {
  for (const path of paths) preload(path, { as: "fetch", crossOrigin: "anonymous" });
};
