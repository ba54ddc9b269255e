/* The same text as a scanner writes it: for the simulated scanner and the demo's files. */

export interface HeardNetwork {
  readonly address: string;
  readonly name: string;
  /** The first 20 MHz. */
  readonly primaryMhz: number;
  readonly centreMhz: number;
  readonly widthMhz: 20 | 40 | 80 | 160;
  readonly levelDbm: number;
  readonly busyShare: number | null;
}

const numberOf = (mhz: number): number => (mhz < 3000 ? (mhz - 2407) / 5 : mhz < 5925 ? (mhz - 5000) / 5 : (mhz - 5950) / 5);

const operation = (n: HeardNetwork): string[] => {
  const lines = ["\tHT operation:", `\t\t * primary channel: ${numberOf(n.primaryMhz)}`];
  const offset = n.widthMhz === 20 ? "no secondary" : n.centreMhz > n.primaryMhz ? "above" : "below";
  lines.push(`\t\t * secondary channel offset: ${offset}`, "\t\t * STA channel width: any");
  if (n.widthMhz >= 80) {
    const first = n.widthMhz === 160 ? n.centreMhz + (n.primaryMhz < n.centreMhz ? -40 : 40) : n.centreMhz;
    lines.push(
      "\tVHT operation:",
      "\t\t * channel width: 1 (80 MHz)",
      `\t\t * center freq segment 1: ${numberOf(first)}`,
      `\t\t * center freq segment 2: ${n.widthMhz === 160 ? numberOf(n.centreMhz) : 0}`,
    );
  }
  return lines;
};

/** Text of a scan, a block a network. */
export const iwScanText = (device: string, networks: readonly HeardNetwork[]): string =>
  networks
    .map((n) =>
      [
        `BSS ${n.address}(on ${device})`,
        "\tTSF: 0 usec (0d, 00:00:00)",
        `\tfreq: ${n.primaryMhz}`,
        "\tbeacon interval: 100 TUs",
        "\tcapability: ESS Privacy ShortSlotTime (0x0411)",
        `\tsignal: ${n.levelDbm.toFixed(2)} dBm`,
        "\tlast seen: 0 ms ago",
        `\tSSID: ${n.name}`,
        ...(n.busyShare === null
          ? []
          : ["\tBSS Load:", "\t\t * station count: 2", `\t\t * channel utilisation: ${Math.round(n.busyShare * 255)}/255`]),
        ...operation(n),
      ].join("\n"),
    )
    .join("\n")
    .concat("\n");

export interface SurveyedChannel {
  readonly mhz: number;
  readonly noiseDbm: number;
  readonly activeMs: number;
  readonly busyMs: number;
}

/** Text of a survey, a block a channel. */
export const iwSurveyText = (device: string, channels: readonly SurveyedChannel[]): string =>
  channels
    .map((c) =>
      [
        `Survey data from ${device}`,
        `\tfrequency:\t\t\t${c.mhz} MHz`,
        `\tnoise:\t\t\t\t${c.noiseDbm} dBm`,
        `\tchannel active time:\t\t${c.activeMs} ms`,
        `\tchannel busy time:\t\t${c.busyMs} ms`,
      ].join("\n"),
    )
    .join("\n")
    .concat("\n");
