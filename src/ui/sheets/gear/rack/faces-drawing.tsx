import { figure, type Units } from "../../../wording/numbers";
import { faceText } from "./face-text";

const WIDTH = 168;
const HEIGHT = 66;
const MID_X = 32;
const MID_Y = 33;
/** The larger face fills this. */
const LARGEST_PX = 54;

/** Faces on the wall at one scale: the one planned, dashed, and the one chosen. */
export const FacesDrawing = ({ plannedCm, chosenCm, units }: { plannedCm: number | null; chosenCm: number | null; units: Units }) => {
  const largest = Math.max(plannedCm ?? 0, chosenCm ?? 0);
  if (largest === 0) return null;
  const px = (cm: number): number => (cm / largest) * LARGEST_PX;
  const same = plannedCm === chosenCm;
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={`Faces on the wall: planned ${faceText(plannedCm, units)}, chosen ${faceText(chosenCm, units)}`}
    >
      <path d={`M${MID_X - 3} 0V${HEIGHT}M${MID_X + 3} 0V${HEIGHT}`} stroke="var(--hair)" />
      {plannedCm !== null && !same && (
        <>
          <rect
            x={MID_X - px(plannedCm) / 2}
            y={MID_Y - px(plannedCm) / 2}
            width={px(plannedCm)}
            height={px(plannedCm)}
            fill="none"
            stroke="var(--ink-2)"
            strokeDasharray="5 3"
          />
          <text x={MID_X + LARGEST_PX / 2 + 8} y={20} fontSize={12} className="halo">
            {faceText(plannedCm, units)} planned
          </text>
        </>
      )}
      {chosenCm !== null && (
        <>
          <rect
            x={MID_X - px(chosenCm) / 2}
            y={MID_Y - px(chosenCm) / 2}
            width={px(chosenCm)}
            height={px(chosenCm)}
            fill="var(--paper)"
            stroke="var(--ink)"
            strokeWidth={1.6}
          />
          <text x={MID_X + LARGEST_PX / 2 + 8} y={40} fontSize={12} fontWeight={650} className="halo">
            {faceText(chosenCm, units)} {same ? "" : "chosen"}
          </text>
        </>
      )}
      <text x={MID_X + LARGEST_PX / 2 + 8} y={60} fontSize={11.5} style={{ fill: "var(--ink-2)" }}>
        faces, 1:{figure((largest * 10) / (LARGEST_PX * 0.2646))}
      </text>
    </svg>
  );
};
