"use client";
import Link from "next/link";
import { useState } from "react";
import { NumberField } from "../../../controls/number-field";

/** Before anybody said what must be carried: two figures, taken together when both are typed, or the brief. */
export const NoNeed = ({
  jobId,
  nearName,
  farName,
  take,
}: {
  jobId: string;
  nearName: string;
  farName: string;
  take: (need: { readonly needToFarMbps: number; readonly needToNearMbps: number }) => void;
}) => {
  const [toFar, setToFar] = useState<number | null>(null);
  const [toNear, setToNear] = useState<number | null>(null);
  const asked = (toFar ?? 0) + (toNear ?? 0) > 0;
  return (
    <form
      aria-label="Need"
      noValidate
      className="grid max-w-[420px] gap-3 px-5 py-6"
      onSubmit={(event) => {
        event.preventDefault();
        if (asked) take({ needToFarMbps: toFar ?? 0, needToNearMbps: toNear ?? 0 });
      }}
    >
      <h2 className="m-0 text-part font-bold">How much must it carry?</h2>
      <p className="m-0 text-body">
        Radios are chosen by what they have to carry. Type it, or let the brief work it out from the devices at the far end.
      </p>
      <NumberField label={`To ${farName}`} unit="Mbps" optional value={toFar} least={0} most={100_000} onChange={setToFar} />
      <NumberField label={`Back to ${nearName}`} unit="Mbps" optional value={toNear} least={0} most={100_000} onChange={setToNear} />
      <button type="submit" className="main-action justify-self-start" disabled={!asked}>
        Look for radios
      </button>
      <Link prefetch={false} href={`/jobs/${jobId}/brief`} className="press justify-self-start text-ink no-underline">
        Work it out in the brief
      </Link>
    </form>
  );
};
