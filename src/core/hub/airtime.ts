/*
 * The air that the remotes of one sector share: what each asks of it, what is free, what each gets when all send at once by two
 * schools of sharing, and how many more of a device would fit (all ours but the contention, see contention.ts).
 */
import type { Access, AirtimeResult, ThroughputSchool } from "../radio";
import { sharedChannel, type Turn } from "./contention";

/** One way between the hub and a remote, at the modulation that it is planned with. */
export interface AirWay {
  readonly needMbps: number;
  /** Null where no modulation holds. */
  readonly rate: { readonly phyMbps: number; readonly airtime: AirtimeResult } | null;
}

export interface RemoteAir {
  readonly linkId: string;
  /** From the hub to the remote, and back. */
  readonly there: AirWay;
  readonly back: AirWay;
  readonly distanceM: number;
}

export interface AirPolicy {
  readonly school: ThroughputSchool;
  /** Of all of the air, kept free by the headroom school. */
  readonly freeShare: number;
  /** Each burst is asked for and granted, so that remotes that do not hear each other do not send together. */
  readonly grant: boolean;
  /** Remotes hear each other; null: nobody has looked. */
  readonly hearEachOther: boolean | null;
}

export interface RemoteShare {
  readonly linkId: string;
  /** Shares of all of the air; infinite where nothing holds and something is asked. */
  readonly there: number;
  readonly back: number;
  /** Mbps back that it gets when all send, by equal time and by equal turns; null by turns where a schedule gives time. */
  readonly equalTimeMbps: number;
  readonly equalTurnsMbps: number | null;
  /** Usable with the channel to itself, Mbps. */
  readonly thereMbps: number;
  readonly backMbps: number;
}

export interface SectorAir {
  readonly access: Access;
  readonly remotes: readonly RemoteShare[];
  /** Asked of all the air; where the frame has a fixed share each way, of the fuller way. */
  readonly asked: number;
  /** Of it what may be used. */
  readonly mayUse: number;
  /** What keeps the rest: the job's school, or remotes that cannot hear each other. */
  readonly keptBy: "school" | "hidden";
  /** All needs at once can be multiplied by this; infinite where nothing is asked. */
  readonly multiple: number;
}

/** Remotes that hear only the hub and ask for nothing fall upon each other from about here on. */
export const HIDDEN_SHARE = 0.1;

const usableOf = (w: AirWay, school: ThroughputSchool): number =>
  w.rate === null ? 0 : school === "third" ? Math.min(w.rate.phyMbps / 3, w.rate.airtime.airTcpMbps) : w.rate.airtime.airTcpMbps;

const shareOf = (needMbps: number, mbps: number): number => (needMbps === 0 ? 0 : mbps > 0 ? needMbps / mbps : Number.POSITIVE_INFINITY);

const turnOf = ({ rate }: AirWay): Turn | null => {
  if (rate === null) return null;
  const { parts, burstUs, packetsPerBurst, airTcpMbps } = rate.airtime;
  // What a pair alone waits is left out: here all wait for each other. Answers of TCP ride along in proportion.
  const answered = parts.answersUs + burstUs;
  return { burstUs: answered - parts.contentionUs, payloadBits: airTcpMbps * answered * (packetsPerBurst > 0 ? 1 : 0) };
};

const C_M_PER_US = 299.792458;

/** @param frameShareToRemotes of a schedule with fixed parts; null where both ways share all of it. */
export const sectorAir = (
  remotes: readonly RemoteAir[],
  access: Access,
  policy: AirPolicy,
  frameShareToRemotes: number | null = null,
): SectorAir => {
  const contends = access === "contention";
  const schoolUse = policy.school === "headroom" ? 1 - policy.freeShare : 1;
  const isHidden = contends && !policy.grant && policy.hearEachOther !== true && remotes.length > 1;
  const mayUse = isHidden ? Math.min(HIDDEN_SHARE, schoolUse) : schoolUse;
  const rows = remotes.map((r) => {
    const [thereMbps, backMbps] = [usableOf(r.there, policy.school), usableOf(r.back, policy.school)];
    return { r, thereMbps, backMbps, there: shareOf(r.there.needMbps, thereMbps), back: shareOf(r.back.needMbps, backMbps) };
  });
  const sum = (of: (r: (typeof rows)[number]) => number): number => rows.reduce((n, r) => n + of(r), 0);
  const fixed = access === "full-duplex" || access === "fixed-frame" || frameShareToRemotes !== null;
  const asked = fixed
    ? Math.max(
        sum((r) => r.there),
        sum((r) => r.back),
      )
    : sum((r) => r.there + r.back);
  const senders = rows.filter((r) => r.backMbps > 0);
  const turns = contends ? equalTurns(remotes, policy, mayUse) : new Map<string, number>();
  return {
    access,
    remotes: rows.map(({ r, thereMbps, backMbps, there, back }) => ({
      linkId: r.linkId,
      there,
      back,
      thereMbps,
      backMbps,
      equalTimeMbps: senders.length === 0 ? 0 : (backMbps * mayUse) / senders.length,
      equalTurnsMbps: contends ? (turns.get(r.linkId) ?? 0) : null,
    })),
    asked,
    mayUse,
    keptBy: isHidden && HIDDEN_SHARE < schoolUse ? "hidden" : "school",
    multiple: asked === 0 ? Number.POSITIVE_INFINITY : mayUse / asked,
  };
};

/** All remotes send and the hub does not: each has as many turns as the others, so that a slow one takes most of the time. */
const equalTurns = (remotes: readonly RemoteAir[], policy: AirPolicy, mayUse: number): Map<string, number> => {
  const senders = remotes.flatMap((r) => {
    const turn = turnOf(r.back);
    return turn === null ? [] : [{ linkId: r.linkId, turn }];
  });
  const farthestUs = Math.max(0, ...remotes.map((r) => r.distanceM)) / C_M_PER_US;
  const { mbps } = sharedChannel(
    senders.map((s) => s.turn),
    farthestUs,
    policy.grant,
  );
  return new Map(senders.map((s, i) => [s.linkId, mbps[i]! * mayUse]));
};

/** How many more devices fit at one remote, each with its own rates there and back, before the air is full. */
export const moreThatFit = (air: SectorAir, linkId: string, eachThereMbps: number, eachBackMbps: number): number => {
  const r = air.remotes.find((x) => x.linkId === linkId);
  const each = r === undefined ? Number.POSITIVE_INFINITY : shareOf(eachThereMbps, r.thereMbps) + shareOf(eachBackMbps, r.backMbps);
  if (each === 0) return Number.POSITIVE_INFINITY;
  return Math.max(0, Math.floor((air.mayUse - air.asked) / each + 1e-9));
};
