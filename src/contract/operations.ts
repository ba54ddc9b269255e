import type { z } from "zod";
import { readScanSchema } from "./air";
import { importActionSchema, newImportSchema, newUploadSchema, obstacleFieldsSchema, splitObstacleSchema } from "./ground";
import { hubMountsSchema } from "./hub";
import { reserveSchema } from "./kit";
import { sheetMarksSchema } from "./limits";
import { shareSchema } from "./people";
import { quickPathSchema } from "./quick-path";
import type { Right } from "./rights";
import {
  keepDesignSchema,
  newJobSchema,
  newLinkSchema,
  newRelaySchema,
  placesSchema,
  relaysSchema,
  takeSchema,
  terrainWindowSchema,
} from "./schemas";
import { replaceUnitSchema } from "./wiring";

/* What a program may ask of the server by a token: the same addresses that the pages use. People, phones and one's own account are not among them. */

export interface Operation {
  readonly method: "GET" | "POST" | "PUT" | "PATCH" | "DELETE";
  /** Under /api, with {names} for what stands in the address. */
  readonly path: string;
  readonly right: Right;
  /** One sentence. */
  readonly does: string;
  readonly body?: z.ZodType;
  /** Bytes instead of JSON, by their media type. */
  readonly sends?: string;
  readonly gives?: string;
  /** What may stand behind the question mark, with what it says. */
  readonly query?: Readonly<Record<string, string>>;
}

const PACK_QUERY = {
  link: "a link's id; left out: the whole job",
  for: "installer, customer or permission",
  paper: "a4 or letter",
  units: "metric or imperial",
};
const ONE_LINK = { link: "a link's id; left out: the whole job" };
const JSON_FILE = "application/json";
const BYTES = "application/octet-stream";

/** Of all jobs, and of what they share. */
const FIRM: readonly Operation[] = [
  { method: "GET", path: "/jobs", right: "see-jobs", does: "Jobs that are open to the token, each with its links and what they come to." },
  { method: "POST", path: "/jobs", right: "plan", does: "Makes a job.", body: newJobSchema },
  { method: "GET", path: "/hardware", right: "see-hardware", does: "Data sheets of radios and antennas." },
  {
    method: "POST",
    path: "/hardware",
    right: "edit-hardware",
    does: "Brings data sheets in, of radios, antennas or parts: JSON, or a table with commas. All of them or none, as one step.",
    sends: JSON_FILE,
  },
  { method: "GET", path: "/hardware/parts", right: "see-hardware", does: "Data sheets of what is wired beside the radios." },
  {
    method: "POST",
    path: "/hardware/marks",
    right: "edit-hardware",
    does: "Counts what is at hand of a sheet, or retires it.",
    body: sheetMarksSchema,
  },
  { method: "GET", path: "/hardware/history", right: "see-hardware", does: "The last steps of the catalogue." },
  { method: "POST", path: "/hardware/history", right: "edit-hardware", does: "Takes a step of the catalogue back, or does it again." },
  {
    method: "GET",
    path: "/systems",
    right: "work-out",
    does: "Coordinate systems by code or name.",
    query: { q: "a code, or a part of a name" },
  },
  {
    method: "POST",
    path: "/systems",
    right: "work-out",
    does: "The code of a system told as well-known text, or where a position in its figures lies.",
  },
  {
    method: "POST",
    path: "/quick-path",
    right: "work-out",
    does: "A path of two positions, worked out and not kept.",
    body: quickPathSchema,
  },
  {
    method: "POST",
    path: "/uploads",
    right: "plan",
    does: "Announces a whole job as a file; it is sent in pieces.",
    body: newUploadSchema,
  },
  { method: "GET", path: "/uploads/{uploadId}", right: "plan", does: "How much of that file has come." },
  {
    method: "PUT",
    path: "/uploads/{uploadId}",
    right: "plan",
    does: "The next piece of it, 4 MB at most, with the checksum of the piece in x-sha256.",
    sends: BYTES,
    query: { at: "the byte it begins at" },
  },
  { method: "POST", path: "/bundles", right: "plan", does: "Takes a whole job in out of a file that was sent." },
  { method: "GET", path: "/bundles/{importId}", right: "plan", does: "How far that is, and which job it became." },
  {
    method: "POST",
    path: "/bundles/{importId}",
    right: "plan",
    does: "Stops it, or takes what it brought away or brings it back.",
    body: importActionSchema,
  },
];

