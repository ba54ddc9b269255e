import type { MetadataRoute } from "next";

/** For a phone that puts the register of jobs on its home screen: what was kept opens from there without coverage. */
const manifest = (): MetadataRoute.Manifest => ({
  name: "Dry Arc",
  short_name: "Dry Arc",
  description: "Plan radio bridge links between buildings before going on site.",
  start_url: "/",
  display: "standalone",
  background_color: "#ffffff",
  theme_color: "#ffffff",
  icons: [{ src: "/icon.svg", sizes: "any", type: "image/svg+xml", purpose: "any" }],
});
export default manifest;
