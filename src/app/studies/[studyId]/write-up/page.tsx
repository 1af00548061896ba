import type { Metadata } from "next";
import { ComingPlace } from "@/features/places/ComingPlace";

export const metadata: Metadata = { title: "Write-up" };

export default function WriteUpPage() {
  return (
    <ComingPlace
      sentence="The tables, figures and sentences of your article, bound to live results."
      will={[
        "a page that composes itself in American Psychological Association style,",
        "your own prose between tables and figures,",
        "a mark on everything that is out of date,",
        "exports as DOCX, HTML and Markdown, CSV for each table, SVG and PNG for each figure.",
      ]}
      until="Until then, a ladder's table can be saved as CSV or HTML, and each scale has a sentence for the method section in its margin."
    />
  );
}
