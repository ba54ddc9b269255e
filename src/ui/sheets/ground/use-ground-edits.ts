"use client";
import { useRef } from "react";
import type { LinkDto, SiteDto } from "@/contract";
import { patchJson, postJson } from "../../api/client";
import { useRefresh } from "../../api/queries";
import { type UndoStack, useUndoStack } from "../../state/undo-stack";
import type { SiteValues } from "./site-form";

export interface GroundEdits {
  readonly stack: UndoStack;
  readonly addSite: (values: SiteValues) => Promise<void>;
  readonly changeSite: (site: SiteDto, values: Partial<SiteValues>) => Promise<void>;
  readonly removeSite: (site: SiteDto) => Promise<void>;
  /** @returns the new link's id once the job has been read again. */
  readonly join: (nearSiteId: string, farSiteId: string) => Promise<string>;
  readonly removeLink: (linkId: string) => Promise<void>;
}

/** Edits of sites and links, each with its inverse; they queue one behind another. */
export const useGroundEdits = (
  jobId: string,
  rows: readonly { readonly id: string; readonly version: number }[],
  onError: (error: unknown) => void,
): GroundEdits => {
  const refresh = useRefresh();
  const stack = useUndoStack(onError);
  // The newest version known of each row: what the server answered may be ahead of what was last read.
  const versions = useRef(new Map<string, number>());
  for (const row of rows) versions.current.set(row.id, Math.max(row.version, versions.current.get(row.id) ?? 0));

  const patchSite = async (siteId: string, fields: Partial<SiteValues> & { deleted?: boolean }): Promise<void> => {
    const row = await patchJson<SiteDto>(`/api/sites/${siteId}`, { version: versions.current.get(siteId) ?? 1, ...fields });
    versions.current.set(siteId, row.version);
    void refresh(jobId);
  };
  const patchLink = async (linkId: string, deleted: boolean): Promise<void> => {
    const version = versions.current.get(linkId) ?? 1;
    await patchJson(`/api/links/${linkId}`, { version, deleted });
    versions.current.set(linkId, version + 1);
    void refresh(jobId);
  };
  return {
    stack,
    addSite: (values) =>
      stack.perform(async () => {
        const row = await postJson<SiteDto>(`/api/jobs/${jobId}/sites`, values);
        versions.current.set(row.id, row.version);
        void refresh(jobId);
        return { undo: () => patchSite(row.id, { deleted: true }), redo: () => patchSite(row.id, { deleted: false }) };
      }),
    changeSite: (site, values) =>
      stack.perform(async () => {
        const { name, latDeg, lonDeg, mountAglM, mountMaxAglM } = site;
        await patchSite(site.id, values);
        return {
          undo: () => patchSite(site.id, { name, latDeg, lonDeg, mountAglM, mountMaxAglM }),
          redo: () => patchSite(site.id, values),
        };
      }),
    removeSite: (site) =>
      stack.perform(async () => {
        await patchSite(site.id, { deleted: true });
        return { undo: () => patchSite(site.id, { deleted: false }), redo: () => patchSite(site.id, { deleted: true }) };
      }),
    join: async (nearSiteId, farSiteId) => {
      let made = "";
      await stack.perform(async () => {
        const row = await postJson<LinkDto>(`/api/jobs/${jobId}/links`, { nearSiteId, farSiteId });
        made = row.id;
        versions.current.set(row.id, row.version);
        await refresh(jobId);
        return { undo: () => patchLink(row.id, true), redo: () => patchLink(row.id, false) };
      });
      return made;
    },
    removeLink: (linkId) =>
      stack.perform(async () => {
        await patchLink(linkId, true);
        return { undo: () => patchLink(linkId, false), redo: () => patchLink(linkId, true) };
      }),
  };
};
