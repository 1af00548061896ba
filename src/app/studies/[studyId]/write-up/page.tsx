import type { Metadata } from "next";
import { WriteUpScreen } from "@/features/write-up/WriteUpScreen";

export const metadata: Metadata = { title: "Write-up" };

export default function WriteUpPage() {
  return <WriteUpScreen />;
}
