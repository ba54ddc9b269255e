/* What the rack makes of the demo's links; nothing in the program knows their names, and mirrored or renamed they come out the same. */
import { beforeAll, describe, expect, test } from "vitest";
import { NO_LIMITS, openRack, plannedCandidate, type Rack, type RackLimits, serves } from "../src/core/rack";
import { type DemoOptions, generateDemo } from "./generate";
import { gridsOf, plannedPath } from "./plans";
import { demoHardware } from "./seed";

const hardware = demoHardware();
const ALIKE: RackLimits = { ...NO_LIMITS, alike: true };
const backwards = (name: string): string => [...name].reverse().join("");

interface Racks {
  readonly [link: string]: { readonly rack: Rack; readonly planned: ReturnType<typeof plannedCandidate> };
}

const racksOf = (options?: DemoOptions): Racks => {
  const demo = generateDemo(options);
  const grids = gridsOf(demo);
  const wanted = ["office ice first idea", "office rope ", "office skarn ", "office tarrow ", "office exchange behind the glass"];
  const out: Record<string, Racks[string]> = {};
  // In the order of the generator: names may be others.
  const plain = options === undefined ? demo : generateDemo();
  demo.links.forEach((l, i) => {
    const key = `${plain.links[i]!.near} ${plain.links[i]!.far} ${plain.links[i]!.label}`;
    if (!wanted.includes(key)) return;
    const { planned, profile } = plannedPath(demo, grids, l);
    const open = openRack(planned, profile, hardware);
    while (open.drawNext(ALIKE));
    out[key.split(" ")[1]!] = { rack: open.arrange(ALIKE), planned: plannedCandidate(planned, profile) };
  });
  return out;
};

const names = (rack: Rack): string[] => rack.rows.map((r) => r.best.pair.near.name);
const group = (rack: Rack, code: string) => rack.rejected.find((g) => g.code === code);

describe("the demo's links", () => {
  let racks: Racks;
  beforeAll(() => {
    racks = racksOf();
  }, 120_000);

  test("Ice House: a small face at 5 GHz or a pair at 60, never the great dish, which is too hot by a figure", () => {
    const { rack, planned } = racks.ice!;
    expect(planned.found[0]!.code).toBe("overloaded");
    expect(planned.multiple).toBe(0);
    expect(names(rack)).toContain("Eider Small");
    expect(rack.rows[0]!.best.faceCm!).toBeLessThan(30);
    expect(names(rack)).not.toContain("Razorbill Grand");
    const grand = group(rack, "hot")!.candidates.find((c) => c.pair.near.name === "Razorbill Grand")!;
    expect((grand.refusal as { overDb: number }).overDb).toBeGreaterThan(0);
    for (const r of rack.rows) expect(serves(r.best)).toBe(true);
  });

  test("Rope Walk at 60 GHz reads its own clearance, less short than at 5 GHz", () => {
    const { rack } = racks.rope!;
    const missM = (band: string): number => rack.bands.find((b) => b.band === band)!.best!.clearance!.missM!;
    expect(missM("60")).toBeGreaterThan(0);
    expect(missM("60")).toBeLessThan(missM("5") - 0.5);
  });

  test("Skarn Light stops on its permission at 6 GHz, and a pair at 5 GHz does without one", () => {
    const { rack, planned } = racks.skarn!;
    expect(planned.found[0]!.code).toBe("permission");
    expect(rack.bands.find((b) => b.band === "6")!.best!.refusal).toMatchObject({ code: "permission" });
    const five = rack.bands.find((b) => b.band === "5")!.best!;
    expect(five.refusal).toBeNull();
    expect(five.option!.permission).toBeNull();
    expect(serves(five)).toBe(true);
  });

  test("Tarrowfell: nothing gets over the saddle, and it is the path that is short", () => {
    const { rack, planned } = racks.tarrow!;
    expect(rack.rows).toEqual([]);
    expect(planned.found[0]!.about).toBe("clearance");
    const weak = group(rack, "weak")!.candidates;
    // The nearest of all to doing it are the longest dishes.
    expect(weak[0]!.faceCm!).toBeGreaterThan(60);
    expect((weak[0]!.refusal as { lacksDb: number }).lacksDb).toBeGreaterThan(10);
  });

  test("behind the coated glass the path is short for all that is left, in every band", () => {
    const { rack } = racks.exchange!;
    for (const r of rack.rows) expect(r.best.clearance!.verdict).toBe("short");
    expect(rack.bands.find((b) => b.band === "60")!.best!.refusal).not.toBeNull();
  });

  test("renamed and mirrored it is the same rack", () => {
    const other = racksOf({ anchor: { latDeg: -12.3, lonDeg: -140.2 }, mirror: true, rename: backwards });
    for (const [link, { rack }] of Object.entries(racks)) {
      const there = other[link]!.rack;
      const serving = (r: Rack): string[] => r.rows.flatMap((row) => (serves(row.best) ? [row.best.pair.near.name] : []));
      expect(serving(there)).toEqual(serving(rack));
      // Those that do not serve stand by how likely they are to: on another globe by a draw in a thousand more or less.
      expect(names(there).sort()).toEqual(names(rack).sort());
      expect(there.rejected.map((g) => [g.code, g.candidates.length])).toEqual(rack.rejected.map((g) => [g.code, g.candidates.length]));
    }
  }, 120_000);

  test("everything that was tried is somewhere", () => {
    for (const { rack } of Object.values(racks)) {
      const { counts } = rack;
      expect(counts.rows + counts.folded + counts.rejected).toBe(counts.tried);
      expect(
        rack.rows.reduce((n, r) => n + 1 + r.widths.length + r.beats.length, 0) +
          rack.rejected.reduce((n, g) => n + g.candidates.length, 0),
      ).toBe(counts.tried);
    }
  });
});
