/** Debian's Chromium, as every test and bench starts it: without a word to anybody but us. */
export const CHROMIUM: { readonly executablePath: string; readonly args: string[] } = {
  executablePath: "/usr/bin/chromium",
  args: [
    "--no-sandbox",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
  ],
};
