"use client";
import { useRef } from "react";
import type { FeatureDto, FeatureFields, GroundTold, LinkDto, ObstacleDto, ObstacleFields, SiteDto } from "@/contract";
import { useRefresh } from "../../api/queries";
import { sendEdit } from "../../state/browser-outbox";
import { sendForm } from "../../state/form-edit";
import { type JobHistory, useJobHistory } from "../../state/job-history";
import { type OwnVersions, ownVersions, type Versioned } from "../../state/own-versions";
import type { SiteValues } from "./site-form";

export interface GroundEdits {
  readonly history: JobHistory;
  readonly addSite: (values: SiteValues) => Promise<void>;
  readonly moveSite: (site: SiteDto, at: { readonly latDeg: number; readonly lonDeg: number }) => Promise<void>;
  /** @param opened the row as the form was opened on it. */
  readonly changeSite: (opened: SiteDto, values: SiteValues) => Promise<void>;
  readonly removeSite: (site: SiteDto) => Promise<void>;
  /** @returns the new link's id once the job has been read again. */
  readonly join: (nearSiteId: string, farSiteId: string) => Promise<string>;
  readonly removeLink: (linkId: string) => Promise<void>;
  readonly tellGround: (opened: LinkDto, told: GroundTold | null) => Promise<void>;
  readonly addObstacle: (fields: ObstacleFields) => Promise<void>;
  readonly changeObstacle: (opened: ObstacleDto, fields: ObstacleFields) => Promise<void>;
  readonly splitObstacle: (row: Versioned, parts: readonly (readonly [number, number])[][]) => Promise<void>;
  readonly addFeature: (fields: FeatureFields) => Promise<void>;
  readonly changeFeature: (opened: FeatureDto, fields: FeatureFields) => Promise<void>;
  readonly removeDrawn: (table: "obstacles" | "features", row: Versioned) => Promise<void>;
}

/** Edits of everything on the Ground sheet; they queue one behind another, and the server can take each back. */
export const useGroundEdits = (
  jobId: string,
  links: readonly Versioned[],
  onError: (error: unknown) => void,
  /** What is drawn has changed and is to be read again. */
  onDrawn: () => void,
): GroundEdits => {
  const refresh = useRefresh();
  const history = useJobHistory(jobId, onError, onDrawn);
  const own = useRef<OwnVersions | null>(null);
  own.current ??= ownVersions();
  const { answered, newest } = own.current;
  const linkRow = (id: string): Versioned => links.find((l) => l.id === id) ?? { id, version: 1 };

  const base = `/api/jobs/${jobId}`;
  /** Done as soon as it is made, or as soon as it waits in the outbox: from there on it goes by itself, and a refusal is told. */
  const edit = (method: "POST" | "PATCH", path: string, body: object, drawn = false): Promise<void> =>
    new Promise((resolve, reject) => {
      let waited = false;
      const waits = (): void => {
        waited = true;
        resolve();
      };
      history
        .perform(async () => {
          const row = await sendEdit<Versioned>(jobId, method, `${base}${path}`, body, waits);
          const { version } = body as { readonly version?: number };
          if (version !== undefined && typeof row.version === "number") answered(row.id, version, row.version);
        })
        .then(resolve, (error: unknown) => (waited ? onError(error) : reject(error)))
        .finally(() => {
          void refresh(jobId);
          if (drawn) onDrawn();
        });
    });
  /** What a form changed of a row as it was opened. @throws FormClash where somebody else changed the same. */
  const form = <F extends object>(
    route: "sites" | "links" | "obstacles" | "features",
    opened: Versioned,
    values: F,
    drawn = false,
  ): Promise<void> =>
    sendForm({ ...opened, version: newest(opened) }, values, (version, patch) =>
      edit("PATCH", `/${route}/${opened.id}`, { version, ...patch }, drawn),
    );
  const patchSite = (site: Versioned, fields: Partial<SiteValues> & { deleted?: boolean }): Promise<void> =>
    edit("PATCH", `/sites/${site.id}`, { version: newest(site), ...fields });
  const patchLink = (linkId: string, fields: { deleted: boolean }): Promise<void> =>
    edit("PATCH", `/links/${linkId}`, { version: newest(linkRow(linkId)), ...fields });
  return {
    history,
    addSite: (values) => edit("POST", "/sites", { id: crypto.randomUUID(), ...values }),
    moveSite: patchSite,
    changeSite: (opened, values) => form("sites", opened, values),
    removeSite: (site) => patchSite(site, { deleted: true }),
    join: (nearSiteId, farSiteId) =>
      history.perform(async () => {
        const row = await sendEdit<LinkDto>(jobId, "POST", `${base}/links`, { nearSiteId, farSiteId });
        await refresh(jobId);
        return row.id;
      }),
    removeLink: (linkId) => patchLink(linkId, { deleted: true }),
    tellGround: (opened, groundTold) => form("links", opened, { groundTold }),
    addObstacle: (fields) => edit("POST", "/obstacles", fields, true),
    changeObstacle: (opened, fields) => form("obstacles", opened, fields, true),
    splitObstacle: (row, parts) => edit("POST", `/obstacles/${row.id}/split`, { version: newest(row), parts }, true),
    addFeature: (fields) => edit("POST", "/features", fields, true),
    changeFeature: (opened, fields) => form("features", opened, fields, true),
    removeDrawn: (table, row) => edit("PATCH", `/${table}/${row.id}`, { version: newest(row), deleted: true }, true),
  };
};