const JOB: readonly Operation[] = [
  { method: "GET", path: "/jobs/{jobId}", right: "see-job", does: "A job with its sites and links." },
  { method: "PATCH", path: "/jobs/{jobId}", right: "plan", does: "Changes fields of the job, as it stands at a version." },
  { method: "GET", path: "/jobs/{jobId}/verdicts", right: "see-job", does: "What each link comes to; what is being worked out says so." },
  {
    method: "GET",
    path: "/jobs/{jobId}/events",
    right: "see-job",
    does: "What changes in the job, as it changes: server-sent events.",
    gives: "text/event-stream",
  },
  { method: "GET", path: "/jobs/{jobId}/kit-verdict", right: "see-kit", does: "What the kit comes to.", query: ONE_LINK },
  { method: "GET", path: "/jobs/{jobId}/air/losses", right: "see-air", does: "Loss between the ends of the job's radios, dB." },
  {
    method: "GET",
    path: "/jobs/{jobId}/air/scans",
    right: "see-air",
    does: "One scan as a table, strangers' names hashed.",
    gives: "text/csv",
    query: { scan: "its id" },
  },
  {
    method: "POST",
    path: "/jobs/{jobId}/air/read-scan",
    right: "edit-records",
    does: "Reads the text of a scan and says what it holds; nothing is kept.",
    body: readScanSchema,
  },
  {
    method: "GET",
    path: "/jobs/{jobId}/history",
    right: "see-history",
    does: "Who changed what, newest first.",
    query: { before: "older than this edit" },
  },
  { method: "POST", path: "/jobs/{jobId}/history", right: "edit-records", does: "Takes one edit back, or does it again." },
  {
    method: "POST",
    path: "/jobs/{jobId}/undo",
    right: "edit-records",
    does: "Takes back the newest edit of the job that was sent under the same x-client.",
  },
  { method: "GET", path: "/jobs/{jobId}/lessons", right: "see-history", does: "What other jobs taught." },
  { method: "GET", path: "/jobs/{jobId}/calendar", right: "take-out", does: "The days of the job, iCalendar.", gives: "text/calendar" },
  {
    method: "POST",
    path: "/jobs/{jobId}/export",
    right: "take-out",
    does: "A part of the job as an open file.",
    gives: BYTES,
    query: { what: "sites, links, obstacles or features", format: "geojson, kml, gpx or csv" },
  },
  { method: "POST", path: "/jobs/{jobId}/bundle", right: "take-out-all", does: "The whole job as one zip.", gives: "application/zip" },
  {
    method: "POST",
    path: "/jobs/{jobId}/quote",
    right: "take-out-all",
    does: "The quote, without margin.",
    gives: "application/pdf",
    query: { ...ONE_LINK, as: "pdf or csv", units: "metric or imperial" },
  },
  {
    method: "GET",
    path: "/jobs/{jobId}/links/{linkId}/roof",
    right: "take-out",
    does: "What a phone takes along to both ends of a link: where to look, the level to expect, the cut of the antenna, the risks.",
  },
  {
    method: "GET",
    path: "/jobs/{jobId}/pack",
    right: "take-out",
    does: "The pages of the field pack, as marks to be drawn.",
    query: PACK_QUERY,
  },
  { method: "POST", path: "/jobs/{jobId}/pack", right: "take-out", does: "The field pack.", gives: "application/pdf", query: PACK_QUERY },
  { method: "GET", path: "/jobs/{jobId}/shares", right: "see-shares", does: "Links of the job that were shared." },
  {
    method: "POST",
    path: "/jobs/{jobId}/shares",
    right: "share",
    does: "Makes a link by which somebody reads chosen sheets until a day.",
    body: shareSchema,
  },
  {
    method: "GET",
    path: "/jobs/{jobId}/shares/texts",
    right: "see-shares",
    does: "Words that a link without identity leaves out unless they are ticked.",
  },
  { method: "DELETE", path: "/jobs/{jobId}/shares/{shareId}", right: "share", does: "Takes a shared link back." },
  {
    method: "POST",
    path: "/jobs/{jobId}/take",
    right: "edit-records",
    does: "Changes several designs and hubs as one step.",
    body: takeSchema,
  },
  {
    method: "POST",
    path: "/jobs/{jobId}/reserve",
    right: "plan",
    does: "Reserves lines of the kit in stock, or gives them back.",
    body: reserveSchema,
  },
  {
    method: "POST",
    path: "/jobs/{jobId}/replace-unit",
    right: "edit-records",
    does: "A unit died: its cause, and a new one in its place.",
    body: replaceUnitSchema,
  },
];

