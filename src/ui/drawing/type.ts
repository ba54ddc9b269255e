/** Sizes of words and figures in a drawing, px: those of the sheet, and `tick` for figures along an axis. */
export const TYPE = { label: 11.5, tick: 12, note: 12.5, line: 13, press: 15 } as const;
