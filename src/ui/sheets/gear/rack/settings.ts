import type { DesignFields } from "@/contract";
import type { TakenSettings } from "@/core/rack";

/** The design that takes a candidate: all that the rack judged it with, in one step. */
export const designOf = ({ near, far, centreMhz, widthMhz, frameShareToFar }: TakenSettings): Partial<DesignFields> => ({
  nearRadioId: near.radioId,
  farRadioId: far.radioId,
  nearAntennaId: near.antennaId,
  farAntennaId: far.antennaId,
  nearPowerDbm: near.powerDbm,
  farPowerDbm: far.powerDbm,
  nearFeederLossDb: near.feederLossDb,
  farFeederLossDb: far.feederLossDb,
  nearConnectorLossDb: near.connectorLossDb,
  farConnectorLossDb: far.connectorLossDb,
  nearInterferenceDbm: near.interferenceDbm,
  farInterferenceDbm: far.interferenceDbm,
  nearAimAzimuthDeg: near.aimAzimuthDeg,
  farAimAzimuthDeg: far.aimAzimuthDeg,
  nearAimTiltDeg: near.aimTiltDeg,
  farAimTiltDeg: far.aimTiltDeg,
  nearPort: near.portIndex,
  farPort: far.portIndex,
  centreMhz,
  widthMhz,
  frameShareToFar,
});

/** Whether a design stands as a candidate would set it. */
export const isTaken = (design: DesignFields, settings: TakenSettings): boolean =>
  Object.entries(designOf(settings)).every(([key, v]) => design[key as keyof DesignFields] === v);
