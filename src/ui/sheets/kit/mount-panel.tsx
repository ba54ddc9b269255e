"use client";
import { type KitFields, type KitSite, kitSiteOf, type SiteKit, WALLS } from "@/contract";
import { Choice, Field } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { ParsedField } from "../../controls/parsed-field";
import { UnitField } from "../../controls/unit-field";
import { figure } from "../../wording/numbers";
import { readNames, readSizes } from "../../wording/read";

/** Pole, wall, brackets and fixings of a site, with the wind on them. Every field is saved as it is typed. */
export const MountPanel = ({
  siteId,
  name,
  kit,
  now,
  change,
  site,
  radios,
}: {
  siteId: string;
  name: string;
  kit: KitFields;
  now: () => KitFields;
  change: (set: Partial<KitFields>) => void;
  site: SiteKit;
  /** How many radios hang there. */
  radios: number;
}) => {
  const of = kitSiteOf(kit, siteId);
  const set = (fields: Partial<KitSite>): void =>
    change({ sites: { ...now().sites, [siteId]: { ...kitSiteOf(now(), siteId), ...fields } } });
  const load = site.wind?.load;
  return (
    <section aria-label={`Mount and wall at ${name}`} className="pt-2">
      <h3 className="m-0 text-body font-bold">{name}</h3>
      {load !== undefined && (
        <p className="m-0 text-line" data-testid="wind">
          {site.wind!.name}: <span className="figure">{figure(load.faceN + load.poleN)} N</span> on face and pole at{" "}
          {figure(site.wind!.gustMS)} m/s, {figure(load.momentNm)} N·m about the upper bracket, pull there{" "}
          <span className="figure">{figure(load.pullN)} N</span>, {figure(load.pullPerScrewN)} a screw; factor {figure(kit.fixingFactor, 1)}
          : <span className={`figure v-${load.verdict}`}>{figure(load.asksPullN)} N</span>. A qualified person checks this; no mast and no
          guy is designed here.
        </p>
      )}
      <div className="mt-1.5 grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-x-5 gap-y-2.5">
        {radios > 1 && (
          <Choice label={`The ${radios} radios hang`} value={of.poles} onChange={(e) => set({ poles: e.target.value as KitSite["poles"] })}>
            <option value="each">each on a pole of its own</option>
            <option value="one">all on one pole</option>
          </Choice>
        )}
        <NumberField label="Pole" unit="mm" optional value={of.poleMm} least={5} most={500} onChange={(poleMm) => set({ poleMm })} />
        <Choice label="Bracket" value={of.newBracket ? "new" : "there"} onChange={(e) => set({ newBracket: e.target.value === "new" })}>
          <option value="new">a new one</option>
          <option value="there">one is there and stays</option>
        </Choice>
        <Choice label="Wall" value={of.wall} onChange={(e) => set({ wall: e.target.value as KitSite["wall"] })}>
          {WALLS.map((w) => (
            <option key={w} value={w}>
              {w === "unknown" ? "not known" : w}
            </option>
          ))}
        </Choice>
        <Field label="What is behind it" value={of.behind} maxLength={120} onChange={(e) => set({ behind: e.target.value })} />
        <NumberField
          label="Screws a bracket"
          whole
          value={of.screwsPerBracket}
          least={1}
          most={20}
          onChange={(v) => v !== null && set({ screwsPerBracket: v })}
        />
        <UnitField
          quantity="height"
          label="Brackets apart"
          value={of.bracketsApartM}
          allowEmpty={false}
          least={0.1}
          most={5}
          onChange={(v) => v !== null && set({ bracketsApartM: v })}
        />
        <UnitField
          quantity="height"
          label="Off the wall"
          value={of.standOffM}
          allowEmpty={false}
          most={3}
          onChange={(v) => v !== null && set({ standOffM: v })}
        />
        <UnitField
          quantity="height"
          label="Pole above the bracket"
          value={of.poleAboveM}
          allowEmpty={false}
          most={12}
          onChange={(v) => v !== null && set({ poleAboveM: v })}
        />
        <NumberField
          label="A fixing holds, pull"
          unit="N"
          optional
          value={of.pullHoldN}
          least={1}
          most={1_000_000}
          onChange={(pullHoldN) => set({ pullHoldN })}
        />
        <NumberField
          label="A fixing holds, across"
          unit="N"
          optional
          value={of.shearHoldN}
          least={1}
          most={1_000_000}
          onChange={(shearHoldN) => set({ shearHoldN })}
        />
        <Field label="Where that stands" value={of.holdSource} maxLength={200} onChange={(e) => set({ holdSource: e.target.value })} />
        <NumberField label="Ice all round" unit="mm" optional value={of.iceMm} least={0} most={200} onChange={(iceMm) => set({ iceMm })} />
        <UnitField
          quantity="height"
          label="Step off the ladder at"
          value={of.stepOffM}
          most={60}
          onChange={(stepOffM) => set({ stepOffM })}
        />
      </div>
    </section>
  );
};

/** Wind to bear, what the van has, and who goes. */
export const VanPanel = ({ kit, now, change }: { kit: KitFields; now: () => KitFields; change: (set: Partial<KitFields>) => void }) => {
  const { wind } = kit;
  const setWind = (fields: Partial<KitFields["wind"]>): void => change({ wind: { ...now().wind, ...fields } });
  const list = (label: string, key: "sawsMm" | "laddersM", most: number, note: string) => (
    <ParsedField
      label={label}
      shown={kit[key].join(" ")}
      note={note}
      whenLeft
      read={readSizes(most)}
      take={(sizes) => change({ [key]: [...sizes] })}
    />
  );
  return (
    <section aria-label="Van and crew" className="pt-2">
      <h3 className="m-0 text-body font-bold">Wind to bear, van, crew</h3>
      <div className="mt-1.5 grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-x-5 gap-y-2.5">
        <NumberField
          label="Wind at the mounts' height"
          unit="m/s"
          optional
          value={wind.speedMS}
          least={1}
          most={120}
          onChange={(speedMS) => setWind({ speedMS })}
        />
        <Choice label="It is" value={wind.kind} onChange={(e) => setWind({ kind: e.target.value as "gust" | "mean" })}>
          <option value="gust">a gust of three seconds</option>
          <option value="mean">a mean over ten minutes</option>
        </Choice>
        {wind.kind === "mean" && (
          <NumberField
            label="Gust factor of the local code"
            optional
            value={wind.gustFactor}
            least={1}
            most={3}
            onChange={(gustFactor) => setWind({ gustFactor })}
          />
        )}
        <Field label="Where that stands" value={wind.source} maxLength={200} onChange={(e) => setWind({ source: e.target.value })} />
        <NumberField
          label="Factor on fixings"
          value={kit.fixingFactor}
          least={1}
          most={10}
          onChange={(v) => v !== null && change({ fixingFactor: v })}
        />
        {list("Saws and bits on the van, mm", "sawsMm", 500, "the holes they make, with spaces between")}
        {list("Ladders on the van, m", "laddersM", 60, "their lengths, with spaces between")}
        <ParsedField
          label="Who does the work"
          shown={kit.crew.join(", ")}
          note="names with commas between"
          whenLeft
          read={readNames}
          take={(crew) => change({ crew: [...crew] })}
        />
      </div>
    </section>
  );
};
