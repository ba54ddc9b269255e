/*
 * Usable rate from the air rate: what one direction carries when it has the channel to itself, by the
 * time each exchange takes. IEEE 802.11-2020 timing (SIFS 16 us, slot 9 us, CWmin 15); rules marked ours.
 */
import { LIGHT_SPEED_M_S } from "../propagation";

export type Access = "contention" | "scheduled" | "fixed-frame" | "full-duplex";

export const accessOf = (duplex: string): Access => {
  if (duplex.startsWith("FDD")) return "full-duplex";
  if (duplex.includes("fixed frame")) return "fixed-frame";
  return duplex.includes("scheduled") ? "scheduled" : "contention";
};

export interface AirtimeInput {
  readonly standard: string;
  readonly duplex: string;
  readonly phyRateMbps: number;
  readonly distanceM: number;
  readonly blockAckWindowFrames: number;
  readonly maxAggregateMs: number;
  /** Slowest Ethernet port on the way. */
  readonly portMbps: number;
  /** Share of packets lost at the level in force; 0 well above the floor. */
  readonly packetErrorShare: number;
}

export interface AirtimeResult {
  readonly access: Access;
  /** TCP payload one way with all of the airtime, Mbps. */
  readonly tcpMbps: number;
  readonly udpMbps: number;
  readonly framesPerBurst: number;
  /** Time of one exchange and the parts of it that carry no data, microseconds. */
  readonly burstUs: number;
  readonly overheadUs: number;
  readonly cappedByPort: boolean;
  /** True when both directions share one airtime. */
  readonly sharedAirtime: boolean;
}

const PACKET_B = 1500;
const TCP_PAYLOAD_B = 1448;
const UDP_PAYLOAD_B = 1472;
const TCP_ACK_B = 52;
/** MAC header, FCS, encryption, LLC, delimiter of one frame in an aggregate. */
const FRAME_OVERHEAD_B = 30 + 4 + 16 + 8 + 4;
const ETHERNET_WIRE_B = 1538;
const SIFS_US = 16;
const SLOT_US = 9;
const DIFS_US = SIFS_US + 2 * SLOT_US;
const MEAN_BACKOFF_SLOTS = 7.5;
const BLOCK_ACK_US = 32;
const PREAMBLE_US: Readonly<Record<string, number>> = { n: 40, ac: 44, ax: 52, be: 60 };
const AGGREGATE_OCTETS: Readonly<Record<string, number>> = { n: 65_535, ac: 1_048_575, ax: 4_194_303, be: 15_523_200 };
/** Scheduled and fixed frames (ours): frame length, control per frame, turn-round besides travel time. */
const FRAME_US = 5000;
const FRAME_CONTROL_US = 150;
const TURN_US = 20;
/** 60 GHz single carrier (802.11ad clause 20): short gaps, short preamble. */
const AD_GAP_US = 3;
const AD_PREAMBLE_US = 4;
const AD_ACK_US = 10;

interface Exchange {
  readonly frames: number;
  readonly dataUs: number;
  readonly overheadUs: number;
}

const contentionExchange = (i: AirtimeInput, packetB: number, wantedFrames: number): Exchange => {
  const travelUs = (i.distanceM / LIGHT_SPEED_M_S) * 1e6;
  const frameB = packetB + FRAME_OVERHEAD_B;
  const frameUs = (frameB * 8) / i.phyRateMbps;
  const byTime = Math.floor((i.maxAggregateMs * 1000) / frameUs);
  const byOctets = Math.floor((AGGREGATE_OCTETS[i.standard] ?? 65_535) / frameB);
  const frames = Math.max(1, Math.min(wantedFrames, i.blockAckWindowFrames, byTime, byOctets));
  const slotUs = SLOT_US + 2 * travelUs;
  const overheadUs = DIFS_US + MEAN_BACKOFF_SLOTS * slotUs + (PREAMBLE_US[i.standard] ?? 52) + SIFS_US + BLOCK_ACK_US + 2 * travelUs;
  return { frames, dataUs: frames * frameUs, overheadUs };
};

