import type { Metadata } from "next";
import { LadderScreen } from "@/features/ladders/LadderScreen";

export const metadata: Metadata = { title: "Ladders" };

export default function LaddersPage() {
  return <LadderScreen />;
}
