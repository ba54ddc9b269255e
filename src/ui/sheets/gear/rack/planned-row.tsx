import type { Planned } from "@/core/rack";
import { Euro } from "../../../controls/euro";
import { bandText, pairName, rateText, spareText } from "../../../wording/gear";
import { dbmText, figure } from "../../../wording/numbers";
import { onAxis } from "./axis";
import { faceText } from "./face-text";
import { BAR_CELL, FACE_CELL, NeedLine, RACK_COLUMNS, type RowParts } from "./rack-row";
import { RateBar } from "./rate-bar";

/** Room that the large figure takes, about. */
const FIGURE_PX = 300;

/** The design as it stands, above the rack, with the largest figure of the sheet. */
export const PlannedRow = ({
  planned,
  widthMhz,
  centreMhz,
  powers,
  why,
  parts,
}: {
  planned: Planned;
  widthMhz: number;
  centreMhz: number;
  powers: readonly [number, number];
  /** What is against it, in a sentence. */
  why: string;
  parts: RowParts;
}) => {
  const multiple = planned.drawn?.p10 ?? planned.multiple;
  const kept = multiple * parts.needMbps;
  const spare = kept - parts.needMbps;
  const level = planned.levelToFarDbm === null ? null : Math.max(planned.levelToFarDbm, planned.levelToNearDbm ?? planned.levelToFarDbm);
  const needPx = onAxis(parts.axis, parts.needMbps, parts.px).x;
  const beyondPx = parts.px - needPx > FIGURE_PX ? needPx + 12 : 0;
  const tone = planned.verdict === "clear" ? "text-ink" : `v-${planned.verdict}`;
  // A rate that is to spare over a path that is not clear is no fault of the radios.
  const figureTone = spare >= 0 ? "text-ink" : tone;
  return (
    <section
      aria-label="Planned now"
      className={`grid ${RACK_COLUMNS} min-h-[82px] items-start border-b border-ink py-1.5 pl-4 pr-3.5`}
      data-testid="planned"
    >
      <span />
      <div className="min-w-0 pr-2">
        <div className={`truncate text-press font-figure ${tone}`}>{pairName(planned.pair)}</div>
        <div className="cap truncate">
          {bandText(planned.band)}, {figure(widthMhz)} MHz on {figure(centreMhz, Number.isInteger(centreMhz) ? 0 : 1)}
        </div>
        <div className="cap truncate">
          {powers[0] === powers[1] ? figure(powers[0]) : `${figure(powers[0])} and ${figure(powers[1])}`} dBm
          {level === null ? "" : `, ${dbmText(level)} there`}
        </div>
        <div className={`text-note font-figure ${tone}`}>planned now</div>
      </div>
      <div className={FACE_CELL}>{faceText(planned.faceCm, parts.units)}</div>
      <div className={BAR_CELL}>
        <NeedLine parts={parts} />
        <svg width={parts.px + 44} height={18} className="relative block overflow-visible" aria-hidden="true">
          <RateBar
            axis={parts.axis}
            px={parts.px}
            needMbps={parts.needMbps}
            keptMbps={kept}
            mostMbps={planned.drawn === null ? null : planned.drawn.p90 * parts.needMbps}
            y={2}
            hatch={parts.hatch}
          />
        </svg>
        <div
          // The figure stands beyond the line of the need where there is room.
          style={{ paddingLeft: beyondPx }}
          className={`relative whitespace-nowrap text-spare font-verdict leading-[44px] tracking-[-0.5px] ${figureTone}`}
          data-testid="planned-figure"
        >
          <span className="bg-paper">{spareText(spare)}</span>
        </div>
        <div className="relative text-line leading-[17px]" style={{ paddingLeft: beyondPx }}>
          <span className="bg-paper">{why}</span>
          {spare >= 0 && (
            <span className="text-ink-2">
              {" "}
              {rateText(multiple * parts.needToFarMbps)} there, {rateText(multiple * parts.needToNearMbps)} back.
            </span>
          )}
        </div>
      </div>
      <div className="text-right">
        <div className="figure text-press">
          <Euro of={planned.priceEur} />
        </div>
      </div>
    </section>
  );
};
