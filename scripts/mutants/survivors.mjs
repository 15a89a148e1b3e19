/** Faults that the tests do not notice, each with a word why. */
export const survivors = [];
