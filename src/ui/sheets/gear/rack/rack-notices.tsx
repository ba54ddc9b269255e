"use client";
import type { DesignFields, HardwareDto, JobBundle, Limits, LinkDto } from "@/contract";
import { ClashNotice } from "../../../controls/clash-notice";
import { TypingScope } from "../../../controls/typing-scope";
import type { OpenRecord } from "../../../state/open-record";
import type { useRecordState } from "../../../state/use-record";
import { mbpsText, type Units } from "../../../wording/numbers";
import { type Ends, LimitLine } from "./limit-line";
import { OneTypeLine } from "./one-type-line";
import type { OneTypeState } from "./use-one-type";

interface Open {
  readonly link: LinkDto;
  readonly ends: Ends;
  readonly job: JobBundle | undefined;
  readonly hardware: HardwareDto;
  readonly units: Units;
  readonly limits: Limits;
  readonly limitsRecord: OpenRecord<Limits>;
  readonly limitsState: ReturnType<typeof useRecordState<Limits>>;
  readonly record: OpenRecord<DesignFields>;
  readonly designState: ReturnType<typeof useRecordState<DesignFields>>;
  readonly oneType: OneTypeState;
}

/** A need that is only asked about. */
interface WhatIf {
  readonly toFarMbps: number;
  readonly toNearMbps: number;
  /** Both ways together, as it is saved. */
  readonly needMbps: number;
  readonly make: () => void;
  readonly back: () => void;
}

/** What stands above the rack: the limits, one type for all links, what others changed meanwhile, what was done, what is asked. */
export const RackNotices = ({
  of,
  elsewhere,
  words,
  whatIf,
}: {
  of: Open;
  /** Takes the one type on other links; null while none of it stands here. */
  elsewhere: (() => void) | null;
  words: string | null;
  whatIf: WhatIf | null;
}) => {
  const { link, ends, job, hardware, units, limits, limitsRecord, limitsState, record, designState, oneType } = of;
  const families = [...new Set(hardware.radios.map((r) => r.family))].sort();
  return (
    <>
      <TypingScope of={limitsRecord}>
        <LimitLine of={{ limits, linkId: link.id, ends, families, change: limitsRecord.change }} units={units} />
      </TypingScope>
      <OneTypeLine state={oneType} mostEur={limits.oneTypeMost} job={job} elsewhere={elsewhere} />
      <ClashNotice
        kind="limits"
        status={limitsState.status}
        setAside={limitsState.setAside}
        units={units}
        resolve={limitsRecord.resolve}
        recall={limitsRecord.recall}
      />
      <ClashNotice
        kind="design"
        status={designState.status}
        setAside={designState.setAside}
        units={units}
        resolve={record.resolve}
        recall={record.recall}
      />
      {words !== null && (
        <p role="status" className="m-0 border-t border-rule px-4 py-1.5 text-body" data-testid="said">
          {words}
        </p>
      )}
      {whatIf !== null && (
        <p
          role="status"
          className="m-0 flex flex-wrap items-baseline gap-x-5 border-t border-rule px-4 py-1.5 text-body"
          data-testid="what-if"
        >
          <span>
            What if it must carry {mbpsText(whatIf.toFarMbps)} there and {mbpsText(whatIf.toNearMbps)} back? Not saved.
          </span>
          <button type="button" className="press" onClick={whatIf.make}>
            Make it the need
          </button>
          <button type="button" className="press" onClick={whatIf.back}>
            Back to {mbpsText(whatIf.needMbps)}
          </button>
        </p>
      )}
    </>
  );
};
