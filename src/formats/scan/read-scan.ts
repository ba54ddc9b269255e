import { readIw } from "./iw-read";
import type { ScanText } from "./rows";
import { readScanCsv } from "./scan-csv";

/** Reads a scan, whichever of the known forms it has: told by its first words. */
export const readScan = (text: string, withoutNames: boolean): ScanText =>
  /^\s*(BSS [0-9a-f]{2}:|Survey data from )/im.test(text) ? readIw(text, withoutNames) : readScanCsv(text, withoutNames);
