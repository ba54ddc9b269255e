import { and, asc, eq, isNull } from "drizzle-orm";
import type { FieldsOf, InputOf, RowOf } from "../contract";
import { asOneStep } from "./actor";
import { NotFound } from "./clash";
import type { Db } from "./client";
import { type DesignRow, getLink, type LinkWithDesign } from "./jobs";
import { type Door, edit } from "./records";
import { design, link } from "./schema";

export type DesignInput = Omit<InputOf<"design">, "linkId" | "chosen" | "name">;

export interface NewLink {
  readonly nearSiteId: string;
  readonly farSiteId: string;
  readonly label: string;
  readonly stage?: string;
  readonly design: DesignInput;
}

/** A link between two sites and the design in force of it: one step of the history. */
export const addLink = async (door: Door, input: NewLink): Promise<{ link: RowOf<"link">; design: RowOf<"design"> }> =>
  asOneStep(async () => {
    const { design: drawn, ...ends } = input;
    const made = await door.create("link", ends);
    return { link: made, design: await door.create("design", { ...drawn, linkId: made.id, chosen: true }) };
  });

export const createLink = (db: Db, jobId: string, input: NewLink): Promise<LinkWithDesign> =>
  edit(db, jobId, async (door) => (await getLink(door.tx as unknown as Db, (await addLink(door, input)).link.id)).link);

/** Designs of a link kept beside the one in force, oldest first. */
export const keptDesigns = (db: Db, linkId: string): Promise<DesignRow[]> =>
  db
    .select()
    .from(design)
    .where(and(eq(design.linkId, linkId), eq(design.chosen, false), isNull(design.deletedAt)))
    .orderBy(asc(design.createdAt));

const LETTERS = ["B", "C", "D", "E", "F", "G", "H", "I", "J"];

/** Keeps a copy of the design in force, to compare with. @param shown its fields as they stand on the screen, when they may not be saved yet. */
export const keepDesign = (
  db: Db,
  jobId: string,
  linkId: string,
  name: string,
  shown: Partial<FieldsOf<"design">> = {},
): Promise<RowOf<"design">> =>
  edit(db, jobId, async (door) => {
    const rows = await door.tx
      .select()
      .from(design)
      .innerJoin(link, and(eq(link.id, design.linkId), eq(link.jobId, jobId), isNull(link.deletedAt)))
      .where(and(eq(design.linkId, linkId), isNull(design.deletedAt)));
    const chosen = rows.find((r) => r.design.chosen)?.design;
    if (chosen === undefined) throw new NotFound("link");
    const taken = new Set(rows.map((r) => r.design.name));
    const letter = LETTERS.find((l) => !taken.has(l)) ?? "kept";
    return door.create("design", { ...(chosen as InputOf<"design">), ...shown, linkId, chosen: false, name: name === "" ? letter : name });
  });
