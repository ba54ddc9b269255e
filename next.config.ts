import type { NextConfig } from "next";

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  serverExternalPackages: ["pg", "pdfkit", "fontkit"],
  experimental: { optimizePackageImports: ["radix-ui", "lucide-react"] },
  devIndicators: false,
  headers: async () => [
    {
      // It keeps the survey of every job; the browser asks for a newer one each time.
      source: "/workers/offline.worker.js",
      headers: [
        { key: "service-worker-allowed", value: "/jobs/" },
        { key: "cache-control", value: "no-cache" },
      ],
    },
  ],
};

export default config;
