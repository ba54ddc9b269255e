"use client";
import { proxy, type Remote, wrap } from "comlink";
import { useEffect, useRef, useState } from "react";
import { type HardwareDto, type HubFields, type ProfileDto, profileFromDto } from "@/contract";
import type { HubRemote, SectorAim, SectorMends, Shape, ShapeKind } from "@/core/hub";
import type { HubWorker, MendsRequest, ShapesRequest } from "@/workers/messages";

/** Asked when nothing has moved for so long. */
const STILL_MS = 350;

export interface HubSearch {
  readonly shapes: readonly (readonly [ShapeKind, Shape | null])[];
  readonly mends: SectorMends | null;
  readonly busy: boolean;
}

const NONE: HubSearch = { shapes: [], mends: null, busy: false };

export const unitKeyOf = ({ radioId, antennaId }: { readonly radioId: string; readonly antennaId: string | null }): string =>
  antennaId === null ? radioId : `${radioId}+${antennaId}`;

/**
 * Other shapes of the hub, and what would help the sector that is looked at, worked out beside the page. What was found stays until
 * something else is asked; an older question ends with its worker.
 */
export const useHubSearch = (of: {
  readonly fields: HubFields;
  readonly remotes: readonly (readonly HubRemote[])[];
  readonly aims: readonly SectorAim[];
  readonly sector: number;
  readonly policy: ShapesRequest["policy"];
  readonly hardware: HardwareDto;
  readonly profiles: ReadonlyMap<string, ProfileDto>;
  readonly still: boolean;
}): HubSearch => {
  const [found, setFound] = useState<HubSearch>(NONE);
  const worker = useRef<Worker | null>(null);
  const { fields, remotes, aims, sector, policy, hardware, profiles, still } = of;
  // Of the links all that a shape rests on and the hub itself does not say.
  const planned = remotes.map((list) =>
    list.map(({ linkId, plan: p, hubIsNear }) => {
      const own = hubIsNear ? p.far : p.near;
      return [
        linkId,
        p.needToFarMbps,
        p.needToNearMbps,
        p.policy,
        p.yearPercent,
        own.radio.id,
        own.antenna?.id,
        own.txPowerDbm,
        own.mountAglM,
      ];
    }),
  );
  const asked = JSON.stringify([fields.sectors, fields.remotes, fields.mountAglM, fields.mountId, policy, sector, planned]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is asked is told by its text
  useEffect(() => {
    if (!still || remotes.every((r) => r.length === 0)) return;
    let gone = false;
    const sent = (list: readonly HubRemote[]) => list.map(({ linkId, name, plan, hubIsNear }) => ({ linkId, name, plan, hubIsNear }));
    const ask = async (): Promise<void> => {
      worker.current?.terminate();
      worker.current = new Worker("/workers/hub.worker.js");
      const remote = wrap<HubWorker>(worker.current) as Remote<HubWorker>;
      setFound({ ...NONE, busy: true });
      await (remote.open as unknown as (p: unknown, h: HardwareDto) => Promise<void>)(
        [...profiles].map(([id, dto]) => [id, profileFromDto(dto)]),
        hardware,
      );
      const s = fields.sectors[sector];
      const own = remotes[sector] ?? [];
      if (s !== undefined && own.length > 0) {
        const request: MendsRequest = {
          remotes: sent(own),
          unitKey: unitKeyOf(s),
          aim: aims[sector] ?? { azimuthDeg: 0, tiltDeg: 0 },
          mountAglM: fields.mountAglM,
          policy,
        };
        const mends = await (remote.mends as unknown as (q: MendsRequest) => Promise<SectorMends | null>)(request);
        if (gone) return;
        setFound((f) => ({ ...f, mends }));
      }
      const request: ShapesRequest = {
        remotes: sent(remotes.flat()),
        sectors: fields.sectors.map((x, i) => ({
          unitKey: unitKeyOf(x),
          azimuthDeg: x.azimuthDeg,
          tiltDeg: x.tiltDeg,
          linkIds: (remotes[i] ?? []).map((r) => r.linkId),
        })),
        policy,
      };
      await (remote.shapes as unknown as (q: ShapesRequest, on: unknown) => Promise<void>)(
        request,
        proxy((kind: ShapeKind, shape: Shape | null) => {
          if (!gone) setFound((f) => ({ ...f, shapes: [...f.shapes, [kind, shape]] }));
        }),
      );
      if (!gone) setFound((f) => ({ ...f, busy: false }));
    };
    const timer = setTimeout(() => {
      ask().catch(() => {
        if (!gone) setFound(NONE);
      });
    }, STILL_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
      worker.current?.terminate();
      worker.current = null;
    };
  }, [asked, still, hardware, profiles]);
  return found;
};
