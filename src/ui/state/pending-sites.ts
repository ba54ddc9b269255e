import { SITE_START, type SiteDto, toldOf } from "@/contract";
import type { Edit } from "./outbox";

/**
 * Sites as they will be once the edits on their way are made: what was dragged stays where it was let go, what was set
 * stands there already. A new one has the id that was made for it here.
 */
export const withPendingSites = (jobId: string, sites: readonly SiteDto[], edits: readonly Edit[]): readonly SiteDto[] => {
  const base = `/api/jobs/${jobId}/${toldOf("site").route}`;
  const mine = edits.filter((e) => e.path === base || e.path.startsWith(`${base}/`));
  if (mine.length === 0) return sites;
  let out = [...sites];
  for (const e of mine) {
    const body = e.body as Partial<SiteDto> & { readonly deleted?: boolean };
    if (e.path === base && e.method === "POST") {
      out.push({
        ...SITE_START,
        ...(body as Omit<SiteDto, keyof typeof SITE_START>),
        id: (body as { id?: string }).id ?? e.id,
        version: 1,
      });
    } else if (e.method === "PATCH") {
      const id = e.path.slice(base.length + 1);
      const { deleted, version: _v, ...fields } = body;
      out = deleted === true ? out.filter((s) => s.id !== id) : out.map((s) => (s.id === id ? { ...s, ...fields } : s));
    }
  }
  return out;
};
