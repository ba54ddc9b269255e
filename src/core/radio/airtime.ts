/*
 * Usable rate from the air rate: what one direction carries when it has the channel to itself, by the
 * time each exchange takes. IEEE 802.11-2020 timing (SIFS 16 us, slot 9 us, CWmin 15); rules marked ours.
 */
import { LIGHT_SPEED_M_S } from "../propagation";
import { needInRange, needPositive } from "../units";

export type Access = "contention" | "scheduled" | "fixed-frame" | "full-duplex";

/** What a data sheet says of how both directions share the air, read once. */
export interface Duplex {
  readonly access: Access;
  /** Shares of the frame towards the remotes that a scheduled hub offers ("67/33"). */
  readonly ratios: readonly number[];
}

const FORMS: readonly (readonly [RegExp, Access])[] = [
  [/^FDD(,.*)?$/, "full-duplex"],
  [/^TDD, fixed frame( \d+\/\d+)?$/, "fixed-frame"],
  [/^TDD, scheduled(, (synchronised|ratios( \d+\/\d+)+))*$/, "scheduled"],
  [/^TDD, contention$/, "contention"],
];

/** @returns null for words that are no known form: a fault of the sheet, told at the door. */
export const parseDuplex = (words: string): Duplex | null => {
  const form = FORMS.find(([f]) => f.test(words.trim()));
  if (form === undefined) return null;
  const ratios = [...words.matchAll(/(\d+)\/(\d+)/g)].map((m) => Number(m[1]) / (Number(m[1]) + Number(m[2])));
  return { access: form[1], ratios: form[1] === "scheduled" ? ratios : [] };
};

const CONTENTION: Duplex = { access: "contention", ratios: [] };
const read = new Map<string, Duplex>();

/** The same behind the door, kept by its words. */
const duplexFromSheet = (words: string): Duplex => {
  let found = read.get(words);
  if (found === undefined) {
    found = parseDuplex(words) ?? CONTENTION;
    read.set(words, found);
  }
  return found;
};

export const accessOf = (duplex: string): Access => duplexFromSheet(duplex).access;
export const frameRatios = (duplex: string): readonly number[] => duplexFromSheet(duplex).ratios;

export interface AirtimeInput {
  readonly standard: string;
  readonly duplex: string;
  readonly phyRateMbps: number;
  readonly distanceM: number;
  readonly blockAckWindowFrames: number;
  readonly maxAggregateMs: number;
  /** Packets joined in one frame of an aggregate (A-MSDU); the standard's usual depth when left out. */
  readonly packetsPerFrame?: number | undefined;
  /** Share of a scheduled frame that this direction has; null or left out: whatever it asks for. */
  readonly frameShare?: number | null | undefined;
  /** Slowest Ethernet port on the way. */
  readonly portMbps: number;
  /** Share of packets lost at the level in force; 0 well above the floor. */
  readonly packetErrorShare: number;
}

/** Where the time of one exchange goes, microseconds; TCP's answers are an exchange of their own. */
export interface AirtimeParts {
  readonly dataUs: number;
  readonly preambleUs: number;
  readonly gapUs: number;
  readonly ackUs: number;
  readonly contentionUs: number;
  readonly travelUs: number;
  /** Frame control and, for a fixed or shared frame, the time that belongs to the other direction. */
  readonly frameUs: number;
  readonly answersUs: number;
}

export interface AirtimeResult {
  readonly access: Access;
  /** TCP payload one way with all of the airtime, Mbps, and what the air alone would carry. */
  readonly tcpMbps: number;
  readonly airTcpMbps: number;
  /** TCP payload one way that the port passes. */
  readonly portTcpMbps: number;
  readonly udpMbps: number;
  /** Packets in one exchange, and what held them to that many. */
  readonly packetsPerBurst: number;
  readonly aggregateLimit: "time" | "octets" | "window" | "frame";
  readonly burstUs: number;
  readonly overheadUs: number;
  readonly parts: AirtimeParts;
  readonly packetErrorShare: number;
  readonly portMbps: number;
  readonly cappedByPort: boolean;
  /** True when both directions share one airtime. */
  readonly sharedAirtime: boolean;
}

