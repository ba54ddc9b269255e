import type { DesignFields, HardwareDto } from "@/contract";

type Ends = Pick<DesignFields, "nearRadioId" | "farRadioId" | "nearAntennaId" | "farAntennaId">;

/** Kinds of radio and antenna in some designs: of each the van carries a spare. */
export const kindsOfUnit = (designs: readonly Ends[]): number =>
  new Set(designs.flatMap((d) => [d.nearRadioId, d.farRadioId, d.nearAntennaId, d.farAntennaId].filter((id) => id !== null))).size;

/** What both ends of a design cost; null where a sheet states no price or is gone. */
export const presentPrice = (d: Ends, hardware: HardwareDto): number | null => {
  let sum = 0;
  const add = (price: number | undefined): boolean => {
    sum += price ?? 0;
    return price !== undefined;
  };
  for (const id of [d.nearRadioId, d.farRadioId]) if (!add(hardware.radios.find((r) => r.id === id)?.priceEur)) return null;
  for (const id of [d.nearAntennaId, d.farAntennaId])
    if (id !== null && !add(hardware.antennas.find((a) => a.id === id)?.priceEur)) return null;
  return sum;
};
