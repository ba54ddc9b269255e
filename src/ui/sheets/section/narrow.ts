/** Below this width of the drawing the headline stands in three rows. */
export const NARROW_PX = 620;
