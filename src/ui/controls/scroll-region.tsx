import type { ReactNode, Ref } from "react";

/** A part of a sheet that scrolls by itself, what only readers of the screen hear within it. It can be focused, so that the arrow keys scroll it without a pointer. */
export const ScrollRegion = ({
  label,
  className = "",
  children,
  ref,
  ...rest
}: {
  label: string | undefined;
  className?: string;
  children: ReactNode;
  ref?: Ref<HTMLElement>;
  "data-testid"?: string;
}) => (
  // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keys (WCAG 2.1.1).
  <section ref={ref} aria-label={label} tabIndex={0} className={`relative min-h-0 overflow-auto ${className}`} {...rest}>
    {children}
  </section>
);
