import type { Metadata } from "next";
import { FirstLookScreen } from "@/features/first-look/FirstLookScreen";

export const metadata: Metadata = { title: "First look" };

export default function FirstLookPage() {
  return <FirstLookScreen />;
}
