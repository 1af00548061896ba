import "@fontsource-variable/source-sans-3/index.css";
import "@fontsource-variable/source-sans-3/wght-italic.css";
import "@fontsource-variable/source-serif-4/index.css";
import "@fontsource-variable/source-serif-4/wght-italic.css";
import "@/ui/theme/signs.css";
import "@/ui/theme/tokens.css";
import { AntdRegistry } from "@ant-design/nextjs-registry";
import type { Metadata } from "next";
import { headers } from "next/headers";
import type { ReactNode } from "react";
import { Awake, KeepEarly } from "@/ui/parts/Awake";
import { ThemeProvider } from "@/ui/theme/ThemeProvider";

export const metadata: Metadata = {
  title: { default: "Beta Step", template: "%s · Beta Step" },
  description: "From questionnaire answers to tested theory.",
};

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get("x-nonce") ?? undefined;
  return (
    <html lang="en">
      <body>
        <KeepEarly nonce={nonce} />
        <AntdRegistry>
          <ThemeProvider nonce={nonce}>{children}</ThemeProvider>
        </AntdRegistry>
        <Awake />
      </body>
    </html>
  );
}
