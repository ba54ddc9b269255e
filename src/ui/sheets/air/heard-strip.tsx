import { bandKeyOf } from "@/core/radio";
import { TYPE } from "../../drawing/type";
import { figure } from "../../wording/numbers";
import { channelText } from "./air-words";
import { HEARD_PX, Label, LEFT, RIGHT } from "./band-frame";
import type { OpenAir } from "./use-open-air";

const HEARD_TOP_DBM = -55;
const HEARD_FOOT_DBM = -98;

/** What scans heard, by place: outlined at the first, as lines at the others. */
export const HeardStrip = ({ open, x, y, width }: { open: OpenAir; x: (mhz: number) => number; y: number; width: number }) => {
  const { scans, band, names } = open;
  const foot = y + HEARD_PX - 6;
  const level = (dbm: number): number =>
    foot - (Math.max(0, Math.min(HEARD_TOP_DBM, dbm) - HEARD_FOOT_DBM) / (HEARD_TOP_DBM - HEARD_FOOT_DBM)) * (HEARD_PX - 14);
  const rows = scans
    .filter((s) => s.counts)
    .flatMap((s) =>
      s.rows
        .filter((r) => !r.isNoise && bandKeyOf(r.centreMhz) === band)
        .map((r) => ({ ...r, site: names.get(s.siteId) ?? "", scan: s.id })),
    );
  const sites = [...new Set(rows.map((r) => r.site))];
  return (
    <g>
      <Label
        y={y + 17}
        words="Heard"
        note={
          rows.length === 0
            ? scans.length === 0
              ? "no scan yet"
              : "nothing decoded"
            : sites.length === 1
              ? `at ${sites[0]}`
              : `at ${sites.length} places`
        }
      />
      <path d={`M${LEFT} ${foot}H${width - RIGHT}`} stroke="var(--hair)" />
      {rows.map((r, i) => {
        const [x0, x1] = [x(r.centreMhz - r.widthMhz / 2), x(r.centreMhz + r.widthMhz / 2)];
        const at = level(r.levelDbm);
        const first = r.site === sites[0];
        return (
          <g key={`${r.scan}${i}`}>
            <title>{`${r.name === "" ? "somebody" : r.name} on ${channelText(r)} MHz, ${figure(r.levelDbm)} dBm at ${r.site}${r.busyShare === null ? "" : `, busy ${figure(r.busyShare * 100)} %`}`}</title>
            {first ? (
              <rect x={x0} y={at} width={Math.max(2, x1 - x0)} height={foot - at} fill="none" stroke="var(--near)" strokeWidth="1.2" />
            ) : (
              <path d={`M${x0} ${at}H${Math.max(x0 + 2, x1)}`} stroke="var(--far)" strokeWidth="2" />
            )}
          </g>
        );
      })}
      {rows.length > 0 && (
        <text
          x={Math.min(width - RIGHT - 4, x(Math.max(...rows.map((r) => r.centreMhz + r.widthMhz / 2))) + 6)}
          y={y + 16}
          fontSize={TYPE.label}
          className="halo"
          textAnchor={x(Math.max(...rows.map((r) => r.centreMhz))) > width - 220 ? "end" : "start"}
        >
          {loudest(rows)}
        </text>
      )}
    </g>
  );
};

const loudest = (rows: readonly { readonly name: string; readonly levelDbm: number; readonly site: string }[]): string => {
  const top = rows.reduce((a, b) => (b.levelDbm > a.levelDbm ? b : a));
  return `loudest: ${top.name === "" ? "somebody" : top.name} at ${top.site}, ${figure(top.levelDbm)} dBm`;
};
