import type { Reserve, RowOf } from "../contract";
import { asOneStep } from "../data/actor";
import type { Db } from "../data/client";
import { edit } from "../data/records";

/**
 * Reserves lines of a job's kit in the firm's stock, or gives them back, as one step: what another job holds nobody gets twice.
 * @throws Refused "none-left" naming the part of which there are too few, VersionClash when a line was picked meanwhile; nothing is done then.
 */
export const reserve = (db: Db, jobId: string, { picks }: Reserve): Promise<RowOf<"pick">[]> =>
  edit(db, jobId, (door) =>
    asOneStep(async () => {
      const rows: RowOf<"pick">[] = [];
      for (const { id, version, name, partId, count } of picks)
        rows.push(
          version === 0
            ? await door.create("pick", { name, partId, state: "reserved", count }, { id })
            : await door.patch("pick", id, version, { state: "reserved", count }),
        );
      return rows;
    }),
  );
