/* The rack as it travels out of a worker: plain values, each unit and candidate once. */
import { drawnAt, type OpenDraws, setByDraws, withPowers } from "./draw";
import { settingOf } from "./power";
import type { Candidate, EndSettings, Rack, RackRow, SchoolFigures, TakenSettings } from "./types";
import { type School, USUAL_GUARD, type WeighedOption } from "./weigh";

const endOf = (option: WeighedOption, which: "near" | "far"): EndSettings => {
  const end = option.plan[which];
  return {
    radioId: end.radio.id,
    antennaId: end.antenna?.id ?? null,
    powerDbm: (which === "near" ? option.toFar : option.toNear).powerDbm,
    feederLossDb: end.feederLossDb,
    connectorLossDb: end.connectorLossDb,
    portIndex: end.portIndex,
    interferenceDbm: end.interferenceDbm,
    aimAzimuthDeg: end.aim.azimuthDeg,
    aimTiltDeg: end.aim.tiltDeg,
  };
};

/** What a design is set to when a candidate is taken. */
export const settingsOf = (option: WeighedOption): TakenSettings => ({
  near: endOf(option, "near"),
  far: endOf(option, "far"),
  centreMhz: option.centreMhz,
  widthMhz: option.plan.widthMhz,
  frameShareToFar: option.plan.frameShareToFar,
});

const plainOption = (option: WeighedOption): NonNullable<Candidate["option"]> => {
  const { plan: _p, state: _s, far: _f, near: _n, ...rest } = option;
  return { ...rest, settings: settingsOf(option) };
};

/** A rack without what cannot leave a worker. */
export const plainRack = (rack: Rack): Rack => {
  const known = new Map<Candidate, Candidate>();
  const plain = (c: Candidate): Candidate => {
    let found = known.get(c);
    if (found === undefined) {
      found = c.option === null ? c : { ...c, option: plainOption(c.option as WeighedOption) };
      known.set(c, found);
    }
    return found;
  };
  return {
    ...rack,
    rows: rack.rows.map((r): RackRow => ({ best: plain(r.best), widths: r.widths.map(plain), beats: r.beats.map(plain) })),
    rejected: rack.rejected.map((g) => ({ ...g, candidates: g.candidates.map(plain) })),
    bands: rack.bands.map((b) => ({ ...b, best: b.best === null ? null : plain(b.best) })),
  };
};

/** Level over the ceiling of the densest rung, the worse way. */
const overDensestDb = (option: WeighedOption): number =>
  Math.max(
    ...[[option.far, option.toFar.powerDbm] as const, [option.near, option.toNear.powerDbm] as const].map(([way, dbm]) => {
      const densest = way.template.rungs[way.template.rungs.length - 1]!;
      return Math.min(dbm, densest.mostPowerDbm) + way.fixedDb - densest.ceilingDbm;
    }),
  );

/** The same candidate by each school of power, beside each other. */
export const schoolsOf = (option: WeighedOption, draws: OpenDraws, targetDbm: number): SchoolFigures[] =>
  (["enough", "target", "highest"] as const).map((name) => {
    const school: School = { name, targetDbm };
    const set = (way: WeighedOption["far"]): number =>
      settingOf(name, way.template.rungs, way.range, way.fixedDb, way.marginDb, USUAL_GUARD, targetDbm);
    const quick = withPowers(option, set(option.far), set(option.near));
    const by = name === "target" ? quick : setByDraws(quick, school, draws);
    const drawn = drawnAt(by, by.toFar.powerDbm, by.toNear.powerDbm, draws);
    // A target is missed where a radio can go no lower, or the rules no higher.
    const missed = [by.toFar, by.toNear].map((w) => w.levelDbm - targetDbm).sort((a, b) => Math.abs(b) - Math.abs(a))[0]!;
    const stepDb = Math.max(option.far.range.stepDb, option.near.range.stepDb);
    return {
      school: name,
      nearDbm: by.toFar.powerDbm,
      farDbm: by.toNear.powerDbm,
      levelDbm: Math.max(by.toFar.levelDbm, by.toNear.levelDbm),
      multiple: drawn?.p10 ?? by.sureMultiple,
      missedDb: name === "target" && Math.abs(missed) > stepDb + 0.5 ? missed : null,
      hotDb: Math.max(0, overDensestDb(by)),
    };
  });
