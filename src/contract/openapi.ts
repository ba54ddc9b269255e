import { z } from "zod";
import { ERROR_CODES } from "./errors";
import { type Kind, patchOf } from "./kind";
import { OPERATIONS, type Operation } from "./operations";
import { webhookCallSchema } from "./people";
import { kinds } from "./records";
import { rightOf } from "./rights";
import type { Role } from "./roles";

/* The interface as OpenAPI 3.1.1 has it, made from what the server itself checks requests by. Its schemas are JSON Schema 2020-12. */

type Json = Readonly<Record<string, unknown>>;

/** What a body may hold; rules between fields, which no schema can say, are told when they are broken. */
const schemaOf = (schema: z.ZodType): Json => {
  const { $schema: _s, ...rest } = z.toJSONSchema(schema, { io: "input", unrepresentable: "any", target: "draft-2020-12" }) as Record<
    string,
    unknown
  >;
  return rest;
};
const content = (type: string, schema?: Json): Json => ({ [type]: schema === undefined ? {} : { schema } });
const JSON_TYPE = "application/json";

/** Which tokens may, in words. */
const ofTokens = (roles: readonly Role[]): string =>
  roles.includes("viewer")
    ? "For any token."
    : roles.includes("installer")
      ? "For a token that writes, or plans."
      : "For a token that plans.";

interface Told extends Operation {
  readonly group: string;
  /** Who may, where a kind says it more closely than the right. */
  readonly roles?: readonly Role[];
  readonly answer?: Json;
}

/** What may go wrong, alike everywhere. */
const FAULTS: Json = {
  "400": { $ref: "#/components/responses/Fault" },
  "401": { $ref: "#/components/responses/Fault" },
  "403": { $ref: "#/components/responses/Fault" },
  "404": { $ref: "#/components/responses/Fault" },
  "422": { $ref: "#/components/responses/Fault" },
  "429": { $ref: "#/components/responses/Fault" },
  "503": { $ref: "#/components/responses/Fault" },
};
const CLASH: Json = { "409": { $ref: "#/components/responses/Clash" } };

const fromAddress = (path: string): Json[] =>
  [...path.matchAll(/\{(\w+)\}/g)].map((m) => ({ name: m[1], in: "path", required: true, schema: { type: "string" } }));

const operationOf = (op: Told): Json => ({
  tags: [op.group],
  summary: op.does,
  description: ofTokens(op.roles ?? rightOf(op.right).roles),
  parameters: [
    ...fromAddress(op.path),
    ...Object.entries(op.query ?? {}).map(([name, description]) => ({ name, in: "query", description, schema: { type: "string" } })),
    ...(rightOf(op.right).writes === true ? [{ $ref: "#/components/parameters/Edit" }, { $ref: "#/components/parameters/Client" }] : []),
  ],
  ...(op.method === "GET" || op.method === "DELETE"
    ? {}
    : {
        requestBody: {
          content: content(
            op.sends ?? JSON_TYPE,
            op.body === undefined ? (op.sends === undefined ? { type: "object" } : undefined) : schemaOf(op.body),
          ),
        },
      }),
  responses: {
    "200": {
      description: "It was done, or is told.",
      content: content(op.gives ?? JSON_TYPE, op.gives === undefined ? (op.answer ?? {}) : undefined),
    },
    ...FAULTS,
    ...(op.method === "PATCH" ? CLASH : {}),
  },
});

const own = (name: string): Json => ({ $ref: `#/components/schemas/${name}` });
const component = (name: string): string => name.charAt(0).toUpperCase() + name.slice(1);

/** A record as it travels: what people edit, what is set when it is made, its id and its version. */
const rowSchema = (k: Kind): z.ZodType => k.fields.extend(k.fixed.shape).extend({ id: z.string(), version: z.int().min(0) });

const WITH_VERSION: Json = {
  type: "object",
  required: ["version"],
  properties: { version: { type: "integer", minimum: 0, description: "the version that it was read at" } },
};

const recordOperations = (name: string, k: Kind): Told[] => {
  const path = `/jobs/{jobId}/${k.route}`;
  const group = k.words.many;
  const base = { group, right: "edit-records" as const, roles: k.editedBy };
  const row = own(component(name));
  const seen = { group, right: "see-records" as const, roles: k.seenBy };
  if (!k.many)
    return [
      { ...seen, method: "GET", path, does: `The ${k.words.one} of the job.`, answer: row },
      { ...base, method: "PATCH", path, does: `Changes the ${k.words.one}, as it stands at a version.`, body: patchOf(k), answer: row },
    ];
  return [
    { ...seen, method: "GET", path, does: `All ${k.words.many} of the job.`, answer: { type: "array", items: row } },
    { ...base, method: "POST", path, does: `Makes one: ${k.words.one}.`, body: k.fields.extend(k.fixed.shape).partial(), answer: row },
    { ...seen, method: "GET", path: `${path}/{recordId}`, does: `One of them: ${k.words.one}.`, answer: row },
    {
      ...base,
      method: "PATCH",
      path: `${path}/{recordId}`,
      does: `Changes it as it stands at a version; "deleted": true takes it away, false brings it back.`,
      body: patchOf(k),
      answer: row,
    },
  ];
};

