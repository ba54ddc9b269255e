import type { MetadataRoute } from "next";
import { KEPT_PAGE } from "@/ui/state/kept-jobs";

/** For a phone that puts this on its home screen: it opens at what it has with it, also without coverage. */
const manifest = (): MetadataRoute.Manifest => ({
  name: "Dry Arc",
  short_name: "Dry Arc",
  description: "Plan radio bridge links between buildings before going on site.",
  start_url: KEPT_PAGE,
  display: "standalone",
  background_color: "#ffffff",
  theme_color: "#ffffff",
  icons: [{ src: "/icon.svg", sizes: "any", type: "image/svg+xml", purpose: "any" }],
});
export default manifest;
