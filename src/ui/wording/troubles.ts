import type { LinkVerdict } from "@/contract";
import type { FindingCode } from "@/core/link";

type Chained = NonNullable<LinkVerdict["chain"]>["code"];
type Aired = `air-${NonNullable<NonNullable<LinkVerdict["inAir"]>["trouble"]> | "unlike" | "across" | "old-scan"}`;

const WORDS: Partial<Readonly<Record<FindingCode | "hardware-missing" | "too-far" | "fault" | "wiring-short" | Chained | Aired, string>>> =
  {
    short: "in the way",
    "blocked-no-height": "in the way, no height clears it",
    "little-spare": "little room",
    "mount-on-ground": "mount on the ground",
    "over-rule": "above what the rules allow",
    "permission-ended": "permission ended",
    "permission-not-yet": "permission not yet in force",
    "not-sure-to-serve": "not sure to serve",
    "no-need": "no required rate",
    "too-far": "ends too far apart",
    fault: "cannot be worked out",
    overloaded: "receiver overloaded",
    damaging: "level would damage the receiver",
    "too-strong": "too strong",
    "too-weak": "too weak",
    "thin-margin": "little margin",
    "too-slow": "too slow for the need",
    permission: "permission open",
    "rule-forbids": "channel not allowed",
    "rule-below-radio": "radio above the limit",
    "radar-missing": "no radar detection",
    "wind-twist": "turned by wind",
    "hardware-missing": "radio not in the catalogue",
    "beyond-structure": "above what the structure carries",
    "ground-unknown": "ground not known",
    grows: "lost to growth",
    reflection: "reflection off the water",
    "barrier-unknown": "wall not known",
    "out-of-beam": "outside the beam",
    "elevation-mask": "too much upwards",
    "air-blinded": "blinded by a radio on its mast",
    "air-noise": "others' radios in its channel",
    "air-turns": "too many take turns on its channel",
    "air-bursts": "voice or control while others send",
    "air-isolation": "isolation on its mast not measured",
    "air-unlike": "its ends are on unlike channels",
    "air-across": "channel over two rows of the rules",
    "air-old-scan": "scan older than a year",
    "air-over": "more is asked of its air than it holds",
    "sector-over": "its hub's air is not enough for all",
    "port-over": "a port at its end is too slow",
    "feed-over": "the feed is too slow for all",
    "wiring-short": "its wiring does not fit",
    "chain-over": "what leads to it is too narrow",
    unsure: "measure the height that decides",
  };

/** A trouble in a few words, for a line of the register. */
export const troubleText = (code: string): string =>
  WORDS[code as FindingCode] ?? (code.startsWith("pairing-") ? "radios do not fit" : code);
