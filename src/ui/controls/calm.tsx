"use client";
import { memo, type ReactNode } from "react";

/**
 * A part of a page that is drawn again only when what it shows has changed. While something is dragged the drawing
 * follows at once, and parts that show a deferred value keep still until there is time.
 * @param of all that the children show or act on.
 */
export const Calm = memo(
  ({ children }: { of: readonly unknown[]; children: () => ReactNode }) => <>{children()}</>,
  (before, after) => before.of.length === after.of.length && before.of.every((v, i) => Object.is(v, after.of[i])),
);
