import { sql } from "drizzle-orm";
import { kinds, ROLES, type Role } from "../contract";
import type { Db } from "./client";
import { NO_FIRM } from "./schema-shared";
import { storeOf } from "./stores";

/*
 * The second lock: what each role of the database may touch, and of it only the rows of the firm, the jobs and the rights that a
 * transaction works with. It is written anew after every change of the schema, out of the list of kinds. The first lock is the code;
 * this one holds where the code forgets to ask. Neither role owns a table or inherits from the owner, and the owner is held as well.
 *
 *   dryarc_app      answers requests                 dryarc_worker   does the long work, in whatever firm asked for it
 *   dryarc_door     lets people in, keeps the book   dryarc          owns everything, changes the schema
 */

const APP = "dryarc_app";
const DOOR = "dryarc_door";
const WORKER = "dryarc_worker";

interface Guard {
  readonly table: string;
  /** A row that whoever works may see. */
  readonly sees: string;
  /** A row that they may make, change or take away; left out: what they see. */
  readonly writes?: string;
  /** Besides that: who, which statement, which rows. */
  readonly also?: readonly (readonly [role: string, what: "ALL" | "SELECT" | "INSERT" | "UPDATE" | "DELETE", rows: string])[];
}

const FIRM = "(SELECT guard_organisation())";
const OF_FIRM = `organisation_id = ${FIRM}`;
const OF_JOB = (table: string): string => `EXISTS (SELECT FROM job AS of_job WHERE of_job.id = ${table}.job_id)`;
const isRole = (...roles: readonly Role[]): string => `(SELECT guard_role()) IN (${roles.map((r) => `'${r}'`).join(", ")})`;
const CREWS = isRole("owner", "planner", "installer");
const PLANNERS = isRole("owner", "planner");
const SHARED = `organisation_id IN (${FIRM}, '${NO_FIRM}') AND ${FIRM} IS NOT NULL`;
const both = (...parts: readonly string[]): string => parts.map((p) => `(${p})`).join(" AND ");

/** Tables that hold one kind each, with what its rows hang on. */
const TABLE_OF: Readonly<Record<string, string>> = {
  brief: OF_JOB("brief"),
  site: OF_JOB("site"),
  link: OF_JOB("link"),
  design: "EXISTS (SELECT FROM link AS of_link WHERE of_link.id = design.link_id)",
  obstacle: OF_JOB("obstacle"),
  feature: OF_JOB("feature"),
  photo: OF_JOB("photo"),
  basemap: OF_JOB("basemap"),
};

const kindGuards = (): Guard[] =>
  kinds()
    .filter(([name, k]) => k.kept === "columns" && name !== "job")
    .map(([name]) => {
      const { table } = storeOf(name);
      const sees = TABLE_OF[name];
      if (sees === undefined) throw new Error(`nobody said whose a ${name} is`);
      return {
        table,
        sees: both(sees, `(SELECT guard_sees('${name}'))`),
        writes: both(sees, `(SELECT guard_edits('${name}'))`),
        // A file that lies beneath a drawing stays; the sweep must see which those are.
        ...(name === "basemap" ? { also: [[WORKER, "SELECT", "upload_id IS NOT NULL"]] as const } : {}),
      };
    });