/** What the server itself asks of addresses that an owner named. */
const CALLS: Json = {
  changed: {
    post: {
      summary: "Tells what changed, a moment after it did.",
      description:
        "An owner names the address under People, Programs. A call is signed as the Standard Webhooks specification has it: webhook-signature is v1, and the base64 of HMAC-SHA256 over webhook-id, webhook-timestamp and body, with a dot between them, by the key behind whsec_ (base64). Take it with any status from 200 to 299 within 3 seconds; 410 ends the calls; anything else is tried again with the same webhook-id, later and later.",
      parameters: ["webhook-id", "webhook-timestamp", "webhook-signature"].map((name) => ({
        name,
        in: "header",
        required: true,
        schema: { type: "string" },
      })),
      requestBody: { content: content(JSON_TYPE, schemaOf(webhookCallSchema)) },
      responses: { "200": { description: "It was taken." } },
    },
  },
};

let made: { readonly server: string; readonly document: Json } | null = null;

/** The document, made once for a server. @param server where the interface is, with its scheme. */
export const openApi = (server: string): Json => {
  if (made?.server !== server) made = { server, document: openApiOf(server) };
  return made.document;
};

/** The document. @param server where the interface is, with its scheme. */
const openApiOf = (server: string): Json => {
  const paths: Record<string, Record<string, Json>> = {};
  const put = (op: Told): void => {
    const made = operationOf(op);
    paths[op.path] = { ...paths[op.path], [op.method.toLowerCase()]: op.method === "PATCH" ? withVersion(made) : made };
  };
  const addressed = kinds().filter(([, k]) => k.parent !== "none");
  for (const [name, k] of addressed) for (const op of recordOperations(name, k)) put(op);
  // What has an address of its own comes after: it stands in the place of the kind's.
  for (const op of OPERATIONS) put({ ...op, group: op.path.split("/")[op.path.startsWith("/jobs/{jobId}/") ? 3 : 1]! });
  return {
    openapi: "3.1.1",
    info: {
      title: "Dry Arc",
      version: "1",
      description:
        "What the pages of Dry Arc ask of its server, for programs. A token is made under People, Programs; it is sent with each request. Every number is named with its unit. Positions are longitude and latitude in degrees, WGS 84.",
    },
    servers: [{ url: `${server}/api` }],
    security: [{ token: [] }],
    tags: [...new Set(Object.values(paths).flatMap((p) => Object.values(p).flatMap((o) => o.tags as string[])))].map((name) => ({ name })),
    paths,
    webhooks: CALLS,
    components: {
      securitySchemes: { token: { type: "http", scheme: "bearer", description: "A token that an owner made under People." } },
      parameters: {
        Edit: {
          name: "x-edit",
          in: "header",
          description:
            "A number of the sender's own for this edit: sent again under the same one, it is answered as before and not made twice.",
          schema: { type: "string", format: "uuid" },
        },
        Client: {
          name: "x-client",
          in: "header",
          description: "A name of the sender's own, 8 to 40 letters: what was sent under it can be taken back under it.",
          schema: { type: "string", pattern: "^[\\w-]{8,40}$" },
        },
      },
      schemas: {
        Fault: {
          type: "object",
          required: ["code"],
          properties: {
            code: { enum: [...ERROR_CODES] },
            path: { type: "string", description: "the field, or what it is about" },
            message: { type: "string" },
            values: { type: "object" },
          },
        },
        ...Object.fromEntries(addressed.map(([name, k]) => [component(name), schemaOf(rowSchema(k))])),
      },
      responses: {
        Fault: { description: "It was not done; why is said.", content: content(JSON_TYPE, own("Fault")) },
        Clash: {
          description: "It was changed since that version; the row is told as it now stands.",
          content: content(JSON_TYPE, { allOf: [own("Fault"), { type: "object", properties: { current: {} } }] }),
        },
      },
    },
  };
};

const withVersion = (op: Json): Json => {
  const body = op.requestBody as { readonly content: Readonly<Record<string, { readonly schema: Json }>> };
  const { schema } = body.content[JSON_TYPE]!;
  // What an edit holds is strict in itself; beside it stand the version, and whether it is taken away.
  const { additionalProperties: _none, ...open } = schema;
  const deleted: Json = { type: "object", properties: { deleted: { type: "boolean" } } };
  return { ...op, requestBody: { content: { [JSON_TYPE]: { schema: { allOf: [open, WITH_VERSION, deleted] } } } } };
};
