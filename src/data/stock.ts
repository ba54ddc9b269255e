import { sql } from "drizzle-orm";
import type { Tx } from "./changes";
import { Refused } from "./clash";

/* What is counted of the catalogue: taken by a pick and given back by its end, in the same step as the pick itself. */

const TABLES = ["part", "radio", "antenna"] as const;

/**
 * Takes so many out of stock, or gives them back where the number is below nought. A row is changed by one statement that looks and
 * takes: two who want the last one never both get it.
 * @returns false when nobody counts that sheet. @throws Refused "none-left" with how many there are.
 */
export const moveStock = async (tx: Tx, partId: string, count: number): Promise<boolean> => {
  // A supply that comes in a radio's box is counted with the radio.
  if (count === 0 || partId.startsWith("injector-of:")) return false;
  for (const table of TABLES) {
    const of = sql.identifier(table);
    const moved = await tx.execute<{ id: string }>(sql`
      UPDATE ${of} SET sheet = jsonb_set(sheet, '{stock}', to_jsonb((sheet ->> 'stock')::int - ${count}::int)), version = version + 1, updated_at = now()
      WHERE organisation_id = (SELECT own_organisation()) AND id = ${partId} AND deleted_at IS NULL AND sheet ? 'stock' AND (sheet ->> 'stock')::int >= ${count}::int RETURNING id`);
    if (moved.rows.length > 0) return true;
    const short = await tx.execute<{ name: string; left: number }>(sql`
      SELECT name, (sheet ->> 'stock')::int AS left FROM ${of} WHERE organisation_id = (SELECT own_organisation()) AND id = ${partId} AND deleted_at IS NULL AND sheet ? 'stock'`);
    const [row] = short.rows;
    if (row !== undefined) throw new Refused("none-left", "count", { name: row.name, left: row.left, asked: count });
  }
  return false;
};
