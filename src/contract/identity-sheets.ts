import type { SheetName } from "./roles";

/** Sheets that tell who or where by what they are. */
export const IDENTITY_SHEETS: readonly SheetName[] = ["brief", "ground"];
