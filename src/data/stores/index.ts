import { sql } from "drizzle-orm";
import { kindOf } from "../../contract";
import { design, job, link, photo, site } from "../schema";
import { basemap } from "../schema-work";
import { columnStore } from "./columns";
import { briefStore, documentStore } from "./documents";
import { drawnStore } from "./drawn";
import type { Store } from "./store";

export { outlineOf, pointsOf } from "./drawn";
export type { Kept, Store } from "./store";

/** Kinds with columns of their own; all others are documents. */
const OWN: Readonly<Record<string, Store>> = {
  job: columnStore("job", job, sql<string>`${job.id}`),
  brief: briefStore,
  site: columnStore("site", site),
  link: columnStore("link", link),
  design: columnStore("design", design, sql<string>`(SELECT l.job_id FROM link l WHERE l.id = ${design.linkId})`),
  obstacle: drawnStore("obstacle"),
  feature: drawnStore("feature"),
  photo: columnStore("photo", photo),
  basemap: columnStore("basemap", basemap),
};

export const storeOf = (name: string): Store => (kindOf(name).kept === "document" ? documentStore(name) : OWN[name]!);
