import type { ExplainedSymbol, ExplainedUnit, Explanation } from "./explanation";
import type { Direction, LinkPlan, LinkResult } from "./types";

const symbol = (key: string, sign: string, meaning: string, value: number | string, unit: ExplainedUnit): ExplainedSymbol => ({
  key,
  symbol: sign,
  meaning,
  value,
  unit,
});

const row = (
  id: string,
  sentence: string,
  formula: string,
  symbols: readonly ExplainedSymbol[],
  clause: string,
  ours = false,
  inRange = true,
): Explanation => ({
  id,
  sentence,
  formula,
  symbols,
  clause,
  ours,
  inRange,
});

const ACCESS_WORDS = {
  contention: "Both ends listen before they send",
  scheduled: "The hub shares its frame by what is asked",
  "fixed-frame": "Each direction has half of a fixed frame",
  "full-duplex": "Both directions run at once",
} as const;

/** Noise, rate, availability and exposure of one direction. */
export const explainDirection = (d: Direction, plan: LinkPlan): Explanation[] => {
  const out: Explanation[] = [
    row(
      "noise",
      d.noiseRiseDb > 0.05
        ? "Thermal noise over {widthMhz} and the receiver's own, lifted {riseDb} by interference: {noiseDbm}; {snrDb} left."
        : "Thermal noise over {widthMhz} and the receiver's own: {noiseDbm}; {snrDb} left. No interference is counted.",
      "k T B F + I",
      [
        symbol("widthMhz", "B", "channel width", plan.widthMhz, "MHz"),
        symbol("noiseDbm", "N", "noise per chain", d.noiseDbm, "dBm"),
        symbol("riseDb", "rise", "rise by interference", d.noiseRiseDb, "dB"),
        symbol("snrDb", "SNR", "signal over noise", d.snrDb, "dB"),
      ],
      "290 K",
    ),
  ];
  if (d.held !== null && d.airtime !== null) {
    const a = d.airtime;
    out.push(
      row(
        "rate",
        `${ACCESS_WORDS[a.access]}. Of {burstUs} an exchange {dataUs} carry data; {packets} packets each, held by ${a.aggregateLimit === "window" ? "the block-ack window" : `the ${a.aggregateLimit} limit`}; {errorPercent} are sent again. TCP carries {tcpMbps}, UDP {udpMbps}${a.cappedByPort ? ", held by the Ethernet port" : ""}; planned with {plannedMbps}.`,
        "packets x payload x (1 - error) / time of an exchange",
        [
          symbol("airMbps", "R", "air rate", d.held.phyRateMbps, "Mbps"),
          symbol("burstUs", "T", "one exchange with TCP's answers", a.burstUs + a.parts.answersUs, "us"),
          symbol("dataUs", "T data", "of it data", a.parts.dataUs, "us"),
          symbol("preambleUs", "T preamble", "preamble", a.parts.preambleUs, "us"),
          symbol("gapUs", "T gap", "gaps and turn-round", a.parts.gapUs, "us"),
          symbol("ackUs", "T ack", "acknowledgement", a.parts.ackUs, "us"),
          symbol("contentionUs", "T wait", "contention, slots grown by distance", a.parts.contentionUs, "us"),
          symbol("travelUs", "T travel", "travel of the wave", a.parts.travelUs, "us"),
          symbol("frameUs", "T frame", "frame control and the other direction", a.parts.frameUs, "us"),
          symbol("answersUs", "T answers", "TCP's answers", a.parts.answersUs, "us"),
          symbol("packets", "n", "packets an exchange", a.packetsPerBurst, ""),
          symbol("errorPercent", "PER", "packets sent again", a.packetErrorShare * 100, "percent"),
          symbol("portMbps", "port", "slowest Ethernet port", a.portMbps, "Mbps"),
          symbol("tcpMbps", "TCP", "usable, TCP", a.tcpMbps, "Mbps"),
          symbol("udpMbps", "UDP", "usable, UDP", a.udpMbps, "Mbps"),
          symbol("plannedMbps", "planned", `by the school "${plan.policy.throughput}"`, d.plannedMbps, "Mbps"),
        ],
        "IEEE 802.11-2020 timing; aggregation depth, error share and frames are ours",
        true,
      ),
    );
  }
  const o = d.outage;
  const known = (value: number | null): number | string => value ?? "not known";
  if (o !== null) {
    out.push(
      row(
        "availability",
        o.marginDb <= 0
          ? "Nothing is left for fading: what is needed does not hold even in clear air."
          : o.percent === null
            ? "With {marginDb} of margin rain takes more than 1 % of the year: beyond what the method knows."
            : "With {marginDb} of margin rain takes {rainPercent} of the year and clear-air fading {multipathPercent}: {minutes} a year below what is needed, {monthPercent} of the worst month.",
        "p = p_rain(A) + p_multipath(A)",
        [
          symbol("marginDb", "A", "margin of the slowest modulation that carries the need", o.marginDb, "dB"),
          symbol("rain001Db", "A0.01", "rain attenuation exceeded 0.01 % of the year", o.a001Db, "dB"),
          symbol("rainPercent", "p_rain", "share of the year", known(o.rainPercent), "percent"),
          symbol("multipathPercent", "p_mp", "share of the year", o.multipathPercent, "percent"),
          symbol("monthPercent", "p_w", "share of the worst month", known(o.worstMonthPercent), "percent"),
          symbol("minutes", "t", "minutes a year", known(o.minutesAYear), "minutes"),
        ],
        "P.530-17 §2.3, §2.4; P.838-3; P.841",
        false,
        o.inRange,
      ),
    );
  }
  if (d.exposure !== null) {
    const e = d.exposure;
    out.push(
      row(
        "exposure",
        e.distanceM === 0
          ? "Nowhere in front of this antenna does the flux pass {limit}: no distance is needed by this limit. Follow the maker's sheet and local rules."
          : "Keep people {distanceM} or more in front of this antenna: nearer the flux may pass {limit} for the public. Follow the maker's sheet and local rules.",
        "S = P G / (4 pi r2), at most 4 P / A near the antenna",
        [
          symbol("distanceM", "r", "distance in front", e.distanceM, "m"),
          symbol("limit", "S", "limit, whole body, general public", e.limitWm2, "W/m2"),
          symbol("nearW", "4 P / A", "highest flux near the antenna", e.nearFieldWm2, "W/m2"),
          symbol("eirpDbm", "EIRP", "power and gain", e.eirpDbm, "dBm"),
        ],
        "ICNIRP 2020 Table 5",
      ),
    );
  }
  return out;
};

