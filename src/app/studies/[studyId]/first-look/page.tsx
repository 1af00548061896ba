import type { Metadata } from "next";
import { ComingPlace } from "@/features/places/ComingPlace";

export const metadata: Metadata = { title: "First look" };

export default function FirstLookPage() {
  return (
    <ComingPlace
      sentence="Is it linear, is anyone strange, do the predictors go together too closely?"
      will={[
        "a table of means, SDs, reliabilities and correlations,",
        "the distribution of every variable and score,",
        "scatterplots with straight and smoothed lines, by group,",
        "a matrix of pairs.",
      ]}
      until="Until then, each scale shows the distribution of its scores, and each step in full shows tolerance and part correlations."
    />
  );
}
