import { SinceNote } from "@/features/study/SinceNote";
import type { ComparisonResult } from "@/study/analyse/analyse-comparison";
import type { Comparison } from "@/study/model/comparison";
import type { SeenResult } from "@/study/model/seen-result";
import { comparisonSays } from "@/study/report/ladder/comparison-words";
import { Margin, Note } from "@/ui/parts/Margin";
import { SentencesNote } from "@/ui/parts/notes";

/** What the ladders side by side say, and how it was worked out. */
export function ComparisonMargin(props: { result: ComparisonResult | null; comparison: Comparison; before: SeenResult | null }) {
  const { result, comparison } = props;
  return (
    <Margin>
      <SinceNote before={props.before} />
      {result?.status === "compared" && <SentencesNote heading="What this says" sentences={comparisonSays(result)} />}
      <Note heading="How it is computed">
        <p>
          Ladders are compared on one outcome and the same respondents only
          {comparison.sample === "common" ? ": here those whom every one of them has" : ""}.
        </p>
        <p>
          AIC and BIC weigh fit against the number of columns; only differences between them mean something. There is no <i>p</i> for
          ladders of which none holds the other.
        </p>
      </Note>
    </Margin>
  );
}
