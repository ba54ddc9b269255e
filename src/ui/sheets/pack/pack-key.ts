/** Where the browser keeps the pages of a job's packs. */
export const packKey = (jobId: string) => ["pack", jobId] as const;
