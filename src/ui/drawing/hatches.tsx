/** Hatches of the drawing sheet, once per drawing. */
export const Hatches = ({ id }: { id: string }) => (
  <defs>
    <pattern id={`${id}-earth`} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <path d="M0 0V7" stroke="var(--ground-hatch)" strokeWidth="1.2" />
    </pattern>
    <pattern id={`${id}-block`} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
      <rect width="5" height="5" fill="var(--block-fill)" />
      <path d="M0 0V5" stroke="var(--block-line)" strokeWidth="0.8" opacity="0.55" />
    </pattern>
    <pattern id={`${id}-water`} width="46" height="16" patternUnits="userSpaceOnUse">
      <rect width="46" height="16" fill="var(--water-fill)" />
      <path d="M2 4H20M27 11H42" stroke="var(--water-line)" strokeWidth="0.9" opacity="0.7" />
    </pattern>
    <pattern id={`${id}-noise`} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <path d="M0 0V6" stroke="var(--hair)" strokeWidth="1" />
    </pattern>
  </defs>
);
