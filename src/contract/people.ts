import { z } from "zod";
import { IDENTITY_SHEETS } from "./identity-sheets";
import { type OpenSheet, ROLES, type Role, SHEET_NAMES, type SheetName } from "./roles";

/* People, phones, invitations: what travels of them. No secret but one's own, once. */

const uuid = z.uuid("that is no id");
export const emailSchema = z
  .string("an address is needed")
  .trim()
  .toLowerCase()
  .max(254, "an address has 254 letters or fewer")
  .pipe(z.email("that is no e-mail address"));
const name = z.string("a name is needed").trim().min(1, "a name is needed").max(80, "a name has 80 letters or fewer");
/** How good it is is judged beside who it belongs to. */
const password = z.string("a password is needed").min(1, "a password is needed").max(128, "a password has 128 letters or fewer");
const secret = z.string("the code is missing").regex(/^[\w-]{22}$/, "that is no code of ours");

/** What somebody who comes in will be. */
export const becomesSchema = z
  .object({
    role: z.enum(ROLES),
    /** Null: all jobs of the firm. */
    jobIds: z.array(uuid).max(500).nullable(),
    /** A customer's sheets. */
    sheets: z.array(z.enum(SHEET_NAMES)).max(SHEET_NAMES.length).nullable(),
  })
  .superRefine((b, ctx) => {
    const fault = (path: string, message: string): void => ctx.addIssue({ code: "custom", path: [path], message });
    if ((b.role === "owner" || b.role === "planner") && b.jobIds !== null)
      fault("jobIds", `an ${b.role === "owner" ? "owner" : "planner"} has all jobs`);
    if (b.role === "customer" && b.jobIds === null) fault("jobIds", "a customer sees chosen jobs");
    if (b.role === "customer" && (b.sheets ?? []).length === 0) fault("sheets", "a customer sees chosen sheets: choose one");
    if (b.role !== "customer" && b.sheets !== null) fault("sheets", "only customers have chosen sheets");
  });
export type BecomesDto = z.output<typeof becomesSchema>;

export const signInSchema = z.strictObject({ email: emailSchema, password });
export const secondFactorSchema = z.strictObject({
  code: z.string("a code is needed").trim().min(6, "a code is needed").max(32),
  kind: z.enum(["app", "recovery"]).default("app"),
});
export const firstOwnerSchema = z.strictObject({ code: secret, organisation: name, name, email: emailSchema, password });
export const invitationSchema = z.strictObject({ email: emailSchema, becomes: becomesSchema });
export const invitationLookSchema = z.strictObject({ token: secret });
export const acceptSchema = z.strictObject({ token: secret, name, password });
export const forgotSchema = z.strictObject({ email: emailSchema });
export const resetSchema = z.strictObject({ token: secret, password });
export const passwordSchema = z.strictObject({ current: password, next: password });
export const nameSchema = z.strictObject({ name });
export const pairingSchema = z.strictObject({
  memberId: uuid,
  becomes: becomesSchema.nullable().default(null),
  /** The last day on which the phone comes in; null: seven days from now. */
  endsOn: z.iso.date("the day must be a date").nullable().default(null),
});
export const pairSchema = z.strictObject({ code: secret, name });
export const memberPatchSchema = z.strictObject({ becomes: becomesSchema, ended: z.boolean() });

export const shareSchema = z
  .strictObject({
    name: z.string("say for whom it is").trim().min(1, "say for whom it is").max(80, "for whom has 80 letters or fewer"),
    sheets: z.array(z.enum(SHEET_NAMES)).min(1, "choose a sheet").max(SHEET_NAMES.length),
    /** The last day on which it opens. */
    endsOn: z.iso.date("the day must be a date"),
    /** Who and where is left out. */
    identityOut: z.boolean().default(false),
    /** Marks of texts that are told all the same. */
    told: z
      .array(z.string().regex(/^[0-9a-f]{16}$/))
      .max(2000)
      .default([]),
  })
  .refine((s) => !s.identityOut || !s.sheets.some((x) => IDENTITY_SHEETS.includes(x)), {
    path: ["sheets"],
    message: "Brief and Ground tell who and where by what they are: leave them out",
  });
/** A text that is left out unless it is ticked. */
export interface FreeTextDto {
  readonly mark: string;
  readonly kind: string;
  readonly path: string;
  readonly text: string;
}
export const shareOpenSchema = z.strictObject({ token: secret });

/** A token of a program: read, write as crews do, or plan; never to do with people. */
export const tokenSchema = z.strictObject({
  name: z.string("say what it is for").trim().min(1, "say what it is for").max(80, "what it is for has 80 letters or fewer"),
  becomes: becomesSchema.refine((b) => b.role === "viewer" || b.role === "installer" || b.role === "planner", {
    path: ["role"],
    message: "a token reads, writes as crews do, or plans",
  }),
  /** The last day on which it opens. */
  endsOn: z.iso.date("the day must be a date"),
});
export interface TokenDto {
  readonly id: string;
  readonly name: string;
  readonly person: string;
  readonly becomes: BecomesDto;
  readonly expiresAt: string;
  readonly ended: boolean;
  readonly lastUsedAt: string | null;
  readonly lastUsedFrom: string | null;
}
export interface TokenMadeDto {
  readonly token: string;
  readonly expiresAt: string;
}

