"use client";
import { useMemo } from "react";
import { encode } from "uqr";

/** A link as a QR code (ISO/IEC 18004), black on white in every mode, or no camera reads it. */
export const Qr = ({ text, sizePx }: { text: string; sizePx: number }) => {
  const { size, path } = useMemo(() => {
    const { data, size: n } = encode(text, { ecc: "M", border: 4 });
    const bits = data.flatMap((row, y) => row.flatMap((on, x) => (on ? [`M${x} ${y}h1v1h-1z`] : [])));
    return { size: n, path: bits.join("") };
  }, [text]);
  return (
    <svg
      role="img"
      aria-label="The link as a QR code"
      width={sizePx}
      height={sizePx}
      viewBox={`0 0 ${size} ${size}`}
      shapeRendering="crispEdges"
    >
      <rect width={size} height={size} fill="#fff" />
      <path d={path} fill="#000" />
    </svg>
  );
};
