/* A form sends what it changed and no more; what somebody else changed meanwhile stays, or is asked about. */
import { describe, expect, test } from "vitest";
import { ApiError } from "../api/client";
import { FormClash, sendForm } from "./form-edit";

interface Row {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly heightM: number;
  readonly note: string;
}
type Fields = Omit<Row, "id" | "version">;
const OPENED: Row = { id: "a", version: 1, name: "Quay", heightM: 6, note: "" };
const values = ({ name, heightM, note }: Row, over: Partial<Fields> = {}): Fields => ({ name, heightM, note, ...over });

/** A server that keeps one row, as the real one does: an edit on another version is refused with what stands now. */
const server = (start: Row) => {
  let row = start;
  const patches: object[] = [];
  return {
    now: () => row,
    patches,
    others: (fields: Partial<Row>) => {
      row = { ...row, ...fields, version: row.version + 1 };
    },
    send: async (version: number, patch: Partial<Fields>) => {
      if (version !== row.version) throw new ApiError(409, { code: "clash", current: row });
      patches.push(patch);
      row = { ...row, ...patch, version: version + 1 };
    },
  };
};

describe("a form's edit", () => {
  test("holds only what was changed", async () => {
    const s = server(OPENED);
    await sendForm(OPENED, values(OPENED, { heightM: 9 }), s.send);
    expect(s.patches).toEqual([{ heightM: 9 }]);
  });

  test("of nothing is not sent", async () => {
    const s = server(OPENED);
    await sendForm(OPENED, values(OPENED), s.send);
    expect(s.patches).toEqual([]);
  });

  test("leaves what another changed in other fields", async () => {
    const s = server(OPENED);
    s.others({ note: "key from the office" });
    await sendForm(OPENED, values(OPENED, { heightM: 9 }), s.send);
    expect(s.now()).toMatchObject({ heightM: 9, note: "key from the office" });
  });

  test("asks where both changed one field; mine stands when I say so, and only there", async () => {
    const s = server(OPENED);
    s.others({ heightM: 7, name: "North quay" });
    const clash = await sendForm(OPENED, values(OPENED, { heightM: 9, note: "seen" }), s.send).catch((e: unknown) => e);
    expect(clash).toBeInstanceOf(FormClash);
    expect(clash).toMatchObject({ mine: { heightM: 9 }, theirs: { heightM: 7 } });
    expect(s.now().heightM).toBe(7);
    await (clash as FormClash).keepMine();
    expect(s.now()).toMatchObject({ heightM: 9, name: "North quay", note: "seen" });
  });

  test("both came to the same: nothing to ask", async () => {
    const s = server(OPENED);
    s.others({ heightM: 9 });
    await sendForm(OPENED, values(OPENED, { heightM: 9 }), s.send);
    expect(s.now().heightM).toBe(9);
    expect(s.patches).toEqual([]);
  });

  test("a third one changes it again before the choice: asked again", async () => {
    const s = server(OPENED);
    s.others({ heightM: 7 });
    const first = (await sendForm(OPENED, values(OPENED, { heightM: 9 }), s.send).catch((e: unknown) => e)) as FormClash;
    s.others({ heightM: 8 });
    const second = await first.keepMine().catch((e: unknown) => e);
    expect(second).toMatchObject({ mine: { heightM: 9 }, theirs: { heightM: 8 } });
  });

  test("another refusal is passed on", async () => {
    const refuse = () => Promise.reject(new ApiError(422, { code: "invalid" }));
    await expect(sendForm(OPENED, values(OPENED, { heightM: 9 }), refuse)).rejects.toBeInstanceOf(ApiError);
  });
});
