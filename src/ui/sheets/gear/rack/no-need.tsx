import Link from "next/link";
import { NumberField } from "../../../controls/number-field";

/** Before anybody said what must be carried: two figures, or the brief. */
export const NoNeed = ({
  jobId,
  nearName,
  farName,
  change,
}: {
  jobId: string;
  nearName: string;
  farName: string;
  change: (fields: { needToFarMbps?: number | null; needToNearMbps?: number | null }) => void;
}) => (
  <section aria-label="Need" className="grid max-w-[420px] gap-3 px-5 py-6">
    <h2 className="m-0 text-part font-bold">How much must it carry?</h2>
    <p className="m-0 text-body">
      Radios are chosen by what they have to carry. Type it, or let the brief work it out from the devices at the far end.
    </p>
    <NumberField
      label={`To ${farName}`}
      unit="Mbps"
      optional
      value={null}
      least={0}
      most={100_000}
      onChange={(v) => v !== null && change({ needToFarMbps: v })}
    />
    <NumberField
      label={`Back to ${nearName}`}
      unit="Mbps"
      optional
      value={null}
      least={0}
      most={100_000}
      onChange={(v) => v !== null && change({ needToNearMbps: v })}
    />
    <Link prefetch={false} href={`/jobs/${jobId}/brief`} className="press justify-self-start text-ink no-underline">
      Work it out in the brief
    </Link>
  </section>
);
