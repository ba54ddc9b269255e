import type { Limits, SearchLimits, SiteLimits } from "@/contract";
import { bandText, euroText, SCHOOL_WORDS, supplyText } from "../../../wording/gear";
import { dbmText, figure, mbpsText, type Units } from "../../../wording/numbers";
import { faceText } from "./face-text";
import { searchOf, siteLimitsOf } from "./limits-of";

/** One limit as it is read back, and which fields it is made of. */
export interface LimitWords {
  readonly key: "price" | "face" | "bands" | "port" | "ends" | "radar" | "stock" | "site" | "weather" | "power" | "type";
  readonly words: string;
  readonly fields: readonly (keyof SearchLimits)[];
}

interface EndNames {
  readonly nearSiteId: string;
  readonly nearName: string;
  readonly farSiteId: string;
  readonly farName: string;
}

const faceWords = (near: SiteLimits, far: SiteLimits, ends: EndNames, units: Units): string => {
  const at = (cm: number, name: string): string => `up to ${faceText(cm, units)} at ${name}`;
  if (near.faceMostCm === null && far.faceMostCm === null) return "any face";
  if (near.faceMostCm === far.faceMostCm) return `faces up to ${faceText(near.faceMostCm, units)}`;
  return `faces ${[
    ...(near.faceMostCm === null ? [] : [at(near.faceMostCm, ends.nearName)]),
    ...(far.faceMostCm === null ? [] : [at(far.faceMostCm, ends.farName)]),
  ].join(", ")}`;
};

const siteWords = (near: SiteLimits, far: SiteLimits, ends: EndNames): string => {
  const one = (s: SiteLimits, name: string): string[] => {
    const parts = [
      ...(s.supplies === null ? [] : [supplyText(s.supplies.join(" or "))]),
      ...(s.poleMm === null ? [] : [`a ${figure(s.poleMm)} mm pole`]),
    ];
    return parts.length === 0 ? [] : [`${parts.join(" and ")} at ${name}`];
  };
  const all = [...one(near, ends.nearName), ...one(far, ends.farName)];
  return all.length === 0 ? "any supply and pole" : all.join(", ");
};

const weatherWords = ({ coldestC, hottestC }: SearchLimits): string => {
  if (coldestC === null && hottestC === null) return "any weather";
  return [
    ...(coldestC === null ? [] : [`down to ${figure(coldestC)} °C`]),
    ...(hottestC === null ? [] : [`up to ${figure(hottestC)} °C`]),
  ].join(" and ");
};

/** The limits in force as one sentence, limit by limit. */
export const limitWords = (limits: Limits, linkId: string, ends: EndNames, units: Units): readonly LimitWords[] => {
  const s = searchOf(limits, linkId);
  const near = siteLimitsOf(limits, ends.nearSiteId);
  const far = siteLimitsOf(limits, ends.farSiteId);
  return [
    { key: "price", words: s.priceMost === null ? "any price" : `${euroText(s.priceMost)} for both ends`, fields: ["priceMost"] },
    { key: "face", words: faceWords(near, far, ends, units), fields: [] },
    { key: "bands", words: s.bands === null ? "any band" : s.bands.map(bandText).join(" or "), fields: ["bands"] },
    { key: "port", words: s.portLeastMbps === null ? "any port" : `ports of ${mbpsText(s.portLeastMbps)}`, fields: ["portLeastMbps"] },
    {
      key: "ends",
      words: `${s.keep !== null ? `${s.keep === "near" ? ends.nearName : ends.farName} as it is` : s.alike ? "one radio for both ends" : "unlike ends too"}${s.likeForLike ? ", like for like" : ""}${s.family === null ? "" : `, family ${s.family}`}`,
      fields: ["alike", "keep", "likeForLike", "family"],
    },
    { key: "radar", words: s.noRadar ? "no radar channels" : "radar channels too", fields: ["noRadar"] },
    { key: "stock", words: s.stockOnly ? "only what is in stock" : "in stock or to order", fields: ["stockOnly"] },
    { key: "site", words: siteWords(near, far, ends), fields: [] },
    {
      key: "type",
      words:
        limits.oneTypeMost === null
          ? "own types per link"
          : `one type for all links${limits.oneTypeMost === 0 ? " if it costs no more" : ` for up to ${euroText(limits.oneTypeMost)} more`}`,
      fields: [],
    },
    { key: "weather", words: weatherWords(s), fields: ["coldestC", "hottestC"] },
    {
      key: "power",
      words: `power ${s.power === "target" ? `to ${dbmText(s.targetDbm)}` : SCHOOL_WORDS[s.power]}`,
      fields: ["power", "targetDbm"],
    },
  ];
};
