import { z } from "zod";
import { type Role, seesPrices } from "./roles";

/** What is worked out anew when a record of a kind changes: verdicts of the whole job, of one link, of a site's links, of links near it. */
export type Stale = "job" | "link" | "site" | "near" | "hardware" | "nothing";

/** Where a kind stands in a bundle: a file of its own, or within the rows of its parent. */
export interface BundlePlace {
  readonly file: string;
  /** One row, a list as one JSON value, or a row a line. */
  readonly form: "one" | "list" | "lines" | "within";
  /** Folder that holds the bytes of each row under its id. */
  readonly bytes?: string;
}

/** Everything that is said of a kind of record, once. */
export interface Kind<Fields extends z.ZodObject = z.ZodObject, Fixed extends z.ZodObject = z.ZodObject> {
  readonly parent: "none" | "job" | "site" | "link";
  /** False: there is at most one of its parent, and its id is the parent's. */
  readonly many: boolean;
  /** Its name in addresses: /api/jobs/{job}/{route}/{id}. */
  readonly route: string;
  /** What people edit; a default is what a new one starts with. */
  readonly fields: Fields;
  /** What is set when it is made and stays. */
  readonly fixed: Fixed;
  /** Rules between fields, held against the whole of them. */
  readonly check?: (values: z.output<Fields>) => readonly { readonly path: string; readonly message: string }[];
  readonly words: {
    readonly one: string;
    readonly many: string;
    readonly fields: Readonly<Record<keyof z.output<Fields>, string>>;
  };
  readonly bundle: BundlePlace | null;
  readonly stale: Stale;
  /** Roles of the firm that see it. */
  readonly seenBy: readonly Role[];
  /** Of these, who may edit it, take it back and bring it in. */
  readonly editedBy: readonly Role[];
  /** Fields that name a record of another kind. */
  readonly refs?: Readonly<Record<string, string>>;
  /** Fields that no figure of the job rests on: where these alone change, nothing is worked out anew. */
  readonly noFigures?: readonly (keyof z.output<Fields> & string)[];
  /** Fields that are never told: not in history, undo, news, drafts, bundles, lists or logs. */
  readonly secrets?: readonly (keyof z.output<Fields> & string)[];
  /** Fields with the customer's money in them: for who may see prices. */
  readonly prices?: readonly (keyof z.output<Fields> & string)[];
  /** It may be added to and never changed. */
  readonly appendOnly?: boolean;
  /** Its id comes from the client: making it again is harmless. */
  readonly idByClient?: boolean;
  /** Its id follows from what it stands for: made again after it was taken away, it comes back as it is then made. */
  readonly comesBack?: boolean;
  /** It goes along on the phone. */
  readonly onPhone?: boolean;
  /** In columns of a table of its own, or as a document beside others. */
  readonly kept: "columns" | "document";
}

export const NO_FIXED = z.object({});

/** Declares a kind; its fields, words and marks are checked against each other by the compiler. */
export const kind = <Fields extends z.ZodObject, Fixed extends z.ZodObject>(k: Kind<Fields, Fixed>): Kind<Fields, Fixed> => k;

/** A field without its default: what is left out of a patch stays as it is. */
const bare = (field: z.core.$ZodType): z.ZodType => {
  let f = field as z.ZodType;
  while (f instanceof z.ZodDefault || f instanceof z.ZodPrefault) f = f.unwrap() as z.ZodType;
  return f;
};

/** What an edit of a kind may hold: some of its fields, each as it must be, and none that it does not have. */
export const patchOf = (k: Pick<Kind, "fields">): z.ZodType<Record<string, unknown>> =>
  z.strictObject(Object.fromEntries(Object.entries(k.fields.shape).map(([key, field]) => [key, bare(field).optional()])));

/** What a field holds where nobody has written anything. */
const start = (k: Kind, key: string): unknown => {
  const read = (k.fields.shape[key] as z.ZodType | undefined)?.safeParse(undefined);
  return read?.success === true ? (read.data ?? null) : null;
};

/** A row as a role may see it: no secrets, and prices as if nobody had written any for whom they are not meant. */
export const visibleTo = (role: Role, k: Kind, values: Readonly<Record<string, unknown>>): Record<string, unknown> => {
  const prices: readonly string[] = seesPrices(role) ? [] : (k.prices ?? []);
  const secrets: readonly string[] = k.secrets ?? [];
  return Object.fromEntries(
    Object.entries(values).flatMap(([key, v]) => (secrets.includes(key) ? [] : [[key, prices.includes(key) ? start(k, key) : v]])),
  );
};

export const editsKind = (k: Pick<Kind, "editedBy">, role: Role): boolean => k.editedBy.includes(role);