/** What belongs to a firm, or to a job of one. */
const GUARDS = (): readonly Guard[] => [
  {
    table: "organisation",
    sees: `id = ${FIRM}`,
    writes: "false",
    also: [
      [DOOR, "ALL", "true"],
      [WORKER, "SELECT", "true"],
    ],
  },
  {
    table: "job",
    sees: `${OF_FIRM} AND ((SELECT guard_job_ids()) IS NULL OR id = ANY ((SELECT guard_job_ids())::uuid[]))`,
    // Every edit of a record counts its job's revision up.
    writes: both(OF_FIRM, "(SELECT guard_job_ids()) IS NULL OR id = ANY ((SELECT guard_job_ids())::uuid[])", CREWS),
    also: [[DOOR, "SELECT", "true"]],
  },
  ...kindGuards(),
  {
    table: "record",
    sees: both(OF_JOB("record"), "kind = ANY ((SELECT guard_seen())::text[])"),
    writes: both(OF_JOB("record"), "kind = ANY ((SELECT guard_edited())::text[])"),
  },
  {
    table: "change",
    sees: both(OF_FIRM, `job_id IS NULL OR ${OF_JOB("change")}`),
    writes: both(OF_FIRM, `job_id IS NULL OR ${OF_JOB("change")}`, CREWS),
  },
  { table: "terrain_dataset", sees: SHARED, writes: both(OF_FIRM, PLANNERS) },
  {
    table: "terrain_tile",
    sees: "EXISTS (SELECT FROM terrain_dataset AS d WHERE d.id = terrain_tile.dataset_id)",
    writes: both(`EXISTS (SELECT FROM terrain_dataset AS d WHERE d.id = terrain_tile.dataset_id AND d.${OF_FIRM})`, PLANNERS),
  },
  // Picking a part counts it down: crews write sheets, too.
  { table: "radio", sees: SHARED, writes: both(OF_FIRM, CREWS) },
  { table: "antenna", sees: SHARED, writes: both(OF_FIRM, CREWS) },
  { table: "part", sees: SHARED, writes: both(OF_FIRM, CREWS) },
  { table: "upload", sees: OF_FIRM, writes: both(OF_FIRM, PLANNERS), also: [[WORKER, "ALL", "true"]] },
  { table: "file_import", sees: OF_FIRM, writes: both(OF_FIRM, PLANNERS), also: [[WORKER, "ALL", "true"]] },
  {
    table: "made_edit",
    sees: OF_FIRM,
    also: [
      [WORKER, "SELECT", "true"],
      [WORKER, "DELETE", "true"],
    ],
  },
  // An edit puts itself down for the addresses that want it; who they are is an owner's to say.
  { table: "webhook", sees: OF_FIRM, writes: "false", also: [[DOOR, "ALL", "true"]] },
  { table: "webhook_due", sees: OF_FIRM, also: [[DOOR, "ALL", "true"]] },
  // Whoever reads a job asks for its verdicts.
  { table: "link_verdict", sees: both(OF_FIRM, OF_JOB("link_verdict")), also: [[WORKER, "ALL", "true"]] },
  {
    table: "beat",
    sees: "false",
    also: [
      [APP, "SELECT", "true"],
      [WORKER, "ALL", "true"],
    ],
  },
  { table: "member", sees: "false", also: [[DOOR, "ALL", "true"]] },
  { table: "member_job", sees: "false", also: [[DOOR, "ALL", "true"]] },
];

/** Tables that open a door: one role's alone, but for what the sweep takes away. */
const DOORS: Readonly<Record<string, string | null>> = {
  account: null,
  audit: null,
  challenge: "expires_at < now()",
  device: null,
  invitation: null,
  mail: null,
  pairing: "expires_at < now() - interval '30 days'",
  passkey: null,
  sealing: null,
  session: "expires_at < now()",
  share: null,
  token: null,
  tries: "since < now() - interval '1 day'",
  two_factor: null,
  user: null,
  verification: "expires_at < now()",
};
const TIME_OF: Readonly<Record<string, string>> = { tries: "since" };

const quoted = (names: readonly string[]): string => `ARRAY[${names.map((n) => `'${n}'`).join(", ")}]::text[]`;
const byRole = (names: (role: Role) => readonly string[]): string =>
  `CASE current_setting('dryarc.role', true) ${ROLES.map((role) => `WHEN '${role}' THEN ${quoted(names(role))}`).join(" ")} ELSE '{}'::text[] END`;

const namesOf = (pick: (k: { readonly seenBy: readonly Role[]; readonly editedBy: readonly Role[] }) => readonly Role[]) => (role: Role) =>
  kinds()
    .filter(([, k]) => pick(k).includes(role))
    .map(([name]) => name);

const FUNCTIONS = (): readonly string[] => {
  const asFunction = (name: string, args: string, type: string, body: string): string =>
    `CREATE OR REPLACE FUNCTION ${name}(${args}) RETURNS ${type} LANGUAGE sql STABLE PARALLEL SAFE AS $$ SELECT ${body} $$`;
  // What a customer's sheets are made of is chosen sheet by sheet in the code; here a customer is held to their job, and writes nothing.
  const seen = (role: Role): readonly string[] => (role === "customer" ? kinds().map(([name]) => name) : namesOf((k) => k.seenBy)(role));
  return [
    asFunction("guard_organisation", "", "uuid", "nullif(current_setting('dryarc.organisation', true), '')::uuid"),
    asFunction("guard_role", "", "text", "coalesce(current_setting('dryarc.role', true), '')"),
    asFunction(
      "guard_job_ids",
      "",
      "uuid[]",
      "CASE coalesce(current_setting('dryarc.jobs', true), '') WHEN '*' THEN NULL WHEN '' THEN '{}' ELSE string_to_array(current_setting('dryarc.jobs', true), ',')::uuid[] END",
    ),
    asFunction("guard_seen", "", "text[]", byRole(seen)),
    asFunction("guard_edited", "", "text[]", byRole(namesOf((k) => k.editedBy))),
    asFunction("guard_sees", "kind text", "boolean", "kind = ANY (guard_seen())"),
    asFunction("guard_edits", "kind text", "boolean", "kind = ANY (guard_edited())"),
  ];
};

