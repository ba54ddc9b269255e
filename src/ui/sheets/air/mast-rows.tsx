import type { Channel } from "@/core/air";
import { TYPE } from "../../drawing/type";
import { verdictInk } from "../hub/plan-drawing";
import type { BandScale } from "./air-scale";
import { type MastRow, proposedLanes } from "./air-view";
import { channelText } from "./air-words";
import { cut, LANE_PX, LEFT, namePlace } from "./band-frame";
import { ChannelBlock } from "./channel-block";
import type { OpenAir } from "./use-open-air";

/** Words of a name on two lines, split where they are nearest alike. */
const inTwo = (name: string): string[] => {
  const words = name.split(" ");
  if (words.length < 2 || name.length <= 13) return [name];
  const half = Math.ceil(words.length / 2);
  return [words.slice(0, half).join(" "), words.slice(half).join(" ")];
};

export const mastHeight = (mast: MastRow, proposed: ReadonlyMap<string, Channel> | null): number =>
  Math.max(48, (mast.lanes + proposedLanes(mast, proposed).lanes) * LANE_PX + 20);

/** One mast: its own channels as blocks, and beneath them those proposed. */
export const Mast = ({
  open,
  mast,
  y,
  width,
  scale,
  meet,
  proposed,
  plan,
}: {
  open: OpenAir;
  mast: MastRow;
  y: number;
  width: number;
  scale: BandScale;
  meet: string;
  proposed: ReadonlyMap<string, Channel> | null;
  plan: () => void;
}) => {
  const proposedY = y + 8 + mast.lanes * LANE_PX + 4;
  const height = mastHeight(mast, proposed);
  const { blocks: moved } = proposedLanes(mast, proposed);
  return (
    <g data-testid="mast">
      {inTwo(mast.name).map((words, i) => (
        <text key={words} x={14} y={y + 20 + i * 16} fontSize={TYPE.press} fontWeight={720} style={{ fill: verdictInk(mast.verdict) }}>
          {cut(words, 14)}
        </text>
      ))}
      {mast.blocks.map((b) => (
        <ChannelBlock
          key={b.unitId}
          open={open}
          block={b}
          y={y + 8 + b.lane * LANE_PX}
          scale={scale}
          meet={meet}
          width={width}
          plan={plan}
          mates={mast.blocks.filter((m) => m !== b && m.lane === b.lane)}
        />
      ))}
      {moved.length > 0 && (
        <text x={LEFT - 8} y={proposedY + 13} textAnchor="end" fontSize={TYPE.label} style={{ fill: "var(--ink-2)" }}>
          proposed
        </text>
      )}
      {moved.map((b) => {
        const [x0, x1] = [scale.x(b.channel.centreMhz - b.channel.widthMhz / 2), scale.x(b.channel.centreMhz + b.channel.widthMhz / 2)];
        const at = proposedY + b.lane * LANE_PX;
        const name = namePlace(
          x0,
          x1,
          moved
            .filter((m) => m !== b && m.lane === b.lane)
            .map((m) => [scale.x(m.channel.centreMhz - m.channel.widthMhz / 2), scale.x(m.channel.centreMhz + m.channel.widthMhz / 2)]),
          width,
        );
        return (
          <g key={b.unitId}>
            <title>{`${b.name}: ${channelText(b.channel)} MHz proposed`}</title>
            <rect
              x={x0}
              y={at}
              width={Math.max(3, x1 - x0)}
              height={LANE_PX - 5}
              fill="none"
              stroke="var(--ink)"
              strokeWidth="1.4"
              strokeDasharray="4 3"
            />
            <text x={name.x} y={at + 11.5} textAnchor={name.anchor} fontSize={TYPE.label} className="halo">
              {cut(b.name, name.most)}
            </text>
          </g>
        );
      })}
      <path d={`M0 ${y + height}H${width}`} stroke="var(--hair)" />
    </g>
  );
};
