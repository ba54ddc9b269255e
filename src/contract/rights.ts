import type { Role, SheetName } from "./roles";

/*
 * What may be asked of the server, and by whom. Every route names one of these; what it does with single records is checked
 * again, kind by kind, where they are read and written.
 */

const OWNERS = ["owner"] as const;
const PLANNERS = ["owner", "planner"] as const;
const CREWS = ["owner", "planner", "installer"] as const;
const FIRM = ["owner", "planner", "installer", "viewer"] as const;
const EVERYBODY = ["owner", "planner", "installer", "viewer", "customer"] as const;

export interface RightDef {
  readonly roles: readonly Role[];
  /** A customer needs one of these sheets as well. */
  readonly sheets?: readonly SheetName[];
  /** Something is changed by it. */
  readonly writes?: true;
}

export const RIGHTS = {
  /** Oneself: name, password, passkeys, where one is signed in. */
  "own-account": { roles: EVERYBODY, writes: true },
  /** The register: each sees their own jobs. */
  "see-jobs": { roles: EVERYBODY },
  /** A job as a whole, what its links come to, and news of it. */
  "see-job": { roles: EVERYBODY },
  /** Its records, kind by kind. */
  "see-records": { roles: EVERYBODY },
  /** What is drawn on the ground and what lies beneath. */
  "see-ground": { roles: EVERYBODY, sheets: ["ground", "section"] },
  /** Profiles of links, and what their kept designs are. */
  "see-links": { roles: EVERYBODY, sheets: ["section", "gear", "hub", "load", "air", "wiring", "kit"] },
  "see-air": { roles: EVERYBODY, sheets: ["air"] },
  "see-kit": { roles: EVERYBODY, sheets: ["kit"] },
  /** The catalogue, without prices for whom they are not meant. */
  "see-hardware": { roles: EVERYBODY },
  "see-photos": { roles: EVERYBODY, sheets: ["brief"] },
  /** Who did what to a job, and what other jobs taught. */
  "see-history": { roles: FIRM },
  /** Long questions that change nothing: heights, mounts, relays, quick paths. */
  "work-out": { roles: FIRM },
  "edit-records": { roles: CREWS, writes: true },
  /** Jobs, links, designs, ground, files on their way in. */
  plan: { roles: PLANNERS, writes: true },
  "edit-hardware": { roles: PLANNERS, writes: true },
  /** Places and days as files, without prices. */
  "take-out": { roles: FIRM },
  /** A whole job, or what it costs, as a file. */
  "take-out-all": { roles: PLANNERS },
  /** Links by which others read a job without an account. */
  "see-shares": { roles: PLANNERS },
  share: { roles: PLANNERS, writes: true },
  /** People, phones, invitations, letters, who did what. */
  "see-people": { roles: OWNERS },
  "edit-people": { roles: OWNERS, writes: true },
} as const satisfies Record<string, RightDef>;
export type Right = keyof typeof RIGHTS;

export const rightOf = (right: Right): RightDef => RIGHTS[right];

/** Whether somebody in a role may ask for something. @param sheets the sheets that a customer was given; null for everybody else. */
export const mayAsk = (right: Right, role: Role, sheets: readonly SheetName[] | null): boolean => {
  const { roles, sheets: needed } = rightOf(right);
  if (!roles.includes(role)) return false;
  return role !== "customer" || needed === undefined || needed.some((s) => sheets?.includes(s) === true);
};
