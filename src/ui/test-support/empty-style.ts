/** Stands for a style sheet in unit tests: class names are of no interest there. */
export default {};
