import type { AuditDto, OpenSheet, Role, SheetName } from "@/contract";

/** Roles of a firm, in words. */
export const ROLE_NAME: Readonly<Record<Role, string>> = {
  owner: "Owner",
  planner: "Planner",
  installer: "Installer",
  viewer: "Viewer",
  customer: "Customer",
};

/** What each may do, in a line. */
export const ROLE_NOTE: Readonly<Record<Role, string>> = {
  owner: "everything, people and phones too",
  planner: "plans all jobs, with prices",
  installer: "sees jobs without prices; writes the survey, what was picked, units and safety",
  viewer: "reads jobs, without prices; changes nothing",
  customer: "reads chosen sheets of chosen jobs, without prices",
};

export const SHEET_WORD: Readonly<Record<SheetName, string>> = {
  brief: "Brief",
  ground: "Ground",
  section: "Section",
  gear: "Gear",
  hub: "Hub",
  load: "Load",
  air: "Air",
  wiring: "Wiring",
  kit: "Kit",
};

/** The same of all sheets that somebody may have open. */
export const OPEN_WORD: Readonly<Record<OpenSheet, string>> = { ...SHEET_WORD, pack: "Pack", roof: "Roof" };

/** What a token may do, by the role it has. */
export const TOKEN_DOES: Readonly<Partial<Record<Role, string>>> = {
  viewer: "reads, without prices",
  installer: "reads, and writes what crews write",
  planner: "reads and plans, with prices",
};

const WEEK_MS = 7 * 86_400_000;
/** Until when a phone comes in unless another day is said: a week after the next visit, or after today. Days as ISO dates. */
export const lastDayFor = (visits: readonly string[], today: string): string => {
  const next = visits.filter((v) => v >= today).sort()[0] ?? today;
  return new Date(Date.parse(`${next}T00:00:00Z`) + WEEK_MS).toISOString().slice(0, 10);
};

/** The last day before a moment: what ends at midnight comes in until the day before. */
export const lastDayText = (iso: string): string =>
  new Date(Date.parse(iso) - 1).toLocaleDateString("en-GB", { day: "numeric", month: "short", year: "numeric", timeZone: "UTC" });

const text = (v: unknown): string => (v === undefined || v === null || v === "" ? "" : String(v));

/** What was done, by its name in the book; one that a later program wrote is told by that name. */
const DONE: Readonly<Record<string, (d: AuditDto["detail"]) => string>> = {
  "first-owner": () => "became the first owner",
  "signed-in": (d) => `signed in by ${text(d.how)}`,
  "sign-in-refused": () => "was refused at the door: a wrong password was given in their name",
  "code-refused": () => "was refused at the second step: the password was right, the code was not",
  invited: (d) => `invited ${text(d.email)} as ${text(d.role)}`,
  "invitation-ended": (d) => `took back the invitation of ${text(d.email)}`,
  joined: (d) => `joined as ${text(d.role)}`,
  "member-changed": (d) => `changed what is open to somebody: now ${text(d.role)}`,
  "member-ended": () => "ended somebody's being of the firm",
  "phone-code": (d) => `made a code for a phone, as ${text(d.role)}`,
  "phone-paired": (d) => `let in the phone ${text(d.phone)}`,
  "phone-ended": (d) => `ended the phone ${text(d.phone)}`,
  "phone-forgot": (d) => `the phone ${text(d.phone)} has forgotten what it kept`,
  "password-changed": () => "changed their password",
  "password-by-letter": () => "set a new password by letter",
  "second-factor-on": () => "turned the second step on",
  "second-factor-off": () => "turned the second step off",
  "passkey-made": () => "made a passkey",
  "passkey-forgotten": () => "forgot a passkey",
  "session-ended": () => "ended one of their sessions",
  "firm-named": (d) => `named the firm ${text(d.name)}`,
  shared: (d) => `shared ${text(d.sheets)} with ${text(d.for)} by a link`,
  "share-ended": (d) => `took back the link for ${text(d.for)}`,
  "token-made": (d) => `made the token ${text(d.token)}, as ${text(d.role)}`,
  "token-ended": (d) => `ended the token ${text(d.token)}`,
  "webhook-made": (d) => `had ${text(d.to)} told of changes, for ${text(d.for)}`,
  "webhook-ended": (d) => `ended the calls for ${text(d.for)}`,
  "took-out-job": () => "took the whole job out as a file",
  "took-out-quote": () => "took a quote out",
  "took-out-pack": () => "took a field pack out",
  "took-out-places": () => "took places out as a file",
};

export const auditSentence = (line: Pick<AuditDto, "what" | "detail">): string => DONE[line.what]?.(line.detail) ?? line.what;
