import type { NextConfig } from "next";
import { PHASE_PRODUCTION_BUILD } from "next/constants";
import { sourcesHash } from "./scripts/make-ready.mjs";

const config: NextConfig = {
  serverExternalPackages: ["better-sqlite3"],
  poweredByHeader: false,
  devIndicators: false,
  reactStrictMode: true,
  // `npm test` checks types by themselves; a second time here would be half of a first start
  typescript: { ignoreBuildErrors: true },
  // isolated from other pages, so that workers share the columns instead of holding a copy each
  headers: async () => [
    {
      source: "/:path*",
      headers: [
        { key: "Cross-Origin-Opener-Policy", value: "same-origin" },
        { key: "Cross-Origin-Embedder-Policy", value: "require-corp" },
        { key: "Cross-Origin-Resource-Policy", value: "same-origin" },
      ],
    },
  ],
};

/** What is built knows what it was built from: numbers of another program are not taken for its own. */
const ofPhase = (phase: string): NextConfig =>
  phase === PHASE_PRODUCTION_BUILD ? { ...config, env: { BETA_STEP_SOURCES: sourcesHash() } } : config;

export default ofPhase;