const policiesOf = ({ table, sees, writes = sees, also = [] }: Guard): string[] => [
  `CREATE POLICY see ON ${table} FOR SELECT USING (${sees})`,
  `CREATE POLICY make ON ${table} FOR INSERT WITH CHECK (${writes})`,
  `CREATE POLICY alter ON ${table} FOR UPDATE USING (${writes}) WITH CHECK (${writes})`,
  `CREATE POLICY take ON ${table} FOR DELETE USING (${writes})`,
  ...also.map(
    ([role, what, rows], i) =>
      `CREATE POLICY also_${i} ON ${table} FOR ${what} TO ${role} ${what === "INSERT" ? "WITH CHECK" : "USING"} (${rows})${what === "ALL" ? ` WITH CHECK (${rows})` : ""}`,
  ),
];

const doorOf = (name: string, old: string | null): string[] => {
  const table = `auth."${name}"`;
  // The book is added to, never changed.
  const may = name === "audit" ? "SELECT, INSERT" : "SELECT, INSERT, UPDATE, DELETE";
  return [
    `CREATE POLICY door ON ${table} FOR ALL TO ${DOOR} USING (true) WITH CHECK (true)`,
    `GRANT ${may} ON ${table} TO ${DOOR}`,
    ...(old === null
      ? []
      : [
          `CREATE POLICY old_seen ON ${table} FOR SELECT TO ${WORKER} USING (${old})`,
          `CREATE POLICY old_taken ON ${table} FOR DELETE TO ${WORKER} USING (${old})`,
          `GRANT SELECT (${TIME_OF[name] ?? "expires_at"}), DELETE ON ${table} TO ${WORKER}`,
        ]),
  ];
};

/** All tables of ours, with oid, name, schema and owner: those that no extension brought. */
export const OUR_TABLES = `
  SELECT c.oid, format('%I.%I', n.nspname, c.relname) AS name, n.nspname AS schema, pg_get_userbyid(c.relowner) AS owner FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
  WHERE c.relkind IN ('r', 'p') AND n.nspname NOT IN ('pg_catalog', 'information_schema') AND n.nspname NOT LIKE 'pg\\_%'
    AND NOT EXISTS (SELECT FROM pg_depend d WHERE d.objid = c.oid AND d.deptype = 'e')`;

/** Lifts the guard from the owner, who is about to change the schema and what is there. */
export const liftGuards = async (db: Pick<Db, "execute">): Promise<void> => {
  await db.execute(
    sql.raw(`DO $do$ DECLARE t record; BEGIN
      FOR t IN ${OUR_TABLES} LOOP EXECUTE format('ALTER TABLE %s NO FORCE ROW LEVEL SECURITY', t.name); END LOOP;
    END $do$`),
  );
};

/** Puts the guards on, all of them in one transaction: there is no moment without. */
export const setGuards = (db: Db): Promise<void> =>
  db.transaction(async (tx) => {
    const run = (statement: string): Promise<unknown> => tx.execute(sql.raw(statement));
    for (const statement of FUNCTIONS()) await run(statement);
    await run(`DO $do$ DECLARE t record; p record; BEGIN
      FOR t IN ${OUR_TABLES} LOOP
        FOR p IN SELECT polname FROM pg_policy WHERE polrelid = t.oid LOOP EXECUTE format('DROP POLICY %I ON %s', p.polname, t.name); END LOOP;
        EXECUTE format('REVOKE ALL ON %s FROM ${APP}, ${DOOR}, ${WORKER}', t.name);
        EXECUTE format('ALTER TABLE %s ENABLE ROW LEVEL SECURITY', t.name);
        EXECUTE format('ALTER TABLE %s FORCE ROW LEVEL SECURITY', t.name);
        -- What was done to the schema is the owner's own.
        IF t.schema = 'drizzle' THEN EXECUTE format('CREATE POLICY own ON %s TO %I USING (true) WITH CHECK (true)', t.name, t.owner); END IF;
      END LOOP;
    END $do$`);
    await run(`GRANT USAGE ON SCHEMA auth TO ${DOOR}, ${WORKER}`);
    await run(`GRANT USAGE ON ALL SEQUENCES IN SCHEMA auth TO ${DOOR}`);
    await run(`GRANT USAGE ON ALL SEQUENCES IN SCHEMA public TO ${APP}, ${WORKER}`);
    for (const guard of GUARDS()) {
      for (const statement of policiesOf(guard)) await run(statement);
      if (guard.table !== "member" && guard.table !== "member_job")
        await run(`GRANT SELECT, INSERT, UPDATE, DELETE ON ${guard.table} TO ${APP}, ${WORKER}`);
    }
    for (const [name, old] of Object.entries(DOORS)) for (const statement of doorOf(name, old)) await run(statement);
    await run(`GRANT SELECT, INSERT, UPDATE ON organisation TO ${DOOR}`);
    await run(`GRANT SELECT, INSERT, UPDATE, DELETE ON member, member_job, webhook, webhook_due TO ${DOOR}`);
    // Who lets people in needs to know which jobs there are, not what is in them.
    await run(`GRANT SELECT (id, organisation_id, number, name, visit_on, deleted_at) ON job TO ${DOOR}`);
  });
