import type { Metadata } from "next";
import { ComingPlace } from "@/features/places/ComingPlace";

export const metadata: Metadata = { title: "Theory" };

export default function TheoryPage() {
  return (
    <ComingPlace
      sentence="What should predict what, in which direction, and for whom?"
      will={[
        "your hypotheses as short statements with a code and an expected direction,",
        "the step, term or difference of a ladder that tests each one,",
        "the level of significance and the smallest effect worth caring about, set before results are looked at,",
        "a verdict for each with its evidence: supported, not supported, opposite direction, or not testable yet.",
      ]}
      until="Until then, name the steps of your ladders after the hypotheses they test."
    />
  );
}
