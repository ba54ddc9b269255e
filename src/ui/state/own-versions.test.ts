/* Which version a row has come to by one's own edits alone, against a plain reading of the same edits. */
import fc from "fast-check";
import { expect, test } from "vitest";
import { ownVersions } from "./own-versions";

test("one's own edits in a row are passed over; another's between them is not", () => {
  const own = ownVersions();
  own.answered("a", 3, 4);
  own.answered("a", 4, 5);
  expect(own.newest({ id: "a", version: 3 })).toBe(5);
  // Another made 6; one's own on 5 was joined with it to 7.
  own.answered("a", 5, 7);
  expect(own.newest({ id: "a", version: 3 })).toBe(5);
  expect(own.newest({ id: "a", version: 6 })).toBe(6);
  expect(own.newest({ id: "a", version: 7 })).toBe(7);
  expect(own.newest({ id: "b", version: 3 })).toBe(3);
});

test("never past an edit of somebody else that was not read", () => {
  fc.assert(
    fc.property(fc.array(fc.record({ mine: fc.boolean(), read: fc.boolean() }), { maxLength: 30 }), (edits) => {
      const own = ownVersions();
      /** Who made each version; the row was read at these. */
      const by: boolean[] = [];
      let [version, opened] = [1, 1];
      for (const { mine, read } of edits) {
        const on = own.newest({ id: "a", version: opened });
        version++;
        by[version] = mine;
        if (mine) own.answered("a", on, version);
        if (read) opened = version;
        const now = own.newest({ id: "a", version: opened });
        expect(now).toBeGreaterThanOrEqual(opened);
        for (let v = opened + 1; v <= now; v++) expect(by[v]).toBe(true);
      }
    }),
  );
});
