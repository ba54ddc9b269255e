import { encode } from "uqr";
import type { Mark } from "../core/page";

/** A QR code (ISO/IEC 18004) as one black path within a square, its quiet zone included. */
export const qrMarks = (words: string, x: number, y: number, sizePt: number): Mark[] => {
  const { data, size } = encode(words, { ecc: "M", border: 4 });
  const unit = sizePt / size;
  const at = (v: number): string => (Math.round(v * 1000) / 1000).toString();
  const d = data
    .flatMap((row, r) =>
      row.flatMap((on, c) =>
        on
          ? [
              `M${at(x + c * unit)} ${at(y + r * unit)}L${at(x + (c + 1) * unit)} ${at(y + r * unit)}L${at(x + (c + 1) * unit)} ${at(y + (r + 1) * unit)}L${at(x + c * unit)} ${at(y + (r + 1) * unit)}Z`,
            ]
          : [],
      ),
    )
    .join("");
  return [{ kind: "path", d, fill: "ink", widthPt: 0 }];
};
