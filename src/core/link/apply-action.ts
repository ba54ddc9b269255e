import { AIMED } from "./defaults";
import type { DesignAction } from "./finding-types";
import type { LinkPlan } from "./types";

/** The plan after an action; what only opens something leaves it as it is. */
export const apply = (plan: LinkPlan, action: DesignAction): LinkPlan => {
  switch (action.type) {
    case "mount":
      return { ...plan, [action.end]: { ...plan[action.end], mountAglM: action.mountAglM } };
    case "mounts":
      return { ...plan, near: { ...plan.near, mountAglM: action.nearMountAglM }, far: { ...plan.far, mountAglM: action.farMountAglM } };
    case "power":
      return { ...plan, near: { ...plan.near, txPowerDbm: action.nearDbm }, far: { ...plan.far, txPowerDbm: action.farDbm } };
    case "trim":
      return { ...plan, trims: { ...plan.trims, [action.bodyId]: action.heightM } };
    case "trims":
      return { ...plan, trims: action.trimsM };
    case "width":
      return { ...plan, widthMhz: action.widthMhz };
    case "aim":
      return { ...plan, [action.end]: { ...plan[action.end], aim: AIMED } };
    case "together":
      return action.actions.reduce(apply, plan);
    case "look":
      return plan;
  }
};
