import { limitOfRow, type RuleRow } from "@/core/radio";
import type { DataColumn } from "../../controls/data-table";
import { figure } from "../../wording/numbers";

const TYPICAL_DBI = 20;
const dbm = (v: number | null | undefined): string => (v === null || v === undefined ? "" : figure(v, Number.isInteger(v) ? 0 : 1));

/** Columns of the rules as rows. */
export const RULE_COLUMNS: readonly DataColumn<RuleRow>[] = [
  { name: "Row", value: (r) => r.id },
  { name: "From, MHz", value: (r) => r.lowMhz, cell: (r) => figure(r.lowMhz, 1), numeric: true },
  { name: "To, MHz", value: (r) => r.highMhz, cell: (r) => figure(r.highMhz, 1), numeric: true },
  { name: "Serves", value: (r) => r.serves.join(", "), chosen: true },
  { name: "Where", value: (r) => (r.indoorOnly ? "indoors only" : r.fixedOutdoorPermitted ? "outdoors" : "not outdoors"), chosen: true },
  {
    name: `EIRP at ${TYPICAL_DBI} dBi`,
    value: (r) => limitOfRow(r, TYPICAL_DBI, 20)?.maxEirpDbm ?? Number.NEGATIVE_INFINITY,
    cell: (r) => dbm(limitOfRow(r, TYPICAL_DBI, 20)?.maxEirpDbm),
    numeric: true,
  },
  {
    name: "Conducted",
    value: (r) => r.conductedMaxDbm ?? Number.NEGATIVE_INFINITY,
    cell: (r) => dbm(r.conductedMaxDbm),
    numeric: true,
    aside: true,
  },
  { name: "EIRP", value: (r) => r.eirpMaxDbm ?? Number.NEGATIVE_INFINITY, cell: (r) => dbm(r.eirpMaxDbm), numeric: true, aside: true },
  {
    name: "Density",
    value: (r) => (r.psd === null ? "" : `${dbm(r.psd.limitDbm)} dBm in ${figure(r.psd.perMhz, 3)} MHz, ${r.psd.kind}`),
    aside: true,
  },
  {
    name: "Radar",
    value: (r) => (r.dfs.required ? `duty, ${figure(r.dfs.availabilityCheckS ?? 60)} s` : "none"),
    chosen: false,
  },
  { name: "Permission", value: (r) => r.stopUntilRecorded ?? "", aside: true },
  { name: "Use", value: (r) => r.use, aside: true },
  { name: "Source", value: (r) => r.source },
  { name: "As of", value: (r) => r.asOf },
  { name: "Confidence", value: (r) => r.confidence, chosen: true },
  { name: "Notes", value: (r) => r.notes, aside: true },
];
