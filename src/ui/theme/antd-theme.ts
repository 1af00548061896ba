import type { ThemeConfig } from "antd";

/** Ant Design in the house's paper and ink: hairlines, hardly a shadow, plum for what acts. */
export const antdTheme: ThemeConfig = {
  cssVar: { key: "bs" },
  hashed: false,
  token: {
    colorPrimary: "#7A2E5D", colorInfo: "#7A2E5D", colorLink: "#7A2E5D", colorSuccess: "#2F6B5E", colorWarning: "#8A680F", colorError: "#A33A1C",
    colorBgBase: "#FBF9F4", colorBgContainer: "#FFFDF9", colorBgElevated: "#FFFDF9", colorTextBase: "#23211E", colorTextPlaceholder: "#6B6355",
    colorTextDescription: "#6B6355", colorTextQuaternary: "#6B6355", colorTextTertiary: "#6B6355",
    colorBorder: "#CFC4AE", colorBorderSecondary: "#E4DCCB", colorFillSecondary: "#F3ECE0", controlItemBgActive: "#F3ECE0", controlItemBgActiveHover: "#EADFCD", controlItemBgHover: "#F7F2E8",
    borderRadius: 3, borderRadiusLG: 3, borderRadiusSM: 2, fontSize: 13.5, controlHeight: 28, controlHeightSM: 24,
    fontFamily: '"Source Sans 3 Variable", "DejaVu Sans Signs", system-ui, sans-serif',
    boxShadow: "0 1px 0 #E4DCCB", boxShadowSecondary: "0 2px 8px rgba(35,33,30,.10)", motionDurationMid: "0.12s", motionDurationSlow: "0.16s",
    wireframe: true,
  },
  components: {
    Select: { optionSelectedBg: "#F3ECE0", optionActiveBg: "#F7F2E8" },
    Button: { primaryShadow: "none", defaultShadow: "none", fontWeight: 600 },
  },
};
