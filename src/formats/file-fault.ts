/** A file that cannot be used, and why, in words for the person who brought it. */
export class FileFault extends Error {
  constructor(
    message: string,
    /** What the person could say to make it usable: a coordinate system, a corner. */
    readonly asks: "crs" | "corner" | null = null,
  ) {
    super(message);
    this.name = "FileFault";
  }
}

export const reasonOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));
