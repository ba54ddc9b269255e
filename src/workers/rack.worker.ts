import { expose } from "comlink";
import type { PathProfile } from "@/core/link";
import { type OpenRack, openRack, type Planned, plainRack, plannedCandidate, type RackLimits, serves } from "@/core/rack";
import type { RackRequest, RackWorker } from "./messages";

type Hardware = Parameters<RackWorker["open"]>[1];

/** Rows drawn between two tellings. */
const DRAWN_A_TIME = 3;
/** Progress is told this often. */
const TOLD_EVERY = 100;

let given: { readonly profile: PathProfile; readonly hardware: Hardware } | null = null;
let held: { readonly key: string; readonly open: OpenRack; readonly planned: Planned } | null = null;
let limits: RackLimits | null = null;
/** Counts questions: an older one ends when a newer one is asked. */
let asked = 0;
let progress: (share: number) => void = () => undefined;

const opened = ({ plan, school }: RackRequest): { open: OpenRack; planned: Planned } => {
  if (given === null) throw new Error("no path was opened");
  const key = JSON.stringify([plan, school]);
  if (held?.key === key) return held;
  const { profile, hardware } = given;
  const open = openRack(plan, profile, hardware, school, (done, total) => {
    if (done % TOLD_EVERY === 0) progress(done / total);
  });
  held = { key, open, planned: plannedCandidate(plan, profile) };
  return held;
};

/** Lets the questions in that came meanwhile. */
const breath = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));

expose({
  open: (profile, hardware) => {
    given = { profile, hardware };
    held = null;
  },
  rack: async (request, onRack, onProgress) => {
    const own = ++asked;
    progress = onProgress;
    const { open, planned } = opened(request);
    limits = request.limits;
    for (let more = true; more; ) {
      onRack({ rack: plainRack(open.arrange(request.limits)), planned, done: false });
      await breath();
      if (own !== asked) return;
      for (let n = 0; n < DRAWN_A_TIME && more; n++) more = open.drawNext(request.limits);
    }
    onRack({ rack: plainRack(open.arrange(request.limits)), planned, done: true });
  },
  schools: (id) => (held === null || limits === null ? null : held.open.schools(limits, id)),
  serving: (request) => {
    const { open } = opened(request);
    while (open.drawNext(request.limits));
    return plainRack(open.arrange(request.limits))
      .rows.flatMap((r) => [r.best, ...r.widths, ...r.beats])
      .filter(serves)
      .map(({ pair, priceEur, faceCm, drawn }) => ({ pair, priceEur, faceCm, drawn: drawn !== null }));
  },
} satisfies RackWorker);
