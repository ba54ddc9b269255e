import type { ClosureFields, TaskFields } from "@/contract";
import { clockText, type DayClash, endMin, isHighWater, type Light, minutesOf, type TideMark, tideAt, tideMin } from "@/core/days";
import { TYPE } from "../../drawing/type";

/** What is drawn of a day; more where a task or a closure asks for it. */
const USUAL_FROM_MIN = 6 * 60;
const USUAL_TO_MIN = 19 * 60;
const LETTER_PX = 6.2;
const LANE = 24;
const PLAIN_HEAD = 34;
/** Room for the water above the tasks. */
const TIDE = 34;
const STEP_MIN = 15;
/** A day narrower than this has no room for words beside its date. */
const ROOMY_PX = 280;

/** The water of a day between its marks, with the time of each high one. */
const TideLine = ({
  day,
  tides,
  between: [fromMin, toMin],
  x,
  y,
  foot,
}: {
  day: string;
  tides: readonly TideMark[];
  between: readonly [fromMin: number, toMin: number];
  x: (minutes: number) => number;
  y: (heightM: number) => number;
  foot: number;
}) => {
  const zero = tideMin({ day, at: "00:00" });
  const runs: [number, number][][] = [[]];
  for (let m = fromMin; m <= toMin; m += STEP_MIN) {
    const height = tideAt(tides, zero + m);
    if (height === null) runs.push([]);
    else runs.at(-1)!.push([x(m), y(height)]);
  }
  return (
    <g aria-hidden="true">
      {runs
        .filter((r) => r.length > 1)
        .map((r) => (
          <g key={r[0]![0]}>
            <path
              d={`M${r[0]![0]} ${foot}L${r.map(([a, b]) => `${a} ${b}`).join("L")}L${r.at(-1)![0]} ${foot}Z`}
              fill="var(--water-fill)"
            />
            <path d={`M${r.map(([a, b]) => `${a} ${b}`).join("L")}`} fill="none" stroke="var(--water-line)" strokeWidth={1.4} />
          </g>
        ))}
      {tides.map((t, i) => {
        const minutes = minutesOf(t.at)!;
        if (t.day !== day || minutes < fromMin || minutes > toMin || !isHighWater(tides, i)) return null;
        return (
          <text key={`${t.at}`} x={x(minutes)} y={y(t.heightM) - 3} fontSize={TYPE.label} textAnchor="middle" className="halo">
            high {t.at}
          </text>
        );
      })}
    </g>
  );
};

