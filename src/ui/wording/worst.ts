import type { LinkVerdict } from "@/contract";
import { lengthText, type Units } from "./numbers";
import { troubleText } from "./troubles";

/** What is worst about a link, in a few words: of its path where that decides, else of what does. */
export const worstText = (l: LinkVerdict, units: Units): string => {
  if (l.trouble !== null && l.verdict !== l.clearanceVerdict) return troubleText(l.trouble);
  if (l.worst === null) return "ground not known";
  const name = l.worst.name ?? (l.worst.kind === "ground" ? "the ground" : l.worst.kind);
  return l.worst.missM > 0
    ? `${lengthText(units, l.worst.missM)} short, ${name}`
    : `${lengthText(units, -l.worst.missM)} to spare, ${name}`;
};
