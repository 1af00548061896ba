/**
 * What is true in Canal Street, the made-up demo study: the numbers its generator uses. All people and answers are
 * invented. Effects are in SDs of latent variables that have mean 0 and SD near 1.
 */
export const TRUE_PARAMETERS = {
  seed: 2419,
  learners: 438,
  classes: 26,
  /** SD of the class's part in tutor support and in belonging. */
  classEffect: 0.45,
  formats: { "in person": 0.5, online: 0.28, blended: 0.22 },
  /** Support and anxiety → confidence. */
  confidence: { support: 0.35, anxiety: -0.4, correcting: 0.38 },
  belonging: { support: 0.45 },
  /** Willingness to speak; `product` is confidence × support: support strengthens the slope of confidence. */
  willingness: {
    confidence: 0.42,
    support: 0.16,
    product: 0.2,
    anxiety: -0.12,
    belonging: 0.08,
    months: 0.12,
    age: -0.03,
    residualSd: 0.72,
  },
  /** What is added to the slope of confidence in a format. */
  slopeByFormat: { "in person": 0.1, online: -0.22, blended: 0 },
  /**
   * Correcting others goes with speaking up (it is in the answers to the confidence items) but not with willingness:
   * a classical suppressor.
   */
  correcting: { direct: 0, onAnswersOnly: true },
  exam: { mean: 62, sd: 13, confidence: 0.3, practice: 0.25, months: 0.2, willingness: 0.15, residualSd: 0.78 },
  /** Share of item answers written as −9 (not answered), and left empty. */
  notAnswered: { code: 0.011, empty: 0.006 },
  /** Share of learners with 99 (not known) in months enrolled or practice hours. */
  notKnown: 0.012,
} as const;

/** Items with their wording, possible answers, and whether high answers mean little of what the scale is about. */
export const SCALES = [
  {
    id: "speaking_confidence",
    name: "Speaking confidence",
    prefix: "SC",
    low: 1,
    high: 5,
    latent: "confidence",
    items: [
      ["I start talking even when I may make mistakes", false],
      ["I can hold a conversation with a neighbour", false],
      ["I lose the thread when others listen", true],
      ["I say little unless I am asked", true],
      ["I can ask for help at a counter", false],
      ["I enjoy being understood", false],
    ],
  },
  {
    id: "classroom_anxiety",
    name: "Classroom anxiety",
    prefix: "CA",
    low: 1,
    high: 7,
    latent: "anxiety",
    items: [
      ["My heart beats faster when I am called on", false],
      ["I worry that the others will laugh", false],
      ["I feel calm in class", true], // the planted fault: the demo's scale does not turn it round
      ["I rehearse a sentence many times before I say it", false],
      ["I avoid looking at the tutor", false],
    ],
  },
  {
    id: "tutor_support",
    name: "Tutor support",
    prefix: "TS",
    low: 1,
    high: 5,
    latent: "support",
    items: [
      ["The tutor notices effort", false],
      ["The tutor explains again when asked", false],
      ["The tutor gives me time to find words", false],
      ["The tutor knows what I find hard", false],
      ["The tutor takes my questions seriously", false],
    ],
  },
  {
    id: "peer_belonging",
    name: "Peer belonging",
    prefix: "PB",
    low: 1,
    high: 5,
    latent: "belonging",
    items: [
      ["I belong to this group", false],
      ["Others learn my name", false],
      ["Someone saves me a seat", false],
      ["We talk after class", false],
    ],
  },
  {
    id: "willingness_to_speak",
    name: "Willingness to speak",
    prefix: "WS",
    low: 1,
    high: 7,
    latent: "willingness",
    items: [
      ["I would tell the class a story", false],
      ["I would start a conversation on the tram", false],
      ["I would rather stay silent in a shop", true],
      ["I would phone an office myself", false],
      ["I would join a discussion of the news", false],
      ["I would speak at a street party", false],
    ],
  },
] as const;

/** Where the dirt was put: data rows from 1. */
export const PLANTED = {
  /** A 55 (a 5 typed twice) in an item asked from 1 to 5. */
  outOfRange: { row: 118, variable: "PB2", value: "55" },
  textAge: { row: 57, value: "thirty-four" },
  straightLiners: [33, 141, 209, 304, 377],
  nothingAnswered: 262,
  /** Learners whose row stands in the file a second time, at its end. */
  duplicates: [90, 275],
  /** A class format in the codebook that nobody has. */
  unusedLevel: "self-study",
  /** Should be reverse-keyed in the demo's scale and is not. */
  wronglyKeyed: "CA3",
} as const;