const adExchange = (i: AirtimeInput, packetB: number, wantedFrames: number): Exchange => {
  const travelUs = (i.distanceM / LIGHT_SPEED_M_S) * 1e6;
  const frameUs = ((packetB + FRAME_OVERHEAD_B) * 8) / i.phyRateMbps;
  const longest = Math.max(1, Math.floor((i.maxAggregateMs * 1000) / frameUs));
  return {
    frames: Math.min(wantedFrames, longest),
    dataUs: Math.min(wantedFrames, longest) * frameUs,
    overheadUs: AD_PREAMBLE_US + 2 * AD_GAP_US + AD_ACK_US + 2 * travelUs,
  };
};

const frameExchange = (i: AirtimeInput, share: number): Exchange => {
  const travelUs = (i.distanceM / LIGHT_SPEED_M_S) * 1e6;
  const overheadUs = FRAME_CONTROL_US + 2 * (TURN_US + travelUs);
  const dataUs = Math.max(0, FRAME_US - overheadUs) * share;
  const frames = (dataUs * i.phyRateMbps) / ((PACKET_B + FRAME_OVERHEAD_B) * 8);
  return { frames, dataUs, overheadUs: FRAME_US - dataUs };
};

/** @throws RangeError for an air rate that is not above 0. */
export const usableRate = (i: AirtimeInput): AirtimeResult => {
  if (!(i.phyRateMbps > 0)) throw new RangeError(`air rate ${i.phyRateMbps} Mbps must be above 0`);
  const access = accessOf(i.duplex);
  const kept = 1 - i.packetErrorShare;
  let data: Exchange;
  let tcpUs: number;
  if (access === "contention" || i.standard === "ad") {
    const exchange = i.standard === "ad" ? adExchange : contentionExchange;
    data = exchange(i, PACKET_B, Number.POSITIVE_INFINITY);
    // TCP answers every second packet; its answers take the channel in the other direction.
    const answers = exchange(i, TCP_ACK_B, Math.max(1, Math.ceil(data.frames / 2)));
    tcpUs = data.dataUs + data.overheadUs + answers.dataUs + answers.overheadUs;
  } else {
    data = frameExchange(i, access === "fixed-frame" ? 0.5 : 1);
    if (access === "full-duplex") data = { frames: data.frames, dataUs: FRAME_US - 20, overheadUs: 20 };
    if (access === "full-duplex") data = { ...data, frames: (data.dataUs * i.phyRateMbps) / ((PACKET_B + FRAME_OVERHEAD_B) * 8) };
    const answerUs = access === "scheduled" ? ((data.frames / 2) * ((TCP_ACK_B + FRAME_OVERHEAD_B) * 8)) / i.phyRateMbps : 0;
    tcpUs = data.dataUs + data.overheadUs + answerUs;
  }
  const burstUs = data.dataUs + data.overheadUs;
  const airTcp = (data.frames * TCP_PAYLOAD_B * 8 * kept) / tcpUs;
  const airUdp = (data.frames * UDP_PAYLOAD_B * 8 * kept) / burstUs;
  const portTcp = (i.portMbps * TCP_PAYLOAD_B) / ETHERNET_WIRE_B;
  const portUdp = (i.portMbps * UDP_PAYLOAD_B) / ETHERNET_WIRE_B;
  return {
    access,
    tcpMbps: Math.min(airTcp, portTcp),
    udpMbps: Math.min(airUdp, portUdp),
    framesPerBurst: data.frames,
    burstUs,
    overheadUs: data.overheadUs,
    cappedByPort: airTcp > portTcp,
    sharedAirtime: access === "contention" || access === "scheduled",
  };
};

export type ThroughputSchool = "third" | "headroom" | "full";

/** The rate to plan with, by school: a third of the air rate, the usable rate less a free share, or all of it. */
export const plannedRateMbps = (school: ThroughputSchool, phyRateMbps: number, usableMbps: number, freeShare: number): number => {
  if (school === "third") return Math.min(phyRateMbps / 3, usableMbps);
  return school === "headroom" ? usableMbps * (1 - freeShare) : usableMbps;
};
