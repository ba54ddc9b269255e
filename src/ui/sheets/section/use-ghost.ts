"use client";
import { useMemo } from "react";
import type { DesignFields, HardwareDto, KeptDesignDto } from "@/contract";
import type { DesignAction, PathProfile } from "@/core/link";
import type { Ray } from "@/core/obstacles";
import { LIGHT_SPEED_M_S } from "@/core/propagation";
import { type LinkBundle, useKeptProfile } from "../../api/queries";
import { type GhostZone, zonesBeside } from "../../drawing/ghost-zones";
import type { Ghost } from "../../drawing/section-props";
import type { LaidCandidate } from "../../state/laid-candidates";
import { mendWordsOf } from "../../wording/findings";
import type { Units } from "../../wording/numbers";
import { changeOf } from "./design-actions";
import { type Evaluation, useCoreProfile, useEvaluation } from "./use-evaluation";

interface Compared {
  readonly ghost: Ghost | null;
  /** The kept design that this one is held against. */
  readonly compared: KeptDesignDto | null;
  readonly comparedEvaluation: Evaluation | null;
  /** It stands at other mounting points: its path is another. */
  readonly elsewhere: boolean;
  /** Zones of all that is laid over the drawing, where they differ from its own. */
  readonly zones: readonly GhostZone[];
}

/** What an action would make of the design, and the design it is held against, as ghosts over the drawing. */
export const useGhost = ({
  jobId,
  bundle,
  hardware,
  ground,
  design,
  previewed,
  laid,
  zonesShown,
  comparedId,
  units,
  ray,
}: {
  readonly jobId: string;
  readonly bundle: LinkBundle;
  readonly hardware: HardwareDto;
  readonly ground: PathProfile | null;
  readonly design: DesignFields;
  readonly previewed: DesignAction | null;
  /** Found in the rack, to be looked at here. */
  readonly laid: readonly LaidCandidate[];
  readonly zonesShown: boolean;
  readonly comparedId: string | null;
  readonly units: Units;
  /** Of the design in hand; null while it cannot be worked out. */
  readonly ray: Ray | null;
}): Compared => {
  const previewDesign = useMemo((): DesignFields | null => {
    const fields = previewed === null ? null : changeOf(design, previewed);
    return fields === null ? null : { ...design, ...fields };
  }, [design, previewed]);
  const previewEvaluation = useEvaluation(bundle, hardware, ground, previewDesign);
  const found = useMemo((): KeptDesignDto | null => {
    const c = laid.find((l) => l.id === comparedId);
    return c === undefined ? null : { ...design, ...c.fields, id: c.id, version: 0, name: c.name };
  }, [laid, comparedId, design]);
  const compared = bundle.kept.find((d) => d.id === comparedId) ?? found;
  const elsewhere = compared !== null && (compared.nearMountId !== design.nearMountId || compared.farMountId !== design.farMountId);
  const otherGround = useCoreProfile(useKeptProfile(jobId, bundle.link.id, elsewhere ? compared.id : null).data);
  const comparedEvaluation = useEvaluation(bundle, hardware, elsewhere ? otherGround : ground, compared);
  const ghost: Ghost | null = useMemo(() => {
    if (previewEvaluation !== null) return { name: mendWordsOf(previewEvaluation.result, units), ...previewEvaluation };
    return compared !== null && comparedEvaluation !== null && !elsewhere ? { name: compared.name, ...comparedEvaluation } : null;
  }, [previewEvaluation, compared, comparedEvaluation, elsewhere, units]);
  const zones = useMemo((): readonly GhostZone[] => {
    if (ray === null || !zonesShown) return [];
    const designs = [
      ...laid.map((l) => ({ name: l.name, centreMhz: l.fields.centreMhz ?? design.centreMhz })),
      ...(compared === null ? [] : [compared]),
    ];
    return zonesBeside(
      ray,
      designs.map(({ name, centreMhz }) => ({ name, wavelengthM: LIGHT_SPEED_M_S / (centreMhz * 1e6) })),
    );
  }, [ray, zonesShown, laid, compared, design.centreMhz]);
  return { ghost, compared, comparedEvaluation, elsewhere, zones };
};
