import type { ReplaceUnit, RowOf } from "../contract";
import { asOneStep } from "../data/actor";
import type { Db } from "../data/client";
import { edit } from "../data/records";

/**
 * Writes down that a unit died, and one in its place with its bracket, as one step that is undone as one.
 * @throws VersionClash when the dead one was changed meanwhile; ZodError naming a field that cannot be kept.
 */
export const replaceUnit = (
  db: Db,
  jobId: string,
  { siteId, placeId, dead, fields, cause, on, newId }: ReplaceUnit,
): Promise<{ readonly dead: RowOf<"unit">; readonly unit: RowOf<"unit"> }> =>
  edit(db, jobId, (door) =>
    asOneStep(async () => {
      const end = { ...fields, state: "dead", cause, since: on } as const;
      const gone =
        dead.version === 0
          ? await door.create("unit", { ...end, siteId, placeId }, { id: dead.id })
          : await door.patch("unit", dead.id, dead.version, end);
      const unit = await door.create("unit", { siteId, placeId, replaces: gone.id, bracket: gone.bracket }, { id: newId });
      return { dead: gone, unit };
    }),
  );
