import type { DesignFields } from "@/contract";
import type { DesignAction } from "@/core/link";

/** What an action changes of a design; null when it only opens something. @param today for what is recorded with a date. */
export const changeOf = (design: DesignFields, action: DesignAction, today: () => string): Partial<DesignFields> | null => {
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
    case "permission":
      return { permission: `recorded ${today()}` };
    case "look":
      return null;
  }
};
