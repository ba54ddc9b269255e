import type { NextConfig } from "next";

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  serverExternalPackages: ["pg"],
  experimental: { optimizePackageImports: ["radix-ui", "lucide-react"] },
  devIndicators: false,
};

export default config;
