import type { NextConfig } from "next";

const config: NextConfig = {
  serverExternalPackages: ["better-sqlite3"],
  poweredByHeader: false,
  devIndicators: false,
  reactStrictMode: true,
  // `npm test` checks types by themselves; a second time here would be half of a first start
  typescript: { ignoreBuildErrors: true },
};

export default config;
