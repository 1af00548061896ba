"use client";

import { ConfigProvider } from "antd";
import type { ReactNode } from "react";
import { antdTheme } from "./antd-theme";

/** Ant Design's theme for everything below. */
export function ThemeProvider({ nonce, children }: { nonce: string | undefined; children: ReactNode }) {
  return (
    <ConfigProvider theme={antdTheme} {...(nonce === undefined ? {} : { csp: { nonce } })}>
      {children}
    </ConfigProvider>
  );
}
