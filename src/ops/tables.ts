import type { ClientBase } from "pg";

/** Rows of every table of ours, by its name with its schema: what an extension brought is not ours. */
export const countRows = async (client: Pick<ClientBase, "query">): Promise<Record<string, number>> => {
  const { rows } = await client.query<{ name: string }>(`
    SELECT format('%I.%I', n.nspname, c.relname) AS name FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
    WHERE c.relkind IN ('r', 'p') AND n.nspname NOT IN ('pg_catalog', 'information_schema') AND n.nspname NOT LIKE 'pg\\_%'
      AND NOT EXISTS (SELECT FROM pg_depend d WHERE d.objid = c.oid AND d.deptype = 'e')
    ORDER BY 1`);
  const out: Record<string, number> = {};
  for (const { name } of rows) {
    const counted = await client.query<{ n: string }>(`SELECT count(*) AS n FROM ${name}`);
    out[name] = Number(counted.rows[0]!.n);
  }
  return out;
};
