/* What one unit comes to on each of its channels while all others stay: for a single mend. */
import { type AirJob, unitMaker } from "./job";
import { judgeAir } from "./judge";
import type { Channel } from "./mask";
import { compareScores, heldTo, type Score, scoreOf } from "./objective";
import { type ChannelOption, optionsOf, type RadarSchool, type WidthSchool } from "./options";

export interface Move {
  readonly channel: Channel;
  readonly radar: boolean;
  /** Of the whole job. */
  readonly score: Score;
}

/** The best channels of one unit, the best first; empty for a unit that is not there. @throws nothing. */
export const movesOf = (job: AirJob, unitId: string, widths: WidthSchool, radar: RadarSchool, goOn: () => boolean = () => true): Move[] => {
  const unit = job.units.find((u) => u.id === unitId);
  if (unit === undefined) return [];
  const on = unitMaker(job);
  const options = new Map(job.units.map((u) => [u.id, optionsOf({ ...u, locked: false }, on, widths, radar)]));
  const held = (id: string): number => heldTo(Math.max(0, ...(options.get(id) ?? []).map((o) => o.aloneMultiple)));
  const radarOf = (id: string, o: ChannelOption | null): boolean =>
    id === unitId ? (o?.radar ?? false) : (options.get(id)?.find((x) => x.today)?.radar ?? false);
  const out: Move[] = [];
  for (const option of options.get(unitId) ?? []) {
    if (!goOn()) break;
    const judged = judgeAir(job, new Map([[unitId, option.channel]]), on);
    out.push({
      channel: option.channel,
      radar: option.radar,
      score: scoreOf(
        job,
        judged,
        (u) => (u.id === unitId ? option.channel : u.channel),
        (u) => radarOf(u.id, option),
        (u) => u.id === unitId && !option.today,
        (u) => held(u.id),
      ),
    });
  }
  return out.sort((a, b) => compareScores(a.score, b.score) || a.channel.centreMhz - b.channel.centreMhz);
};
