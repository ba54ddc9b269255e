"use client";
import { useState } from "react";
import type { Brief } from "@/contract";
import { COPPER_LIMIT_M, type ShapeAnswer, type ShapeKey, weighShapes } from "@/core/infra";
import { Choice } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { distanceText, figure, type Units } from "../../wording/numbers";

const SHAPE: Readonly<Record<ShapeKey, string>> = {
  copper: "Copper cable",
  fibre: "Fibre",
  stretch: "Stretch the Wi-Fi that is there",
  "outdoor-ap": "Outdoor access point with a small bridge",
  pair: "A pair of radios",
  hub: "A hub with remotes",
  relay: "A relay",
};
const VERDICT: Readonly<Record<ShapeAnswer["verdict"], string>> = { fits: "fits", poor: "possible", no: "does not do" };

const reasonText = (a: ShapeAnswer, q: { distanceM: number; needMbps: number }, units: Units): string => {
  switch (a.reason) {
    case "too-long-for-copper":
      return `longer than the ${distanceText(units, COPPER_LIMIT_M)} that copper carries`;
    case "separate-supplies":
      return "the buildings are fed apart: copper would carry earth and lightning current";
    case "no-duct-known":
      return "needs a clear duct, or a trench";
    case "too-long-to-stretch":
      return `${distanceText(units, q.distanceM)} and two walls are too far for it`;
    case "too-slow":
      return `carries less than the ${figure(q.needMbps)} Mbps asked`;
    case "too-long-for-ap":
      return "too far for phones and tablets to answer it";
    case "only-one-far-end":
      return "worth it from two far ends up";
    case "shared-air":
      return a.key === "hub" ? "all remotes share its air" : "shares its air with everybody near";
    case "two-hops":
      return "where nothing sees directly; two hops to mount, power and mind";
    default:
      return a.key === "copper"
        ? "usually better than radio"
        : a.key === "fibre"
          ? "usually better than radio where the way is clear"
          : "where both ends see each other";
  }
};

const money = (value: number): string => figure(value).replace(/\B(?=(\d{3})+(?!\d))/g, ",");
/** A link as a question of shape. */
export interface Way {
  readonly id: string;
  readonly name: string;
  readonly nearName: string;
  readonly distanceM: number;
  readonly needMbps: number;
  /** Far ends that the near end serves, this one among them. */
  readonly together: number;
}

/** The ways of joining the buildings, weighed; the choice and its reason. */
export const ShapesTab = ({
  doc,
  change,
  ways,
  units,
}: {
  doc: Brief;
  change: (fields: Partial<Brief>) => void;
  ways: readonly Way[];
  units: Units;
}) => {
  const [wayId, setWayId] = useState("");
  const [together, setTogether] = useState(false);
  const way = ways.find((w) => w.id === wayId) ?? ways[0];
  const farEnds = together ? (way?.together ?? 1) : 1;
  const needMbps = way?.needMbps ?? 10;
  const s = doc.shapes;
  const set = (fields: Partial<Brief["shapes"]>): void => change({ shapes: { ...s, ...fields } });
  const q = {
    distanceM: way?.distanceM ?? 100,
    needMbps,
    farEnds,
    duct: s.duct,
    suppliedApart: s.suppliedApart,
    trenchPerM: s.trenchPerM,
    subscriptionPerMonth: s.subscriptionPerMonth,
  };
  return (
    <div className="grid gap-4">
      <div className="fields-row grid grid-cols-4 gap-x-5">
        <Choice label="Duct between them" value={s.duct} onChange={(e) => set({ duct: e.target.value as typeof s.duct })}>
          <option value="unknown">not known</option>
          <option value="clear">a clear one</option>
          <option value="none">none</option>
        </Choice>
        <Choice
          label="Supply and earth"
          value={s.suppliedApart ? "apart" : "one"}
          onChange={(e) => set({ suppliedApart: e.target.value === "apart" })}
        >
          <option value="apart">separate, or not known</option>
          <option value="one">one earthing system, confirmed</option>
        </Choice>
        <NumberField
          label="Trench, a metre"
          value={s.trenchPerM}
          least={0}
          most={1e6}
          onChange={(v) => v !== null && set({ trenchPerM: v })}
        />
        <NumberField
          label="Subscription saved, a month"
          value={s.subscriptionPerMonth}
          least={0}
          most={1e6}
          onChange={(v) => v !== null && set({ subscriptionPerMonth: v })}
        />
      </div>
      <div className="grid grid-cols-[2fr_2fr] items-end gap-x-5">
        <Choice label="For the way" value={way?.id ?? ""} onChange={(e) => setWayId(e.target.value)}>
          {ways.length === 0 && <option value="">100 m, since no link is drawn yet</option>}
          {ways.map((w) => (
            <option key={w.id} value={w.id}>
              {w.name}, {distanceText(units, w.distanceM)}
            </option>
          ))}
        </Choice>
        {(way?.together ?? 1) > 1 && (
          <label className="flex min-h-8 items-center gap-2">
            <input type="checkbox" className="h-6 w-6" checked={together} onChange={(e) => setTogether(e.target.checked)} />
            all {way?.together} far ends of {way?.nearName} together
          </label>
        )}
      </div>
      <p className="cap m-0">
        It must carry {figure(needMbps)} Mbps. Rates and costs are rough, to order the shapes by; they are no offer.
      </p>
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b border-ink text-left text-note text-ink-2 [&>th]:py-1 [&>th]:pr-3 [&>th]:font-normal">
            <th scope="col">Choose</th>
            <th scope="col">Shape</th>
            <th scope="col">For this job</th>
            <th scope="col" className="text-right">
              Mbps
            </th>
            <th scope="col" className="text-right">
              Mounts outdoors
            </th>
            <th scope="col" className="text-right">
              Rough cost
            </th>
            <th scope="col" className="text-right">
              Paid back in
            </th>
          </tr>
        </thead>
        <tbody>
          {weighShapes(q).map((a) => (
            <tr key={a.key} className={`border-b border-rule [&>td]:py-1.5 [&>td]:pr-3 ${s.chosen === a.key ? "bg-band" : ""}`}>
              <td>
                <input
                  type="radio"
                  name="shape"
                  className="h-6 w-6"
                  aria-label={SHAPE[a.key]}
                  checked={s.chosen === a.key}
                  onChange={() => set({ chosen: a.key })}
                />
              </td>
              <td className="font-figure">{SHAPE[a.key]}</td>
              <td>
                <b className={a.verdict === "no" ? "text-short-figure" : ""}>{VERDICT[a.verdict]}</b>: {reasonText(a, q, units)}
              </td>
              <td className="text-right font-mono">{figure(a.mbps)}</td>
              <td className="text-right font-mono">{a.outdoorMounts}</td>
              <td className="text-right font-mono">{money(a.cost)}</td>
              <td className="text-right">
                <span className="whitespace-nowrap font-mono">{a.paybackMonths === null ? "never" : `${a.paybackMonths} months`}</span>
                {a.underTrench !== null && a.underTrench > 0 && <span className="cap block">{money(a.underTrench)} under the trench</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <label className="field">
        <span>Why this one, and why not a cable</span>
        <textarea
          rows={2}
          maxLength={1000}
          className="border border-rule bg-paper p-1.5"
          value={s.reason}
          onChange={(e) => set({ reason: e.target.value })}
        />
      </label>
    </div>
  );
};
