import { type LinkResult, MET_WITHIN_M } from "@/core/link";
import { WALL_OFFSET_M } from "@/core/obstacles";
import { KeyPlan } from "../../drawing/strips";
import { bearingText, distanceText, lengthText, type Units } from "../../wording/numbers";
import { troubleText } from "../../wording/troubles";
import { Headline } from "./headline";
import type { OpenSection } from "./use-open-section";

/** What the drawing alone says of the path, in one line. */
const pathWords = (shown: LinkResult, units: Units): string => {
  const w = shown.clearance.worst;
  if (shown.clearance.unknownGroundM > 0) return "the ground is not known all along";
  if (w === null) return "nothing comes near the path";
  return w.missM > MET_WITHIN_M ? `the path is ${lengthText(units, w.missM)} short` : `the path is clear by ${lengthText(units, -w.missM)}`;
};

/** The verdict of the link in one word, its reason beside it; between which ends, on which bearings; and what the drawing says. */
export const SectionHeader = ({ open, narrow }: { open: OpenSection; narrow: boolean }) => {
  const { verdict, profile, evaluation, shown, found, units, year } = open;
  const { near, far, link } = open.bundle;
  const laterYear = year === open.firstYear ? null : year;
  const result = evaluation?.result ?? null;
  // What the air or the network makes of it is named where it is worse than what is found of the link itself.
  const besides = open.besides;
  return (
    <Headline
      verdict={verdict}
      nearName={near.name}
      farName={far.name}
      label={link.label}
      narrow={narrow}
      beside={
        evaluation !== null &&
        !narrow && (
          <div className="absolute right-3 top-2">
            <KeyPlan
              path={evaluation.path}
              verdictShort={shown?.clearance.verdict === "short"}
              worstAtM={shown?.clearance.worst?.atM ?? null}
            />
          </div>
        )
      }
    >
      <p className={`m-0 text-body leading-[18px] ${narrow ? "" : "truncate"}`}>
        {distanceText(units, profile.pathM)}, bearing {bearingText(profile.nearBearingDeg)} true (
        {bearingText(profile.nearBearingDeg - profile.nearDeclinationDeg + 360)} magnetic), back {bearingText(profile.farBearingDeg)}
        {profile.declinationInModelYears ? "" : ", magnetic extrapolated"}
      </p>
      <p className="m-0 flex items-center gap-1.5 truncate text-line leading-[18px]">
        {laterYear !== null ? (
          <strong data-testid="later-year">As it will stand in {laterYear}, if nobody cuts.</strong>
        ) : (
          <>
            {verdict !== "clear" && (besides !== null || found[0] !== undefined) && (
              <strong className={`font-heading v-${verdict}`} data-testid="headline-trouble">
                {troubleText(besides ?? found[0]!.code)}
              </strong>
            )}
            {shown !== null && (
              <span className="text-ink-2" data-testid="path-state">
                {verdict !== "clear" && "· "}
                {pathWords(shown, units)}
                {result !== null && (result.geometry.nearWallOf !== null || result.geometry.farWallOf !== null)
                  ? `; mount taken ${lengthText(units, WALL_OFFSET_M)} off its wall`
                  : ""}
              </span>
            )}
          </>
        )}
      </p>
    </Headline>
  );
};
