import { exploratoryMark, rowsAsLetters } from "../../model/exploratory";
import { ladderOf } from "../../test-support/desk";
import { plain } from "../words";
import { markedCsv } from "@/files/marked-csv";
import { exploratoryWords, markedTable } from "./exploratory-words";

const marked = { ...ladderOf(["x"]), exploratory: "chosen by a search among 3", searchedOn: rowsAsLetters([1, 2, 3]) };

test("tables say it in title, note and every row of a CSV; on other respondents they say that instead", () => {
  const table = { title: "T", head: ["a"], sections: [], note: "N." };
  const mark = exploratoryMark(marked, [1, 2])!;
  expect(plain(markedTable(table, mark).title)).toBe("T, exploratory");
  expect(plain(markedTable(table, mark).note)).toBe("N. Exploratory: chosen by a search among 3. p and intervals ignore the search (the same respondents chose it); only other respondents can confirm it."); // prettier-ignore
  expect(markedCsv("\uFEFFa,b\r\n1,2\r\n3,4\r\n", mark)).toBe(
    "\uFEFFa,b,exploratory\r\n1,2,chosen by a search among 3\r\n3,4,chosen by a search among 3\r\n",
  );
  const fresh = exploratoryMark(marked, [4, 5])!;
  expect(plain(markedTable(table, fresh).title)).toBe("T");
  expect(exploratoryWords(fresh)).toEqual({ head: "Chosen on other respondents", says: "chosen by a search among 3; none of the 2 respondents here had a part in that." }); // prettier-ignore
  expect(markedTable(table, null)).toBe(table);
});