const PACKET_B = 1500;
const TCP_PAYLOAD_B = 1448;
const UDP_PAYLOAD_B = 1472;
const TCP_ACK_B = 52;
/** MAC header, FCS, encryption, LLC, delimiter of one frame in an aggregate; each further packet in it adds a subheader. */
const FRAME_OVERHEAD_B = 30 + 4 + 16 + 8 + 4;
const SUBFRAME_B = 14 + 8;
const ETHERNET_WIRE_B = 1538;
const SIFS_US = 16;
const SLOT_US = 9;
const DIFS_US = SIFS_US + 2 * SLOT_US;
const MEAN_BACKOFF_SLOTS = 7.5;
const BLOCK_ACK_US = 32;
const PREAMBLE_US: Readonly<Record<string, number>> = { n: 40, ac: 44, ax: 52, be: 60 };
const AGGREGATE_OCTETS: Readonly<Record<string, number>> = { n: 65_535, ac: 1_048_575, ax: 4_194_303, be: 15_523_200 };
/** Usual depth of packets in a frame (ours; the standards allow more octets). */
const PACKETS_PER_FRAME: Readonly<Record<string, number>> = { n: 1, ac: 2, ax: 2, be: 2 };
/** Beacons, probes and rate trials take this share of contended airtime (ours). */
const MANAGEMENT_SHARE = 0.02;
/** Scheduled and fixed frames (ours): frame length, control per frame, turn-round besides travel time. */
export const FRAME_US = 5000;
const FRAME_CONTROL_US = 150;
const TURN_US = 20;
const FULL_DUPLEX_CONTROL_US = 20;
/** 60 GHz single carrier (802.11ad clause 20): short gaps, short preamble. */
const AD_GAP_US = 3;
const AD_PREAMBLE_US = 4;
const AD_ACK_US = 10;

const NO_PARTS: AirtimeParts = {
  dataUs: 0,
  preambleUs: 0,
  gapUs: 0,
  ackUs: 0,
  contentionUs: 0,
  travelUs: 0,
  frameUs: 0,
  answersUs: 0,
};

interface Exchange {
  readonly packets: number;
  readonly limit: AirtimeResult["aggregateLimit"];
  readonly parts: AirtimeParts;
}

const totalUs = (p: AirtimeParts): number =>
  p.dataUs + p.preambleUs + p.gapUs + p.ackUs + p.contentionUs + p.travelUs + p.frameUs + p.answersUs;

const contentionExchange = (i: AirtimeInput, packetB: number, wantedPackets: number): Exchange => {
  const travelUs = (i.distanceM / LIGHT_SPEED_M_S) * 1e6;
  const perFrame = Math.max(1, i.packetsPerFrame ?? PACKETS_PER_FRAME[i.standard] ?? 1);
  const frameB = perFrame * packetB + (perFrame - 1) * SUBFRAME_B + FRAME_OVERHEAD_B;
  const frameUs = (frameB * 8) / i.phyRateMbps;
  const byTime = Math.floor((i.maxAggregateMs * 1000) / frameUs);
  const byOctets = Math.floor((AGGREGATE_OCTETS[i.standard] ?? 65_535) / frameB);
  const most = Math.min(i.blockAckWindowFrames, byTime, byOctets);
  const frames = Math.max(1, Math.min(wantedPackets / perFrame, most));
  return {
    packets: frames * perFrame,
    limit: most === byTime ? "time" : most === byOctets ? "octets" : "window",
    parts: {
      ...NO_PARTS,
      dataUs: frames * frameUs,
      preambleUs: PREAMBLE_US[i.standard] ?? 52,
      gapUs: SIFS_US,
      ackUs: BLOCK_ACK_US,
      // The slot grows with the round trip, or the far end would be taken for silence.
      contentionUs: DIFS_US + MEAN_BACKOFF_SLOTS * (SLOT_US + 2 * travelUs),
      travelUs: 2 * travelUs,
    },
  };
};

const adExchange = (i: AirtimeInput, packetB: number, wantedPackets: number): Exchange => {
  const travelUs = (i.distanceM / LIGHT_SPEED_M_S) * 1e6;
  const frameUs = ((packetB + FRAME_OVERHEAD_B) * 8) / i.phyRateMbps;
  const longest = Math.max(1, Math.floor((i.maxAggregateMs * 1000) / frameUs));
  const packets = Math.min(wantedPackets, longest);
  const parts = { ...NO_PARTS, dataUs: packets * frameUs, preambleUs: AD_PREAMBLE_US, gapUs: 2 * AD_GAP_US, ackUs: AD_ACK_US };
  return { packets, limit: "time", parts: { ...parts, travelUs: 2 * travelUs } };
};

