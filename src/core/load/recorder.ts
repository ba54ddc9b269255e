/* Where the recorder stands, compared: what then crosses the air, and how long is still recorded when a link is down (ours). */

import { type Load, type LoadInput, loadOf, type Recorder } from "./load";
import { fillOf, narrowestOf } from "./narrowest";

export interface RecorderAnswer {
  readonly recorder: Recorder;
  /** Through a place both ways, Mbps, and the fullest air of the job with its share. */
  readonly atPlaceMbps: number;
  readonly fullest: { readonly placeId: string; readonly fill: number } | null;
  /** Recording goes on where a camera stands when its link is down. */
  readonly keepsWhenDown: boolean;
}

const passingAt = (load: Load, placeId: string): number => {
  const at = load.places.findIndex((p) => p.id === placeId);
  return at < 0 ? 0 : load.passing.worst[at * 2]! + load.passing.worst[at * 2 + 1]!;
};

/** @param placeId whose traffic is compared. */
export const recorderAnswers = (input: LoadInput, recorders: readonly Recorder[], placeId: string): RecorderAnswer[] =>
  recorders.map((recorder) => {
    const load = loadOf({ ...input, recorder });
    const air = load.places.flatMap((p, i) => (p.kind === "air" ? [i] : []));
    const fullest = narrowestOf(load, "worst", air);
    return {
      recorder,
      atPlaceMbps: passingAt(load, placeId),
      fullest:
        fullest === null
          ? null
          : { placeId: load.places[fullest]!.id, fill: fillOf(load, "worst", fullest) / load.places[fullest]!.mayUse },
      keepsWhenDown: recorder.at === "each",
    };
  });

/** Hours that a store lasts at a rate; null where nothing is recorded. */
export const hoursKept = (storeGb: number, mbps: number): number | null => (mbps > 0 ? (storeGb * 8000) / (mbps * 3600) : null);
