import { fireEvent, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { Ladder } from "@/study/model/ladder";
import { Study } from "@/study/model/study";
import { scalesOf } from "@/ui/charts/ScatterChart";
import { defaultLook, namesOfLadder } from "@/features/study/default-look";
import { MarkedRespondents, useMarked } from "./marked";
import { PairPicture } from "./PairPicture";
import { rangeOf } from "./range-of";

const study = (own: object) => Study.parse({ format: "beta-step-study", version: 1, name: "s", codebook: ["q1", "q2", "age", "format"].map((name) => ({ name, kind: name === "format" ? "category" : name === "age" ? "number" : "item" })), ...own }); // prettier-ignore
const scales = [{ id: "calm", name: "Calm", items: [{ variable: "q1" }] }];
const ladders = [Ladder.parse({ id: "l", name: "L", outcome: "age", steps: [{ id: "s", terms: [["calm"], ["format"], ["calm", "format"]].map((components) => ({ components })) }] })]; // prettier-ignore

test("the first look: scales and outcomes; without any, the first numbers, never categories", () => {
  expect(defaultLook(study({ scales, ladders })).variables).toEqual(["calm", "age"]);
  expect(defaultLook(study({})).variables).toEqual(["q1", "q2", "age"]);
  expect(defaultLook(study({ scales })).variables).toEqual(["calm", "q1", "q2", "age"]);
});

test("all of a ladder: its outcome first, each name once", () => {
  expect(namesOfLadder(ladders[0]!)).toEqual(["age", "calm", "format"]);
});

test("a range of nothing is 0 to 1", () => {
  expect([rangeOf(Float64Array.of(3, -1, 2)), rangeOf(new Float64Array(0))]).toEqual([[-1, 3], [0, 1]]); // prettier-ignore
});

describe("marking respondents in a picture", () => {
  const frame = { width: 720, height: 420, names: true, x: [0, 4] as const, y: [0, 4] as const };
  const points = { x: Float64Array.of(3, 1.2, 2, 4), y: Float64Array.of(1, 0.9, 3, 4), group: null };
  const values = { x: Float64Array.of(3, 1, 2, 4), y: Float64Array.of(1, 1, 3, 4) }; // the second is drawn a little aside
  const rows = Int32Array.of(10, 20, 30, 40);
  const Told = () => <output>{[...useMarked().rows].sort((a, b) => a - b).join(",")}</output>;
  const show = () => {
    render(
      <MarkedRespondents>
        <PairPicture rows={rows} points={points} values={values} lines={[]} frame={frame} title="Joy against effort" axis="effort" outcome="joy" />
        <Told />
      </MarkedRespondents>,
    ); // prettier-ignore
    const picture = screen.getByRole("application");
    picture.getBoundingClientRect = () => ({
      left: 0,
      top: 0,
      width: 720,
      height: 420,
      right: 720,
      bottom: 420,
      x: 0,
      y: 0,
      toJSON: () => ({}),
    });
    picture.setPointerCapture = () => {};
    return picture;
  };
  const { x, y } = scalesOf(frame, false);
  const drag = (picture: HTMLElement, from: [number, number], to: [number, number], shiftKey = false) => {
    const send = (type: string, [a, b]: [number, number]) => fireEvent(picture, new MouseEvent(type, { clientX: x(a), clientY: y(b), button: 0, shiftKey, bubbles: true })); // prettier-ignore
    send("pointerdown", from);
    send("pointermove", to);
    send("pointerup", to);
  };
  const told = () => document.querySelector("output")!.textContent;

  test("a frame marks who is in it, whichever corner it began at; Shift adds, another frame replaces, an empty one forgets", () => {
    const picture = show();
    drag(picture, [0.5, 0.5], [3.5, 1.5]);
    expect(told()).toBe("10,20");
    drag(picture, [4.2, 4.2], [1.5, 2.5], true);
    expect(told()).toBe("10,20,30,40");
    drag(picture, [2.5, 3.5], [1.5, 2.5]);
    expect(told()).toBe("30");
    drag(picture, [0.1, 3.5], [0.4, 3.9]);
    expect(told()).toBe("");
  });

  test("a click marks the one that is pointed at", () => {
    const picture = show();
    drag(picture, [4, 4], [4, 4]);
    expect(told()).toBe("40");
  });

  test("arrow keys go from the lowest to the highest, Enter and Space mark and take back, Escape leaves", async () => {
    const user = userEvent.setup({ delay: null });
    const picture = show();
    picture.focus();
    await user.keyboard("{ArrowRight}");
    expect(screen.getByText("Row 20: effort 1, joy 1")).toBeVisible();
    await user.keyboard("{Enter}{ArrowRight} ");
    expect(told()).toBe("20,30");
    expect(screen.getByText("Row 30: effort 2, joy 3, marked")).toBeVisible();
    await user.keyboard("{ArrowRight}{ArrowRight}{ArrowRight}");
    expect(screen.getByText("Row 40: effort 4, joy 4")).toBeVisible(); // it stays at the end
    await user.keyboard("{ArrowLeft}{ArrowLeft}{Enter}");
    expect(told()).toBe("20");
    await user.keyboard("{Escape}");
    expect(screen.queryByText(/^Row /)).toBeNull();
  });
});
