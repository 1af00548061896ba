import type { Metadata } from "next";
import { TheoryScreen } from "@/features/theory/TheoryScreen";

export const metadata: Metadata = { title: "Theory" };

export default function TheoryPage() {
  return <TheoryScreen />;
}
