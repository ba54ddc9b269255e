import { writeFile } from "node:fs/promises";
import type { PackDto, PackFor } from "../contract";
import type { Page } from "../core/page";
import type { Db } from "../data/client";
import type { JobRow } from "../data/jobs";
import { type PagesAsk, packPages, packTold } from "../pack";
import { fileName } from "./export";
import { packFacts } from "./pack-facts";

/* The pack of a job, or of one link: as pages for the screen, and as a file. */

export interface PackAsk extends PagesAsk {
  /** Null: every link of the job. */
  readonly linkId: string | null;
  readonly isFor: PackFor;
}

export const packHead = (job: JobRow, ask: Pick<PackAsk, "isFor">): { type: string; name: string } => ({
  type: "application/pdf",
  name: `${fileName(job.name)}-${ask.isFor === "installer" ? "pack" : ask.isFor}.pdf`,
});

/** @throws NotFound when the job has no such link. */
export const pagesOfPack = async (db: Db, row: JobRow, ask: PackAsk): Promise<Page[]> =>
  packPages(await packFacts(db, row, ask.linkId), ask.isFor, ask);

/** The same for the screen, with what the pages say first. */
export const packDto = async (db: Db, row: JobRow, ask: PackAsk): Promise<PackDto> => {
  const facts = await packFacts(db, row, ask.linkId);
  return { pages: packPages(facts, ask.isFor, ask), madeAt: facts.madeAt, ...packTold(facts, ask.isFor, ask) };
};

/** Writes the pack as a PDF. */
export const writePack = async (db: Db, row: JobRow, ask: PackAsk, path: string): Promise<void> => {
  const pages = await pagesOfPack(db, row, ask);
  // Laying out paper is code that nothing else needs.
  const { pagesPdf } = await import("../formats/pdf/page-pdf");
  await writeFile(
    path,
    await pagesPdf(pages, { title: `${row.name}, ${ask.isFor === "installer" ? "field pack" : ask.isFor}`, language: "en" }),
  );
};
