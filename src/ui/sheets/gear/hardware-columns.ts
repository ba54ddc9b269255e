import type { ReactNode } from "react";
import type { HardwareDto, PartDto } from "@/contract";
import type { DataColumn } from "../../controls/data-table";
import { figure } from "../../wording/numbers";

type RadioRow = HardwareDto["radios"][number];
type AntennaRow = HardwareDto["antennas"][number];

const mostPowerDbm = (r: RadioRow): number => r.modulations[0]?.maxTxPowerDbm ?? 0;
const portMbps = (r: RadioRow): number => Math.max(0, ...r.ethernetPorts.map((p) => p.speedMbps));

/** What a radio is chosen by, then what may be looked up. */
export const radioColumns = (
  name: (row: RadioRow) => ReactNode,
  stock: (kind: "radio", row: RadioRow) => ReactNode,
): readonly DataColumn<RadioRow>[] => [
  { name: "Radio", value: (r) => r.name, cell: name },
  { name: "Band", value: (r) => `${r.bandKey} GHz`, chosen: true },
  { name: "Standard", value: (r) => (r.standard === "single carrier QAM" ? "QAM" : r.standard), chosen: true },
  { name: "Widths, MHz", value: (r) => r.channelWidthsMhz.join(", ") },
  { name: "Power, dBm", value: mostPowerDbm, cell: (r) => `${figure(r.minTxPowerDbm)} to ${figure(mostPowerDbm(r))}`, numeric: true },
  {
    name: "Gain, dBi",
    value: (r) => r.antenna.gainDbi ?? Number.NEGATIVE_INFINITY,
    cell: (r) => (r.antenna.gainDbi === undefined ? "antenna's" : figure(r.antenna.gainDbi, 1)),
    numeric: true,
  },
  { name: "To, km", value: (r) => r.maxLinkKm, cell: (r) => figure(r.maxLinkKm, r.maxLinkKm < 1 ? 1 : 0), numeric: true },
  {
    name: "Price, €",
    value: (r) => r.priceEur ?? Number.POSITIVE_INFINITY,
    cell: (r) => (r.priceEur === undefined ? "" : figure(r.priceEur)),
    numeric: true,
  },
  { name: "In stock", value: (r) => r.stock ?? -1, cell: (r) => stock("radio", r), numeric: true },
  { name: "Family", value: (r) => r.family, aside: true },
  { name: "Roles", value: (r) => r.roles.join(", "), aside: true },
  { name: "Port, Mbps", value: portMbps, cell: (r) => figure(portMbps(r), 0), numeric: true, aside: true },
  { name: "Hot above, dBm", value: (r) => r.maxOperatingInputDbm, cell: (r) => figure(r.maxOperatingInputDbm), numeric: true, aside: true },
  { name: "Noise figure, dB", value: (r) => r.noiseFigureDb, cell: (r) => figure(r.noiseFigureDb), numeric: true, aside: true },
  { name: "Radar detection", value: (r) => (r.radarDetection ? "yes" : "no"), aside: true },
  { name: "Source", value: (r) => r.source, chosen: true, aside: true },
];

export const antennaColumns = (
  name: (row: AntennaRow) => ReactNode,
  stock: (kind: "antenna", row: AntennaRow) => ReactNode,
): readonly DataColumn<AntennaRow>[] => [
  { name: "Antenna", value: (a) => a.name, cell: name },
  { name: "Form", value: (a) => a.form, chosen: true },
  { name: "Bands, MHz", value: (a) => a.bandsMhz.map((b) => `${b.low} to ${b.high}`).join(", ") },
  { name: "Gain, dBi", value: (a) => a.gainDbi, cell: (a) => figure(a.gainDbi, 1), numeric: true },
  {
    name: "Price, €",
    value: (a) => a.priceEur ?? Number.POSITIVE_INFINITY,
    cell: (a) => (a.priceEur === undefined ? "" : figure(a.priceEur)),
    numeric: true,
  },
  { name: "In stock", value: (a) => a.stock ?? -1, cell: (a) => stock("antenna", a), numeric: true },
  { name: "Beam, °", value: (a) => a.azimuthBeamwidthDeg, numeric: true },
  { name: "Source", value: (a) => a.source, chosen: true },
];

const supplyOf = (p: PartDto): string => {
  const gives = [...new Set(p.ports.flatMap((x) => x.gives ?? []))];
  const takes = [...new Set(p.ports.flatMap((x) => x.takes ?? []))].filter((k) => k !== "mains");
  return [gives.length === 0 ? "" : `gives ${gives.join(", ")}`, takes.length === 0 ? "" : `takes ${takes.join(", ")}`]
    .filter((w) => w !== "")
    .join("; ");
};

/** What is wired beside the radios. */
export const partColumns = (stock: (row: PartDto) => ReactNode): readonly DataColumn<PartDto>[] => [
  { name: "Part", value: (p) => p.name },
  { name: "Kind", value: (p) => p.kind.replace("-", " "), chosen: true },
  { name: "Supply", value: supplyOf },
  { name: "Ports", value: (p) => p.ports.filter((x) => x.speedMbps !== undefined).length, numeric: true },
  {
    name: "Draws, W",
    value: (p) => p.drawMostW ?? -1,
    cell: (p) => (p.drawMostW === undefined ? "" : figure(p.drawMostW, 1)),
    numeric: true,
  },
  {
    name: "Price, €",
    value: (p) => p.cable?.pricePerM ?? p.priceEur ?? Number.POSITIVE_INFINITY,
    cell: (p) => {
      const price = p.cable?.pricePerM ?? p.priceEur;
      return price === undefined ? "" : `${figure(price, 2)}${p.cable === undefined ? "" : " a metre"}`;
    },
    numeric: true,
  },
  { name: "In stock", value: (p) => p.stock ?? -1, cell: stock, numeric: true },
  { name: "Source", value: (p) => p.source, chosen: true, aside: true },
];