const frameExchange = (i: AirtimeInput, share: number): Exchange => {
  const travelUs = (i.distanceM / LIGHT_SPEED_M_S) * 1e6;
  const spentUs = FRAME_CONTROL_US + 2 * (TURN_US + travelUs);
  const dataUs = Math.max(0, FRAME_US - spentUs) * share;
  const packets = (dataUs * i.phyRateMbps) / ((PACKET_B + FRAME_OVERHEAD_B) * 8);
  return {
    packets,
    limit: "frame",
    parts: { ...NO_PARTS, dataUs, gapUs: 2 * TURN_US, travelUs: 2 * travelUs, frameUs: FRAME_US - dataUs - 2 * (TURN_US + travelUs) },
  };
};

const fullDuplexExchange = (i: AirtimeInput): Exchange => {
  const dataUs = FRAME_US - FULL_DUPLEX_CONTROL_US;
  return {
    packets: (dataUs * i.phyRateMbps) / ((PACKET_B + FRAME_OVERHEAD_B) * 8),
    limit: "frame",
    parts: { ...NO_PARTS, dataUs, frameUs: FULL_DUPLEX_CONTROL_US },
  };
};

const exchangeOf = (i: AirtimeInput, access: Access): { data: Exchange; answersUs: number } => {
  if (access === "full-duplex") return { data: fullDuplexExchange(i), answersUs: 0 };
  if (access === "contention" || (i.standard === "ad" && i.frameShare == null)) {
    const exchange = i.standard === "ad" ? adExchange : contentionExchange;
    const data = exchange(i, PACKET_B, Number.POSITIVE_INFINITY);
    // TCP answers every second packet; its answers take the channel in the other direction.
    return { data, answersUs: totalUs(exchange(i, TCP_ACK_B, Math.max(1, Math.ceil(data.packets / 2))).parts) };
  }
  const share = access === "fixed-frame" ? 0.5 : (i.frameShare ?? 1);
  const data = frameExchange(i, share);
  // With a set ratio the answers ride in the other direction's own part of the frame.
  const shared = access === "scheduled" && i.frameShare == null;
  return { data, answersUs: shared ? ((data.packets / 2) * ((TCP_ACK_B + FRAME_OVERHEAD_B) * 8)) / i.phyRateMbps : 0 };
};

/** @throws RangeError for an air rate that is not above 0, or a share outside 0 to 1. */
export const usableRate = (i: AirtimeInput): AirtimeResult => {
  needPositive("air rate, Mbps", i.phyRateMbps);
  needInRange("packet error share", i.packetErrorShare, 0, 1);
  if (i.frameShare != null) needInRange("frame share", i.frameShare, 0, 1);
  const access = accessOf(i.duplex);
  const { data, answersUs } = exchangeOf(i, access);
  const burstUs = totalUs(data.parts);
  const kept = (1 - i.packetErrorShare) * (access === "contention" ? 1 - MANAGEMENT_SHARE : 1);
  const airTcp = (data.packets * TCP_PAYLOAD_B * 8 * kept) / (burstUs + answersUs);
  const airUdp = (data.packets * UDP_PAYLOAD_B * 8 * kept) / burstUs;
  const portTcp = (i.portMbps * TCP_PAYLOAD_B) / ETHERNET_WIRE_B;
  const portUdp = (i.portMbps * UDP_PAYLOAD_B) / ETHERNET_WIRE_B;
  return {
    access,
    tcpMbps: Math.min(airTcp, portTcp),
    airTcpMbps: airTcp,
    portTcpMbps: portTcp,
    udpMbps: Math.min(airUdp, portUdp),
    packetsPerBurst: data.packets,
    aggregateLimit: data.limit,
    burstUs,
    overheadUs: burstUs - data.parts.dataUs,
    parts: { ...data.parts, answersUs },
    packetErrorShare: i.packetErrorShare,
    portMbps: i.portMbps,
    cappedByPort: airTcp > portTcp,
    sharedAirtime: access === "contention" || (access === "scheduled" && i.frameShare == null),
  };
};

export type ThroughputSchool = "third" | "headroom" | "full";

/** The rate to plan with, by school: a third of the air rate, the usable rate less a free share, or all of it. */
export const plannedRateMbps = (school: ThroughputSchool, phyRateMbps: number, usableMbps: number, freeShare: number): number => {
  if (school === "third") return Math.min(phyRateMbps / 3, usableMbps);
  return school === "headroom" ? usableMbps * (1 - freeShare) : usableMbps;
};
