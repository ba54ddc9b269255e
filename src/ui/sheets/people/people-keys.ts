/** Where the browser keeps what it read of the firm. */
export const PEOPLE = ["people"] as const;

export const TOKENS = ["tokens"] as const;

export const WEBHOOKS = ["webhooks"] as const;

/** Of what others do here no news is told: it is read whenever the page is come to, and again this often while it stands open. */
export const DONE_BY_OTHERS = { staleTime: 0, refetchInterval: 20_000 } as const;
