/** Runs once when a server process begins. */
export const register = async (): Promise<void> => {
  // Where nobody signs in there is no firm that could name an address.
  if (process.env.NEXT_RUNTIME !== "nodejs" || process.env.DRYARC_SIGN_IN !== "on") return;
  const { tellOthers } = await import("./app/_server/tell-others");
  tellOthers();
};
