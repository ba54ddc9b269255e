"use client";
import { useMemo } from "react";
import type { DesignFields, HardwareDto, KeptDesignDto } from "@/contract";
import type { DesignAction, PathProfile } from "@/core/link";
import { type LinkBundle, useKeptProfile } from "../../api/queries";
import type { Ghost } from "../../drawing/section-props";
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
}

/** What an action would make of the design, and the design it is held against, as ghosts over the drawing. */
export const useGhost = ({
  jobId,
  bundle,
  hardware,
  ground,
  design,
  previewed,
  comparedId,
  units,
}: {
  readonly jobId: string;
  readonly bundle: LinkBundle;
  readonly hardware: HardwareDto;
  readonly ground: PathProfile | null;
  readonly design: DesignFields;
  readonly previewed: DesignAction | null;
  readonly comparedId: string | null;
  readonly units: Units;
}): Compared => {
  const previewDesign = useMemo((): DesignFields | null => {
    const fields = previewed === null ? null : changeOf(design, previewed);
    return fields === null ? null : { ...design, ...fields };
  }, [design, previewed]);
  const previewEvaluation = useEvaluation(bundle, hardware, ground, previewDesign);
  const compared = bundle.kept.find((d) => d.id === comparedId) ?? null;
  const elsewhere = compared !== null && (compared.nearMountId !== design.nearMountId || compared.farMountId !== design.farMountId);
  const otherGround = useCoreProfile(useKeptProfile(jobId, bundle.link.id, elsewhere ? compared.id : null).data);
  const comparedEvaluation = useEvaluation(bundle, hardware, elsewhere ? otherGround : ground, compared);
  const ghost: Ghost | null = useMemo(() => {
    if (previewEvaluation !== null) return { name: mendWordsOf(previewEvaluation.result, units), ...previewEvaluation };
    return compared !== null && comparedEvaluation !== null && !elsewhere ? { name: compared.name, ...comparedEvaluation } : null;
  }, [previewEvaluation, compared, comparedEvaluation, elsewhere, units]);
  return { ghost, compared, comparedEvaluation, elsewhere };
};
