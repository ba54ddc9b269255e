"use client";
import { useRef } from "react";
import type { FeatureFields, GroundTold, LinkDto, ObstacleFields, SiteDto } from "@/contract";
import { useRefresh } from "../../api/queries";
import { sendEdit } from "../../state/browser-outbox";
import { type JobHistory, useJobHistory } from "../../state/job-history";
import type { SiteValues } from "./site-form";

export interface Versioned {
  readonly id: string;
  readonly version: number;
}

export interface GroundEdits {
  readonly history: JobHistory;
  readonly addSite: (values: SiteValues) => Promise<void>;
  readonly changeSite: (site: SiteDto, values: Partial<SiteValues>) => Promise<void>;
  readonly removeSite: (site: SiteDto) => Promise<void>;
  /** @returns the new link's id once the job has been read again. */
  readonly join: (nearSiteId: string, farSiteId: string) => Promise<string>;
  readonly removeLink: (linkId: string) => Promise<void>;
  readonly tellGround: (linkId: string, told: GroundTold | null) => Promise<void>;
  readonly addObstacle: (fields: ObstacleFields) => Promise<void>;
  readonly changeObstacle: (row: Versioned, fields: ObstacleFields) => Promise<void>;
  readonly splitObstacle: (row: Versioned, parts: readonly (readonly [number, number])[][]) => Promise<void>;
  readonly addFeature: (fields: FeatureFields) => Promise<void>;
  readonly changeFeature: (row: Versioned, fields: FeatureFields) => Promise<void>;
  readonly removeDrawn: (table: "obstacles" | "features", row: Versioned) => Promise<void>;
}

/** Edits of everything on the Ground sheet; they queue one behind another, and the server can take each back. */
export const useGroundEdits = (
  jobId: string,
  rows: readonly Versioned[],
  onError: (error: unknown) => void,
  /** What is drawn has changed and is to be read again. */
  onDrawn: () => void,
): GroundEdits => {
  const refresh = useRefresh();
  const history = useJobHistory(jobId, onError, onDrawn);
  // The newest version known of each row: what the server answered may be ahead of what was last read.
  const versions = useRef(new Map<string, number>());
  const newest = (row: Versioned): number => Math.max(row.version, versions.current.get(row.id) ?? 0);
  const seen = (row: Versioned): void => {
    versions.current.set(row.id, newest(row));
  };
  for (const row of rows) seen(row);

  const base = `/api/jobs/${jobId}`;
  /** Done as soon as it is made, or as soon as it waits in the outbox: from there on it goes by itself, and a refusal is told. */
  const edit = (method: "POST" | "PATCH", path: string, body: unknown, drawn = false): Promise<void> =>
    new Promise((resolve, reject) => {
      let waited = false;
      const waits = (): void => {
        waited = true;
        resolve();
      };
      history
        .perform(async () => {
          const row = await sendEdit<Versioned>(jobId, method, `${base}${path}`, body, waits);
          if (typeof row.version === "number") seen(row);
        })
        .then(resolve, (error: unknown) => (waited ? onError(error) : reject(error)))
        .finally(() => {
          void refresh(jobId);
          if (drawn) onDrawn();
        });
    });
  const patchSite = (site: Versioned, fields: Partial<SiteValues> & { deleted?: boolean }): Promise<void> =>
    edit("PATCH", `/sites/${site.id}`, { version: newest(site), ...fields });
  const patchLink = (linkId: string, fields: { deleted: boolean } | { groundTold: GroundTold | null }): Promise<void> =>
    edit("PATCH", `/links/${linkId}`, { version: versions.current.get(linkId) ?? 1, ...fields });
  return {
    history,
    addSite: (values) => edit("POST", "/sites", values),
    changeSite: patchSite,
    removeSite: (site) => patchSite(site, { deleted: true }),
    join: (nearSiteId, farSiteId) =>
      history.perform(async () => {
        const row = await sendEdit<LinkDto>(jobId, "POST", `${base}/links`, { nearSiteId, farSiteId });
        seen(row);
        await refresh(jobId);
        return row.id;
      }),
    removeLink: (linkId) => patchLink(linkId, { deleted: true }),
    tellGround: (linkId, groundTold) => patchLink(linkId, { groundTold }),
    addObstacle: (fields) => edit("POST", "/obstacles", fields, true),
    changeObstacle: (row, fields) => edit("PATCH", `/obstacles/${row.id}`, { version: newest(row), ...fields }, true),
    splitObstacle: (row, parts) => edit("POST", `/obstacles/${row.id}/split`, { version: newest(row), parts }, true),
    addFeature: (fields) => edit("POST", "/features", fields, true),
    changeFeature: (row, fields) => edit("PATCH", `/features/${row.id}`, { version: newest(row), ...fields }, true),
    removeDrawn: (table, row) => edit("PATCH", `/${table}/${row.id}`, { version: newest(row), deleted: true }, true),
  };
};
