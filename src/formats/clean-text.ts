/** Characters that no text of ours carries: a database cannot keep the first, the others are no letters. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: those are what is looked for
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/g;
/** Half of a pair of 16-bit units that stand for one letter. */
const LONE = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g;

/** A text that can be kept: without control characters, half letters replaced by the sign for what cannot be read. */
export const cleanText = (text: string): string => text.replace(CONTROL, "").replace(LONE, "\uFFFD");

export const isCleanText = (text: string): boolean => cleanText(text) === text;
