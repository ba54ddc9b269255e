/* Jobs that this phone has with it, by their names: what opens from the home screen where nothing can be asked. */

/** Where they are listed. */
export const KEPT_PAGE = "/jobs/kept";
const KEY = "dry-arc.kept-jobs";
const MOST = 20;

export interface KeptJob {
  readonly id: string;
  readonly name: string;
  readonly atMs: number;
}

const isKept = (value: unknown): value is KeptJob => {
  const v = value as Partial<KeptJob> | null;
  return typeof v?.id === "string" && typeof v.name === "string" && typeof v.atMs === "number";
};

/** The last that was kept first; nothing where the browser keeps nothing. */
export const keptJobs = (): readonly KeptJob[] => {
  try {
    const value: unknown = JSON.parse(localStorage.getItem(KEY) ?? "[]");
    return Array.isArray(value) ? value.filter(isKept) : [];
  } catch {
    return [];
  }
};

/** Notes that a job is kept here as of now. */
export const noteKept = (job: KeptJob): void => {
  try {
    localStorage.setItem(KEY, JSON.stringify([job, ...keptJobs().filter((k) => k.id !== job.id)].slice(0, MOST)));
  } catch {
    // Storage that is full or shut: the job is kept all the same, and not listed.
  }
};
