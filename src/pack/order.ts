import type { PackEnd, PackLevel, PackLink } from "../contract";
import { needsScrew, SCREW_BELOW_DEG } from "../core/aim";
import { figure } from "../ui/wording/numbers";
import { degText } from "./aim-figures";

/* The order of work at an end: what is done, and what is locked until when. A lock is a bar across the page, not a remark. */

export type OrderRow = { readonly step: string } | { readonly lock: string };

/** At the peak the radio decodes at least its slowest rate. */
export const isHeard = (level: PackLevel): boolean => level.dbm >= level.leastDbm;

const minutesText = (s: number): string => (s < 120 ? `${s} s` : `${Math.round(s / 60)} minutes`);

/** Seconds for which a radio listens for radar before it sends, by the rule of its channel; null where it need not. */
export const radarWaitS = (l: PackLink): number | null => {
  const rules = [l.result.service.toFar, l.result.service.toNear].map((d) => d?.regulation);
  return rules.reduce<number | null>(
    (most, r) => (r?.status === "allowed" && r.radarWaitS !== null ? Math.max(most ?? 0, r.radarWaitS) : most),
    null,
  );
};

export const orderOf = (l: PackLink, end: PackEnd, other: PackEnd): OrderRow[] => {
  const wait = radarWaitS(l);
  const bw = end.azimuth?.beamwidthDeg ?? null;
  const sweep: OrderRow[] =
    end.azimuth === null || end.level === null
      ? [{ step: "This antenna is not found by turning: mount it as its sheet says, look along the bearing, and read the level." }]
      : [
          {
            step: `Coarse by landmark or compass, two bolts finger-tight. Steel near a compass turns it: stand two metres off the mast.${needsScrew(bw!, "scale") ? ` The beam is ${degText(bw!)}, under ${SCREW_BELOW_DEG}°: only the adjusting screw finds it.` : ""}`,
          },
          {
            step: `Sweep to each side in steps of ${degText(end.azimuth.stepDeg)} until the false peak has been passed, or the table ends. Let each reading settle. Write down every one, also where nothing is heard.`,
          },
          ...(isHeard(end.level)
            ? []
            : [
                {
                  step: `By the plan the level lies under what the radio needs (${figure(end.level.leastDbm)} dBm): there may be nothing to aim by. Settle what is open on the cover before anybody climbs.`,
                },
              ]),
          {
            step:
              end.azimuth.falsePeakDbm === null || end.azimuth.falsePeakDbm < end.level.leastDbm
                ? "Go back to the highest. Then tilt in the same way."
                : `A peak near ${figure(end.azimuth.falsePeakDbm)} dBm is a false one: the true peak lies ${figure(end.azimuth.falsePeakDeg!, 1)}° further. Go back to the highest, then tilt in the same way.`,
          },
        ];
  return [
    {
      step: "Risk screen of this end, read aloud by both. A stop holds, also without coverage; it is lifted by somebody else than who does the work.",
    },
    { step: "Mount and bracket. Earth bar and mast bonded by whoever is qualified for it." },
    { step: "Cable up with its drip loop; surge protection at both ends of it as the wiring says. Antenna or load on every port." },
    { lock: "Nothing is powered before the bond is made and checked" },
    {
      step: `Power on. ${wait === null ? "The radio starts." : `The radio listens ${minutesText(wait)} for radar before it sends: that is no fault.`} ${other.name} is told by phone.`,
    },
    ...sweep,
    { lock: "Nothing is tightened before the peak is found" },
    { step: "Tighten, a little on each bolt in turn. Read again: more than 1 dB lower, and it moved. Loosen, peak, tighten." },
    { lock: `Both ends are read after tightening: ${end.name} and ${other.name}` },
    { step: "Seal, label, photos of mount, plug, earth, and along the line. Laptop put back as it was. Leave clean." },
  ];
};

/** What two people say to one another, word for word, where one of them turns. */
export const callScript = (turns: PackEnd, reads: PackEnd): string[] => [
  `${turns.name} says: "Turning right by one step." Turns, takes the hand off, waits until it has settled, says: "Standing."`,
  `${reads.name} says the figure alone, twice: "Minus sixty-one, minus sixty-one." Never "better" or "worse".`,
  `${turns.name} repeats it and writes it down. A figure that was not repeated was not heard.`,
  `"Stop" from either, for any reason: hands off, tools down, both say what they see.`,
];
