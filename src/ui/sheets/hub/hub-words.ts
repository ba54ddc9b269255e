import type { HubSector } from "@/contract";
import type { JudgedRemote, JudgedSector } from "@/core/hub";
import type { Verdict } from "@/core/link";
import { rateText } from "../../wording/gear";
import { dbText, figure } from "../../wording/numbers";
import { VERDICT_WORD } from "../../wording/verdicts";
import { sectorName } from "./hub-start";

/** What is found of one remote, in a sentence; null when nothing is. */
export const remoteSentence = (r: JudgedRemote, sector: string): string | null => {
  const place =
    r.place.where === "in"
      ? ""
      : `lies ${figure(r.place.byDeg, 1)}° ${r.place.where} the ${sector} beam, which takes ${dbText(-r.place.lossDb)}`;
  if (!r.joins) return `${r.name}: its radios make no link with this sector.`;
  if (r.kept === null && r.service === "short")
    return `${r.name} ${place === "" ? "" : `${place}. It `}holds nothing, and nothing is asked of it yet.`;
  const need = r.kept === null ? 0 : r.kept.toFar.needMbps + r.kept.toNear.needMbps;
  if (r.kept !== null && r.service === "short")
    return `${r.name} ${place === "" ? "" : `${place}. It `}lacks ${rateText(Math.max(0.1, (1 - r.kept.multiple) * need))} of the ${rateText(need)} Mbps that it asks.`;
  if (r.service === "tight") return `${r.name} ${place}. It holds all the same, on a side lobe that nobody promises.`;
  if (r.clearance !== "clear") return `${r.name}: the path itself is ${VERDICT_WORD[r.clearance].toLowerCase()}.`;
  // Something that only its own section looks at.
  if (place === "" && r.verdict !== "clear") return `${r.name}: its own section says ${VERDICT_WORD[r.verdict]}.`;
  return place === "" ? null : `${r.name} ${place}, and holds.`;
};

/** What is asked of the air beyond what may be used of it, and who takes most. */
export const airSentence = ({ air, remotes }: JudgedSector, sector: string): string => {
  const most = [...air.remotes].sort((a, b) => b.there + b.back - (a.there + a.back))[0];
  const name = remotes.find((r) => r.linkId === most?.linkId)?.name ?? "";
  if (!Number.isFinite(air.asked)) return `The ${sector} air is not enough for ${name}, which holds nothing.`;
  return `The ${sector} air is ${figure((air.asked - air.mayUse) * 100)} % over what may be used: ${name} alone takes ${figure(((most?.there ?? 0) + (most?.back ?? 0)) * 100)} %.`;
};

/** Why the hub is what it is, in one sentence: what touches all of its remotes before what touches one. */
export const hubReason = (
  judged: readonly (JudgedSector | null)[],
  sectors: readonly Pick<HubSector, "id" | "azimuthDeg">[],
  verdict: Verdict,
): string | null => {
  const named = judged.flatMap((j, i) => (j === null ? [] : [{ j, name: sectorName(sectors[i]!, sectors) }]));
  const air = named.find(({ j }) => j.airVerdict === verdict && verdict !== "clear");
  if (air !== undefined) return airSentence(air.j, air.name);
  for (const { j, name } of named)
    for (const r of j.remotes) {
      const words = r.verdict === verdict && verdict !== "clear" ? remoteSentence(r, name) : null;
      if (words !== null) return words;
    }
  return null;
};
