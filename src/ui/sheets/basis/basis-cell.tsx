"use client";
import type { JobDto } from "@/contract";
import { lazyPart, Opens } from "../../controls/lazy-part";
import { policyText } from "../../wording/policy";

const BasisDialog = lazyPart(() => import("./basis-dialog").then((m) => m.BasisDialog));

/** The policy in force in the title strip; pressed, it opens the basis of the job. */
export const BasisCell = ({ job }: { job: JobDto }) => (
  <Opens part={BasisDialog} given={{ job }} className="press max-w-full truncate font-[inherit]" data-testid="basis">
    {policyText(job)}
  </Opens>
);
