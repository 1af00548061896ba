import type { Metadata } from "next";
import { ResponsesScreen } from "@/features/responses/ResponsesScreen";
import { ThemedPlace } from "@/ui/theme/ThemeProvider";

export const metadata: Metadata = { title: "Responses" };

export default function ResponsesPage() {
  return (
    <ThemedPlace>
      <ResponsesScreen />
    </ThemedPlace>
  );
}
