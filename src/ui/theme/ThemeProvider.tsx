"use client";

import { AntdRegistry } from "@ant-design/nextjs-registry";
import { ConfigProvider } from "antd";
import { type ReactNode, use } from "react";
import { antdTheme } from "./antd-theme";
import { Nonce } from "./nonce";

/**
 * Ant Design's theme for a part of a page that uses it. It does not stand around whole pages: its code is a quarter of a page's, and numbers do without it. A place that
 * uses it from the first has ThemedPlace.
 */
export function ThemeProvider({ children }: { children: ReactNode }) {
  const nonce = use(Nonce);
  return (
    <ConfigProvider theme={antdTheme} {...(nonce === undefined ? {} : { csp: { nonce } })}>
      {children}
    </ConfigProvider>
  );
}

/** The same around a place that the server draws with Ant Design's parts: their styles come with it. */
export function ThemedPlace({ children }: { children: ReactNode }) {
  return (
    <AntdRegistry>
      <ThemeProvider>{children}</ThemeProvider>
    </AntdRegistry>
  );
}
