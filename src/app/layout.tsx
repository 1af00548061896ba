import "@fontsource-variable/source-sans-3/index.css";
import "@fontsource-variable/source-sans-3/wght-italic.css";
import "@fontsource-variable/source-serif-4/index.css";
import "@fontsource-variable/source-serif-4/wght-italic.css";
import "@/ui/theme/signs.css";
import "@/ui/theme/tokens.css";
import type { Metadata } from "next";
import { headers } from "next/headers";
import type { ReactNode } from "react";
import { Awake, KeepEarly } from "@/ui/parts/Awake";
import { PressStays } from "@/ui/parts/PressStays";
import { Unfetched } from "@/ui/parts/Unfetched";
import { PreloadFonts } from "@/ui/theme/PreloadFonts";
import { Nonce } from "@/ui/theme/nonce";

export const metadata: Metadata = {
  title: { default: "Beta Step", template: "%s · Beta Step" },
  description: "From questionnaire answers to tested theory.",
};

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get("x-nonce") ?? undefined;
  return (
    <html lang="en">
      <body>
        <PreloadFonts />
        <KeepEarly nonce={nonce} />
        <Nonce value={nonce}>{children}</Nonce>
        <Unfetched />
        <PressStays />
        <Awake />
      </body>
    </html>
  );
}