/** An address that is told of changes. */
export const webhookSchema = z.strictObject({
  name: z.string("say what it is for").trim().min(1, "say what it is for").max(80, "what it is for has 80 letters or fewer"),
  url: z
    .string("an address is needed")
    .trim()
    .max(500, "an address has 500 letters or fewer")
    .pipe(z.url({ protocol: /^https?$/, error: "that is no address of the web: https://…" }))
    .refine(
      (u) => !URL.canParse(u) || (new URL(u).username === "" && new URL(u).password === ""),
      "leave name and password out of the address",
    ),
  /** Null: all jobs of the firm. */
  jobIds: z.array(uuid).min(1, "choose a job").max(500).nullable(),
});
/** What a call tells. */
export const webhookCallSchema = z.strictObject({
  type: z.enum(["job.changed", "try"]),
  changes: z
    .array(
      z.strictObject({
        seq: z.number().int().describe("rises with each change: what was told already is known by it"),
        jobId: uuid,
        job: z.string(),
        kind: z.string().describe("site, link, design, and so on; import where a file brought many"),
        recordId: z.string(),
        action: z.string(),
        at: z.iso.datetime(),
      }),
    )
    .describe("in the order they were made; none when it is only a try"),
});
export interface WebhookDto {
  readonly id: string;
  readonly name: string;
  readonly url: string;
  readonly jobIds: readonly string[] | null;
  /** Changes that it is still to be told. */
  readonly due: number;
  readonly failures: number;
  /** Left alone until an owner says otherwise. */
  readonly paused: boolean;
  readonly nextAt: string;
  readonly lastOkAt: string | null;
  readonly lastAnswer: string;
  readonly dropped: number;
}
export interface WebhookMadeDto {
  readonly id: string;
  /** What calls are signed by. */
  readonly secret: string;
}

/** A link that was shared, as who made it sees it. */
export interface ShareDto {
  readonly id: string;
  readonly identityOut: boolean;
  readonly name: string;
  readonly sheets: readonly SheetName[];
  readonly expiresAt: string;
  readonly ended: boolean;
  readonly opened: number;
  readonly lastOpenedAt: string | null;
}

/** Somebody else who has a job open, and on which sheet. */
export interface HereDto {
  readonly name: string;
  readonly sheet: OpenSheet;
}

export interface MeDto {
  /** False: whoever sits at this machine is the owner, and nobody else reaches it. */
  readonly signIn: boolean;
  /** Nobody can come in yet: the first becomes the owner. */
  readonly first: boolean;
  /** This phone must forget: all, when it was ended; copies, when its time is over: what waits there to be sent stays. */
  readonly forget: "all" | "copies" | null;
  /** Null: signed out. */
  readonly person: {
    /** Null: whoever sits at this machine. */
    readonly id: string | null;
    readonly name: string;
    readonly role: Role;
    readonly organisation: string;
    readonly sheets: readonly SheetName[] | null;
    /** All jobs of the firm, or some. */
    readonly allJobs: boolean;
    /** Of a paired phone: the last moment it comes in, ISO 8601. */
    readonly deviceEndsAt: string | null;
    /** Came by a link that was shared: without an account. */
    readonly byShare: boolean;
    /** Who and where is left out of what they see. */
    readonly identityOut: boolean;
  } | null;
  /** A link that was shared with this browser is over. */
  readonly shareOver: boolean;
}

export interface PersonDto {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly becomes: BecomesDto;
  readonly ended: boolean;
  readonly lastSeenAt: string | null;
  readonly secondFactor: boolean;
  readonly self: boolean;
}
export interface InvitationDto {
  readonly id: string;
  readonly email: string;
  readonly becomes: BecomesDto;
  readonly expiresAt: string;
}
export interface DeviceDto {
  readonly id: string;
  readonly name: string;
  readonly person: string;
  readonly memberId: string;
  readonly becomes: BecomesDto;
  readonly endsAt: string;
  readonly lastSeenAt: string | null;
  readonly lastSeenFrom: string | null;
  readonly revokedAt: string | null;
  readonly wipedAt: string | null;
}
export interface PeopleDto {
  readonly organisation: string;
  readonly people: readonly PersonDto[];
  readonly invitations: readonly InvitationDto[];
  readonly devices: readonly DeviceDto[];
  /** False: letters are written and kept, and nobody carries them. */
  readonly mailGoes: boolean;
}
export interface AuditDto {
  readonly id: number;
  readonly at: string;
  readonly person: string;
  readonly what: string;
  readonly job: string | null;
  readonly detail: Readonly<Record<string, string | number | boolean>>;
  readonly from: string | null;
}
export interface LetterDto {
  readonly id: string;
  readonly at: string;
  readonly to: string;
  readonly subject: string;
  readonly body: string;
  readonly sent: boolean;
  readonly fault: string | null;
}
export interface AccountDto {
  readonly name: string;
  readonly email: string;
  readonly secondFactor: boolean;
  readonly sessions: readonly {
    readonly id: string;
    readonly own: boolean;
    readonly began: string;
    readonly lastUsed: string;
    readonly browser: string;
    readonly phone: string | null;
  }[];
  readonly passkeys: readonly { readonly id: string; readonly name: string; readonly made: string; readonly lastUsed: string | null }[];
  /** Passkeys need a name in the address, not a number. */
  readonly passkeysHere: boolean;
}
