/** Where the browser keeps what it read of the firm. */
export const PEOPLE = ["people"] as const;

export const TOKENS = ["tokens"] as const;

export const WEBHOOKS = ["webhooks"] as const;
