import type { ClientBase } from "pg";
import { OUR_TABLES } from "../data/row-guards";

/** Rows of every table of ours, by its name with its schema. */
export const countRows = async (client: Pick<ClientBase, "query">): Promise<Record<string, number>> => {
  const { rows } = await client.query<{ name: string }>(`SELECT name FROM (${OUR_TABLES}) AS ours ORDER BY name`);
  const out: Record<string, number> = {};
  for (const { name } of rows) {
    const counted = await client.query<{ n: string }>(`SELECT count(*) AS n FROM ${name}`);
    out[name] = Number(counted.rows[0]!.n);
  }
  return out;
};