/** Reflection and clearance of the whole link. */
export const explainPath = (r: LinkResult): Explanation[] => {
  const out: Explanation[] = [];
  const w = r.clearance.worst;
  if (w !== null) {
    out.push(
      row(
        "clearance",
        "The nearest place leaves {share} of F1 ({f1M} there) where {asked} is asked for with k {kFactor}.",
        "c = sqrt((|TP| + |PR| - |TR|) / (lambda / 2))",
        [
          symbol("share", "c", "share of F1", w.share, ""),
          symbol("f1M", "F1", "radius of the first zone", w.f1M, "m"),
          symbol("asked", "c asked", "share asked for by the policy", w.policyShare, ""),
          symbol("kFactor", "k", "effective earth factor", w.kFactor, ""),
          symbol("missM", "short", "lacking; negative is to spare", w.missM, "m"),
        ],
        r.clearance.conditions.length > 1 ? "P.530-17 §2.2.2.1" : "P.526-15 §2.1; the share in three dimensions is ours",
        r.clearance.conditions.length === 1,
      ),
    );
  }
  const o = r.opinions;
  if (o !== null) {
    out.push(
      row(
        "edges",
        `The straight line passes {heightM} under the top at {atM}. As one knife edge it would cost {edgeDb} ({edgeExactDb} exactly)${o.roundedDb === null ? "" : ", as a rounded hill {roundedDb}"}${o.twoEdgesDb === null ? "" : ", with the next edge {twoEdgesDb}"}. The whole profile decides; these are second opinions.`,
        "J(v); J(v) + T(m, n); two edges",
        [
          symbol("heightM", "h", "height of the top above the straight line", o.heightM, "m"),
          symbol("atM", "d1", "place of the main edge from the near end", o.atM, "m"),
          symbol("edgeDb", "J", "one edge, approximation", o.edgeDb, "dB"),
          symbol("edgeExactDb", "J exact", "one edge, Fresnel integrals", o.edgeExactDb, "dB"),
          ...(o.roundedDb === null || o.radiusM === null
            ? []
            : [
                symbol("roundedDb", "A", "rounded hill", o.roundedDb, "dB"),
                symbol("radiusM", "R", "radius fitted to the top", o.radiusM, "m"),
              ]),
          ...(o.twoEdgesDb === null ? [] : [symbol("twoEdgesDb", "L", "two edges", o.twoEdgesDb, "dB")]),
        ],
        "P.526-15 §4.1 to §4.3",
      ),
    );
  }
  if (r.reflection !== null) {
    const f = r.reflection;
    out.push(
      row(
        "reflection",
        "A second ray off the water at {atM} is {size} of the direct one: over tide and heights the level moves from {lowDb} to {highDb}, at worst {worstDb}. It widens the band and does not move the median.",
        "20 log10|1 + D rho Gamma g1 g2 exp(-j 2 pi delta / lambda)|",
        [
          symbol("atM", "d1", "place of the reflection from the near end", f.atM, "m"),
          symbol("size", "|r|", "size against the direct ray", f.size, ""),
          symbol("grazing", "psi", "grazing angle", f.grazingDeg, "deg"),
          symbol("lowDb", "p10", "10th of 100", f.lowDb, "dB"),
          symbol("highDb", "p90", "90th of 100", f.highDb, "dB"),
          symbol("worstDb", "worst", "weakest over the tide", f.worstDb, "dB"),
        ],
        "P.526-15 §3.2, P.527-6, two rays",
        true,
      ),
    );
  }
  return out;
};
