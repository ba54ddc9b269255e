import type { Socket } from "./end-layout";

const R = 5;

/** A socket by the shape of its supply: filled gives, hollow takes. */
export const SocketMark = ({
  socket: s,
  colour = "var(--ink)",
}: {
  socket: Pick<Socket, "x" | "y" | "shape" | "gives">;
  colour?: string;
}) => {
  const fill = s.gives ? colour : "var(--paper)";
  const common = { fill, stroke: colour, strokeWidth: 1.4 };
  switch (s.shape) {
    case "passive":
      return <path d={`M${s.x} ${s.y - R}L${s.x + R} ${s.y + R - 1}H${s.x - R}Z`} {...common} />;
    case "poe":
      return <circle cx={s.x} cy={s.y} r={R - 0.5} {...common} />;
    case "dc":
      return <rect x={s.x - R - 1} y={s.y - 2.5} width={2 * R + 2} height={5} {...common} />;
    case "mains":
      return (
        <path
          d={`M${s.x - R} ${s.y}H${s.x + R}M${s.x - 3} ${s.y - R}V${s.y + R}M${s.x} ${s.y - R}V${s.y + R}M${s.x + 3} ${s.y - R}V${s.y + R}`}
          stroke={colour}
          strokeWidth={1.2}
        />
      );
    case "fibre":
      return <path d={`M${s.x} ${s.y - R}L${s.x + R} ${s.y}L${s.x} ${s.y + R}L${s.x - R} ${s.y}Z`} {...common} />;
    default:
      return <rect x={s.x - R + 0.5} y={s.y - R + 0.5} width={2 * R - 1} height={2 * R - 1} {...common} />;
  }
};