const LINK = "/jobs/{jobId}/links";
const LINKS: readonly Operation[] = [
  { method: "POST", path: LINK, right: "plan", does: "Makes a link between two sites, with a first design.", body: newLinkSchema },
  { method: "GET", path: `${LINK}/{linkId}`, right: "see-links", does: "A link with its ends, its design and those that were kept." },
  {
    method: "PATCH",
    path: `${LINK}/{linkId}`,
    right: "edit-records",
    does: "Changes fields of the link, as it stands at a version; or takes it away.",
  },
  {
    method: "GET",
    path: `${LINK}/{linkId}/profile`,
    right: "see-links",
    does: "The sampled path.",
    query: { design: "of a kept design, by its id" },
  },
  { method: "POST", path: `${LINK}/{linkId}/designs`, right: "plan", does: "Keeps a copy of the design in force.", body: keepDesignSchema },
  {
    method: "POST",
    path: `${LINK}/{linkId}/places`,
    right: "work-out",
    does: "What it comes to from other spots of one end.",
    body: placesSchema,
  },
  {
    method: "POST",
    path: `${LINK}/{linkId}/relays`,
    right: "work-out",
    does: "Both legs of a relay at each spot asked for.",
    body: relaysSchema,
  },
  {
    method: "POST",
    path: `${LINK}/{linkId}/relay`,
    right: "plan",
    does: "Puts a relay between the ends, as one step.",
    body: newRelaySchema,
  },
  {
    method: "POST",
    path: "/jobs/{jobId}/hubs/{hubId}/mounts",
    right: "work-out",
    does: "What the hub comes to from other spots.",
    body: hubMountsSchema,
  },
];

const GROUND: readonly Operation[] = [
  {
    method: "GET",
    path: "/jobs/{jobId}/obstacles",
    right: "see-ground",
    does: "What stands within a box, the widest first where there is more than asked for.",
    query: { west: "degrees", south: "degrees", east: "degrees", north: "degrees", most: "how many", whole: "true: all of them or none" },
  },
  { method: "POST", path: "/jobs/{jobId}/obstacles", right: "plan", does: "Draws an obstacle.", body: obstacleFieldsSchema },
  {
    method: "POST",
    path: "/jobs/{jobId}/obstacles/{obstacleId}/split",
    right: "plan",
    does: "Cuts one into parts.",
    body: splitObstacleSchema,
  },
  { method: "POST", path: "/jobs/{jobId}/heights", right: "see-ground", does: "Ground at some places." },
  {
    method: "POST",
    path: "/jobs/{jobId}/terrain",
    right: "see-ground",
    does: "Heights over a window, little-endian 32-bit floats.",
    body: terrainWindowSchema,
    gives: BYTES,
  },
  { method: "GET", path: "/jobs/{jobId}/datasets", right: "see-ground", does: "What terrain there is." },
  { method: "GET", path: "/jobs/{jobId}/basemap", right: "see-ground", does: "The map beneath the drawing." },
  { method: "PUT", path: "/jobs/{jobId}/basemap", right: "plan", does: "Lays a map beneath the drawing; null takes it away." },
  { method: "GET", path: "/jobs/{jobId}/uploads", right: "plan", does: "What files on their way in take, and what they may." },
  { method: "POST", path: "/jobs/{jobId}/uploads", right: "plan", does: "Announces a file.", body: newUploadSchema },
  { method: "GET", path: "/jobs/{jobId}/uploads/{uploadId}", right: "plan", does: "How much of a file has come." },
  {
    method: "PUT",
    path: "/jobs/{jobId}/uploads/{uploadId}",
    right: "plan",
    does: "The next piece of it, 4 MB at most, with the checksum of the piece in x-sha256.",
    sends: BYTES,
    query: { at: "the byte it begins at" },
  },
  { method: "POST", path: "/jobs/{jobId}/uploads/{uploadId}/preview", right: "plan", does: "A look into a file before it is taken in." },
  {
    method: "GET",
    path: "/jobs/{jobId}/imports",
    right: "see-history",
    does: "Files that were taken in, and how far those under way are.",
  },
  { method: "POST", path: "/jobs/{jobId}/imports", right: "plan", does: "Takes a file in.", body: newImportSchema },
  {
    method: "POST",
    path: "/jobs/{jobId}/imports/{importId}",
    right: "plan",
    does: "Stops it, takes what it brought away, or brings it back.",
    body: importActionSchema,
  },
  { method: "GET", path: "/jobs/{jobId}/photos", right: "see-photos", does: "Photos, without their pictures." },
  {
    method: "POST",
    path: "/jobs/{jobId}/photos",
    right: "edit-records",
    does: "Adds a photo.",
    sends: "image/jpeg",
    query: { about: "its fields as JSON", id: "its id, where the sender gives it one" },
  },
  { method: "GET", path: "/jobs/{jobId}/photos/{photoId}/file", right: "see-photos", does: "The picture itself.", gives: "image/jpeg" },
];

/** All that a token may ask, but for the records of a job, which have addresses by their kind. */
export const OPERATIONS: readonly Operation[] = [...FIRM, ...JOB, ...LINKS, ...GROUND];
