import type { LevelTerm } from "@/core/link";
import { dbmText, distanceText, figure, type Units } from "./numbers";

/** Column heading of a term on the level line. */
export const termLabel = (t: LevelTerm, units: Units): string => {
  switch (t.id) {
    case "transmit":
      return "Transmit";
    case "chains":
      return "Per chain";
    case "feeder-out":
    case "feeder-in":
      return "Feeder";
    case "antenna-out":
    case "antenna-in":
      return String(t.inputs.antenna);
    case "free-space":
      return `${distanceText(units, Number(t.inputs.distanceM))} of air`;
    case "gas":
      return "Oxygen, vapour";
    case "diffraction":
      return t.inputs.over === "ground" ? "Over the ground" : `Over ${t.inputs.over}`;
    case "beside":
      return `Beside ${t.inputs.over}`;
    case "own-edge":
      return `Edge of ${t.inputs.over}`;
    case "vegetation":
      return `Leaves, ${t.inputs.over}`;
  }
};

/** How a term came about: formula with its figures, and the source. */
export const termExplanation = (t: LevelTerm, units: Units): string => {
  const i = t.inputs;
  const n = (key: string, digits = 1): string => figure(Number(i[key]), digits);
  switch (t.id) {
    case "transmit":
      return `Set ${dbmText(Number(i.setDbm))} on ${i.radio}${i.legalDbm === "none" ? "" : `; the rules allow ${dbmText(Number(i.legalDbm), 1)}`}; lower at dense modulations by the data sheet. ${t.clause}.`;
    case "chains":
      return `The total power is shared by ${i.chains} chain${Number(i.chains) === 1 ? "" : "s"}: 10 log10(${i.chains}). Level and sensitivity are per receive chain.`;
    case "feeder-out":
    case "feeder-in":
      return "Cable and connectors between radio and antenna, as typed.";
    case "antenna-out":
    case "antenna-in":
      return `Gain of ${i.antenna} from its data sheet, ${n("gainDbi")} dBi, pointed true.`;
    case "free-space":
      return `20 log10(4 pi d / lambda) with d ${distanceText(units, Number(i.distanceM))} and ${n("frequencyGhz", 3)} GHz, the channel's centre. ${t.clause}.`;
    case "gas":
      return `Oxygen and water vapour take ${n("dbPerKm", 3)} dB/km at ${n("temperatureC", 0)} °C, ${n("pressureHpa", 0)} hPa, ${n("vapourGm3")} g/m3. ${t.clause}.`;
    case "diffraction":
      if (i.unknownGroundM !== undefined) return `Not counted: the ground is unknown for ${distanceText(units, Number(i.unknownGroundM))}.`;
      return i.over === "ground"
        ? `Diffraction over the bare ground with k ${n("kFactor", 2)}. ${t.clause}.`
        : `${i.over} as one edge (v ${n("v", 2)}, ${n("edgeDb")} dB) over the rest (${n("restDb")} dB); the whole profile at once would give ${n("wholeDb")} dB. ${t.clause}; the choice between the two is our own.`;
    case "beside":
      return `Bodies beside the ray: ${n("leftDb")} dB left, ${n("rightDb")} dB right, J(-1.41 c). ${t.clause}.`;
    case "own-edge":
      return `A part of the end's own building comes into 60 % of F1 and counts as one edge. ${t.clause}; the rule is our own.`;
    case "vegetation":
      return `Leaves over ${n("depthM")} m of depth at ${n("frequencyGhz", 3)} GHz: over the top, round the sides and through, powers added. ${t.clause}${t.inRange ? "" : "; outside its range"}.`;
  }
};