/** Days side by side: light, closures and water, tasks as bars, those that stand against something in vermilion. */
export const DaysStrip = ({
  tasks,
  closures,
  tides,
  clashes,
  lightOf,
  width,
  chosen,
  choose,
}: {
  tasks: readonly TaskFields[];
  closures: readonly ClosureFields[];
  tides: readonly TideMark[];
  clashes: readonly DayClash[];
  lightOf: (siteId: string | null, day: string) => Light | null;
  width: number;
  chosen: string | null;
  choose: (id: string) => void;
}) => {
  const days = [...new Set([...tasks.flatMap((t) => t.day ?? []), ...closures.map((c) => c.day)])].sort();
  const hasTide = tides.some((t) => days.includes(t.day));
  const HEAD = PLAIN_HEAD + (hasTide ? TIDE : 0);
  const [lowM, highM] = [Math.min(...tides.map((t) => t.heightM)), Math.max(...tides.map((t) => t.heightM))];
  const waterY = (heightM: number): number => HEAD - 6 - ((heightM - lowM) / Math.max(0.1, highM - lowM)) * (TIDE - 16);
  const each = Math.max(240, Math.min(420, (width - 8) / Math.max(1, days.length)));
  const worst = new Map<string, DayClash["verdict"]>();
  for (const c of [...clashes].sort((a, b) => (a.verdict === "short" ? 1 : b.verdict === "short" ? -1 : 0))) worst.set(c.taskId, c.verdict);
  const lanes = new Map<string, number>();
  let most = 1;
  for (const day of days) {
    // Tasks that overlap stand beneath one another.
    const ends: number[] = [];
    for (const t of tasks.filter((x) => x.day === day).sort((a, b) => minutesOf(a.from)! - minutesOf(b.from)!)) {
      const from = minutesOf(t.from)!;
      let lane = ends.findIndex((end) => end <= from);
      if (lane < 0) lane = ends.length;
      ends[lane] = endMin({ fromMin: from, hours: t.hours });
      lanes.set(t.id, lane);
    }
    most = Math.max(most, ends.length);
  }
  const height = HEAD + most * LANE + 26;
  const marks = [
    ...tasks.flatMap((t) => (t.day === null ? [] : [minutesOf(t.from)!, endMin({ fromMin: minutesOf(t.from)!, hours: t.hours })])),
    ...closures.flatMap((c) => [minutesOf(c.from)!, minutesOf(c.to)!]),
  ];
  const fromMin = Math.floor(Math.min(USUAL_FROM_MIN, ...marks) / 60) * 60;
  const toMin = Math.min(24 * 60, Math.ceil(Math.max(USUAL_TO_MIN, ...marks) / 60) * 60);
  const x = (day: string, minutes: number): number =>
    days.indexOf(day) * each + 6 + ((Math.max(fromMin, Math.min(toMin, minutes)) - fromMin) / (toMin - fromMin)) * (each - 16);
  if (days.length === 0) return null;
  return (
    <div className="overflow-x-auto">
      {/* biome-ignore lint/a11y/useSemanticElements: there is no fieldset within a drawing */}
      <svg width={days.length * each + 4} height={height} role="group" aria-label="The days of the job" data-testid="days-strip">
        {days.map((day) => {
          const light = lightOf(null, day);
          return (
            <g key={day}>
              <text x={x(day, fromMin)} y={13} fontSize={TYPE.line} fontWeight={700}>
                {new Date(`${day}T12:00:00Z`).toLocaleDateString("en-GB", {
                  weekday: "short",
                  day: "numeric",
                  month: "short",
                  timeZone: "UTC",
                })}
              </text>
              <rect x={x(day, fromMin)} y={PLAIN_HEAD - 14} width={x(day, toMin) - x(day, fromMin)} height={10} fill="var(--shade-3)" />
              {light !== null && (
                <>
                  <rect
                    x={x(day, light.riseMin)}
                    y={PLAIN_HEAD - 14}
                    width={x(day, light.setMin) - x(day, light.riseMin)}
                    height={10}
                    fill="var(--paper)"
                    stroke="var(--ink)"
                    strokeWidth={0.8}
                  />
                  <text x={x(day, each < ROOMY_PX ? toMin : light.setMin)} y={13} fontSize={TYPE.label} textAnchor="end">
                    {each < ROOMY_PX ? "" : "light "}
                    {clockText(light.riseMin)} to {clockText(light.setMin)}
                  </text>
                </>
              )}
              {hasTide && (
                <TideLine day={day} tides={tides} between={[fromMin, toMin]} x={(minutes) => x(day, minutes)} y={waterY} foot={HEAD - 4} />
              )}
              {closures
                .filter((c) => c.day === day)
                // What is closed stands over the water that there is.
                .sort((a, b) => Number(a.kind === "closed") - Number(b.kind === "closed"))
                .map((c) => (
                  <g key={c.id}>
                    <rect
                      x={x(day, minutesOf(c.from)!)}
                      y={PLAIN_HEAD - 14}
                      width={Math.max(2, x(day, minutesOf(c.to)!) - x(day, minutesOf(c.from)!))}
                      height={10}
                      fill={c.kind === "closed" ? "var(--short)" : "var(--zone)"}
                      stroke="var(--ink)"
                      strokeWidth={0.8}
                    />
                    <title>{`${c.kind === "closed" ? "closed" : "water"} ${c.from} to ${c.to}${c.why === "" ? "" : `, ${c.why}`}`}</title>
                  </g>
                ))}
              {[3, 6, 9, 12, 15, 18, 21]
                .filter((h) => h * 60 >= fromMin && h * 60 <= toMin)
                .map((h) => (
                  <g key={h}>
                    <line x1={x(day, h * 60)} x2={x(day, h * 60)} y1={PLAIN_HEAD - 4} y2={height - 18} stroke="var(--grid)" />
                    <text
                      x={x(day, h * 60)}
                      y={height - 5}
                      fontSize={TYPE.label}
                      textAnchor={h * 60 === fromMin ? "start" : "middle"}
                      className="mono"
                    >
                      {String(h).padStart(2, "0")}
                    </text>
                  </g>
                ))}
            </g>
          );
        })}
        {tasks.map((t) => {
          if (t.day === null) return null;
          const from = minutesOf(t.from)!;
          const [x0, x1] = [x(t.day, from), x(t.day, endMin({ fromMin: from, hours: t.hours }))];
          const verdict = worst.get(t.id);
          const y = HEAD + 2 + (lanes.get(t.id) ?? 0) * LANE;
          const w = Math.max(10, x1 - x0);
          // A name goes on beyond its bar where nothing stands in its lane.
          const nextX = Math.min(
            x(t.day, toMin) + 6,
            ...tasks
              .filter((o) => o.day === t.day && o.id !== t.id && lanes.get(o.id) === lanes.get(t.id) && minutesOf(o.from)! >= from)
              .map((o) => x(t.day!, minutesOf(o.from)!)),
          );
          const fits = Math.floor((nextX - x0 - 8) / LETTER_PX);
          return (
            // biome-ignore lint/a11y/useSemanticElements: there is no button within a drawing
            <g
              key={t.id}
              role="button"
              tabIndex={0}
              aria-pressed={chosen === t.id}
              aria-label={`${t.name}, ${t.from}, ${t.hours} hours`}
              className="cursor-pointer"
              onClick={() => choose(t.id)}
              onKeyDown={(e) => {
                if (e.key === "Enter" || e.key === " ") {
                  e.preventDefault();
                  choose(t.id);
                }
              }}
            >
              <rect
                x={x0}
                y={y}
                width={w}
                height={LANE - 4}
                fill="var(--paper)"
                stroke={verdict === "short" ? "var(--short)" : "var(--ink)"}
                strokeWidth={chosen === t.id ? 2.6 : 1.4}
                strokeDasharray={verdict === "unknown" ? "4 3" : undefined}
              />
              <text
                x={x0 + 4}
                y={y + 14}
                fontSize={TYPE.label}
                className={verdict === "short" ? "v-short" : ""}
                style={verdict === "short" ? { fill: "var(--short-figure)" } : undefined}
              >
                {t.name.length > fits ? `${t.name.slice(0, Math.max(1, fits - 1))}…` : t.name}
              </text>
              <title>{`${t.name}, ${t.from}, ${t.hours} h${t.people.length === 0 ? "" : `, ${t.people.join(", ")}`}`}</title>
            </g>
          );
        })}
      </svg>
    </div>
  );
};
