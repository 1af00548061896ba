import { namesFromWordings, partWordings, tidyWording } from "./wordings";

describe("wordings", () => {
  test.each([
    ["Rate the tutors - Patience", "Rate the tutors - Clarity"],
    ["Rate the tutors [Patience]", "Rate the tutors [Clarity]"],
    ["Rate the tutors | Patience", "Rate the tutors | Clarity"],
    ["Rate the tutors: Patience", "Rate the tutors: Clarity"],
  ])("%s is parted into question and item where another shares the question", (one, other) => {
    expect(partWordings([one, other, "Age"]).map((w) => [w.question.replace(/:$/, ""), w.label])).toEqual([
      ["Rate the tutors", "Patience"],
      ["Rate the tutors", "Clarity"],
      ["", "Age"],
    ]);
  });
  test("a hyphen alone makes no question; tags and signs for blanks go", () => {
    expect(partWordings(["Well-being - in general", "Age"])[0]).toEqual({ question: "", label: "Well-being - in general" });
    expect(tidyWording("<b>How&nbsp;old</b>   are you?")).toBe("How old are you?");
  });
  test("names come from what a question names, numbered within it, each its own and none that is taken", () => {
    const stem = (word: string) => `How much do you agree with these statements about ${word}?`;
    const of = (question: string, label: string) => ({ question, label });
    expect(
      namesFromWordings(
        [
          of(stem("belonging"), "a"),
          of(stem("belonging"), "b"),
          of(stem("speaking"), "a"),
          of("", "How old are you?"),
          of("", "Alter in Jahren"),
        ],
        ["old"],
      ),
    ).toEqual(["belonging_1", "belonging_2", "speaking_1", "old_2", "alter_jahren"]);
  });
});
