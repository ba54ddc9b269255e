import type { DesignFields } from "@/contract";
import type { DesignAction } from "@/core/link";

/** What an action changes of a design; null when it only opens something. */
export const changeOf = (design: DesignFields, action: DesignAction): Partial<DesignFields> | null => {
  switch (action.type) {
    case "mount":
      return action.end === "near" ? { nearMountAglM: action.mountAglM } : { farMountAglM: action.mountAglM };
    case "mounts":
      return { nearMountAglM: action.nearMountAglM, farMountAglM: action.farMountAglM };
    case "power":
      return { nearPowerDbm: action.nearDbm, farPowerDbm: action.farDbm };
    case "trim":
      return { trimsM: { ...design.trimsM, [action.bodyId]: action.heightM } };
    case "trims":
      return { trimsM: { ...action.trimsM } };
    case "width":
      return { widthMhz: action.widthMhz };
    case "aim":
      return action.end === "near" ? { nearAimAzimuthDeg: null, nearAimTiltDeg: null } : { farAimAzimuthDeg: null, farAimTiltDeg: null };
    case "together":
      return Object.assign({}, ...action.actions.map((a) => changeOf(design, a)));
    case "look":
      return null;
  }
};
