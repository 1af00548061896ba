import type { Metadata } from "next";
import { ResponsesScreen } from "@/features/responses/ResponsesScreen";

export const metadata: Metadata = { title: "Responses" };

export default function ResponsesPage() {
  return <ResponsesScreen />;
}
