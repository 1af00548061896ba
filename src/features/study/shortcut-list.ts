/** A key or keys that do something, told where they are heard. */
export interface Shortcut {
  keys: string;
  words: string;
}

/** Every shortcut of the house, by where it is heard: what `?` shows. Ctrl is Cmd on a Mac. */
export const SHORTCUTS: readonly (readonly [where: string, readonly Shortcut[]])[] = [
  [
    "Everywhere",
    [
      { keys: "Ctrl K", words: "find a variable, a scale, a ladder, a place or an action" },
      { keys: "Ctrl Z", words: "take the last change back" },
      { keys: "Ctrl Shift Z", words: "do it again" },
      { keys: "?", words: "show the shortcuts" },
      { keys: "Enter", words: "on an underlined word: change it; Escape leaves it as it was" },
    ],
  ],
  [
    "Responses, in the answers",
    [
      { keys: "arrows, Page Up, Page Down, Home, End", words: "move through the cells; with Shift mark them" },
      { keys: "Enter, or just type", words: "correct a cell; Delete takes a correction back" },
      { keys: "Ctrl C", words: "copy what is marked" },
    ],
  ],
  ["Scales, on an item’s handle", [{ keys: "Space, arrows, Space", words: "lift an item, move it, let it go; Escape puts it back" }]],
  [
    "Ladders",
    [
      { keys: "Shift arrows", words: "on a term or a step: move it" },
      { keys: "arrows", words: "in the coefficients: from number to number, each read as a sentence" },
    ],
  ],
];
