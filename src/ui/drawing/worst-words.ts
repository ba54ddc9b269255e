import { type LinkResult, MET_WITHIN_M } from "@/core/link";
import { cutMiddle } from "../wording/names";
import { alongText, lengthText, type Units } from "../wording/numbers";

/** A normal error lies within this many sigmas in 8 cases of 10. */
const EIGHT_OF_TEN = 1.2816;
const LEAST_SIGMA_M = 0.05;

const sideText = (units: Units, missM: number): string =>
  missM > 0 ? `${lengthText(units, missM)} short` : `${lengthText(units, -missM)} spare`;
const spreadText = (units: Units, missM: number, sigmaM: number): string => {
  const [good, bad] = [missM - EIGHT_OF_TEN * sigmaM, missM + EIGHT_OF_TEN * sigmaM];
  return good > 0 === bad > 0
    ? `${lengthText(units, Math.min(Math.abs(good), Math.abs(bad)))} to ${lengthText(units, Math.max(Math.abs(good), Math.abs(bad)))}`
    : `${sideText(units, bad)} to ${sideText(units, good)}`;
};

/** The large figure of the worst place and the lines beside it, last line last. */
export const worstWords = (
  result: LinkResult,
  units: Units,
  nearName: string,
): { readonly big: string; readonly lines: readonly string[]; readonly spread: boolean } => {
  const { worst, policyShare, sigmaM } = result.clearance;
  if (worst === null) return { big: "", lines: [], spread: false };
  const short = worst.missM > MET_WITHIN_M;
  const sideways = worst.side === "left" || worst.side === "right";
  const big = lengthText(units, Math.abs(worst.missM), Math.abs(worst.missM) >= 20 ? 0 : 1);
  const lacks = sideways ? `too near on the ${worst.side}` : policyShare > 0 ? "into the zone" : "into the line of sight";
  const owner = worst.ownerName === null ? (worst.owner.kind === "ground" ? ", ground" : "") : `, ${cutMiddle(worst.ownerName, 26)}`;
  const spread = sigmaM !== null && sigmaM > LEAST_SIGMA_M;
  return {
    big,
    spread,
    lines: [
      ...(spread ? [`${spreadText(units, worst.missM, sigmaM)} in 8 cases of 10`] : []),
      `${short ? lacks : "to spare"}${owner}`,
      `${alongText(units, worst.atM)} from ${cutMiddle(nearName, 22)}`,
    ],
  };
};
