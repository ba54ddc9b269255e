/** The product's mark: a ray's arc over dry ground. */
export const Logo = ({ size = 76 }: { size?: number }) => (
  <svg width={size} height={(size * 16) / 76} viewBox="0 0 76 16" aria-hidden="true">
    <path d="M1 13Q38 -9 75 13" fill="none" stroke="currentColor" strokeWidth="1.6" />
    <path d="M1 14.6H75" stroke="currentColor" strokeWidth="1.2" strokeDasharray="1.6 2.6" />
  </svg>
);
