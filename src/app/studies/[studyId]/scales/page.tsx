import type { Metadata } from "next";
import { ScalesScreen } from "@/features/scales/ScalesScreen";

export const metadata: Metadata = { title: "Scales" };

export default function ScalesPage() {
  return <ScalesScreen />;
}
