"use client";
import { proxy, type Remote, wrap } from "comlink";
import { useCallback, useEffect, useRef, useState } from "react";
import type { HardwareDto } from "@/contract";
import type { LinkPlan, PathProfile } from "@/core/link";
import type { RackLimits, School, SchoolFigures } from "@/core/rack";
import type { RackReply, RackWorker } from "@/workers/messages";

export interface RackState {
  /** The last that was told; of an older question while a newer one is worked out. */
  readonly reply: RackReply | null;
  /** Share of the pairs looked at, while nothing is told of them yet. */
  readonly share: number;
  readonly failed: boolean;
  /** The reply is about what is asked now, as far as it goes. */
  readonly fresh: boolean;
  /** A candidate by each school of power. */
  readonly schools: (id: string) => Promise<readonly SchoolFigures[] | null>;
}

type Opened = { readonly worker: Worker; readonly remote: Remote<RackWorker> };

/** The rack of a plan, worked out beside the page; a newer plan or limit ends what is under way. */
export const useRack = (
  plan: LinkPlan | null,
  profile: PathProfile | null,
  hardware: HardwareDto,
  limits: RackLimits,
  school: School,
): RackState => {
  const [opened, setOpened] = useState<Opened | null>(null);
  const [told, setTold] = useState<{ readonly reply: RackReply; readonly asked: object } | null>(null);
  const [share, setShare] = useState(0);
  const [failed, setFailed] = useState(false);
  const question = useRef<object>({});

  useEffect(() => {
    if (profile === null) return;
    const worker = new Worker("/workers/rack.worker.js");
    const remote = wrap<RackWorker>(worker) as Remote<RackWorker>;
    void (remote.open as unknown as (p: PathProfile, h: HardwareDto) => Promise<void>)(profile, hardware);
    setOpened({ worker, remote });
    setTold(null);
    return () => {
      setOpened(null);
      worker.terminate();
    };
  }, [profile, hardware]);

  useEffect(() => {
    if (opened === null || plan === null) return;
    const asked = {};
    question.current = asked;
    setFailed(false);
    setShare(0);
    const mine = (): boolean => question.current === asked;
    (opened.remote.rack as unknown as RackWorker["rack"])(
      { plan, limits, school },
      proxy((reply: RackReply) => {
        if (mine()) setTold({ reply, asked });
      }),
      proxy((done: number) => {
        if (mine()) setShare(done);
      }),
    ).catch(() => {
      // What the core refuses of a design is said by its section.
      if (mine()) setFailed(true);
    });
  }, [opened, plan, limits, school]);

  const schools = useCallback(
    async (id: string): Promise<readonly SchoolFigures[] | null> =>
      opened === null ? null : (((await opened.remote.schools(id)) as readonly SchoolFigures[] | null) ?? null),
    [opened],
  );
  return { reply: told?.reply ?? null, share, failed, fresh: told !== null && told.asked === question.current, schools };
};
