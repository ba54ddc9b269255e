/* How passwords are kept, and which are refused. */
import { scryptSync } from "node:crypto";
import { describe, expect, test } from "vitest";
import { Refused } from "../../data/clash";
import { hashPassword, verifyPassword } from "./password-hash";
import { refuseWeak } from "./password-rules";

describe("kept", () => {
  test("as scrypt (RFC 7914) with its figures in the string: another program reads it", async () => {
    const kept = await hashPassword("kelp over granite");
    const [, name, figures, salt, hash] = kept.split("$");
    expect([name, figures]).toEqual(["scrypt", "ln=15,r=8,p=3"]);
    const own = scryptSync("kelp over granite", Buffer.from(salt!, "base64"), 32, { N: 2 ** 15, r: 8, p: 3, maxmem: 2 ** 27 });
    expect(own.toString("base64").replace(/=+$/, "")).toBe(hash);
    expect(await hashPassword("kelp over granite")).not.toBe(kept);
  });

  test("the right one is known again, in either spelling of its letters, and no other is", async () => {
    const kept = await hashPassword("caf\u00e9 on the quay");
    expect(await verifyPassword({ hash: kept, password: "cafe\u0301 on the quay" })).toBe(true);
    for (const password of ["cafe on the quay", "", "caf\u00e9 on the quay "])
      expect(await verifyPassword({ hash: kept, password })).toBe(false);
  });

  test("one that was kept by smaller figures stays readable; what is no such string lets nobody in, and costs nothing", async () => {
    const salt = Buffer.alloc(16, 7);
    const b64 = (b: Buffer): string => b.toString("base64").replace(/=+$/, "");
    const older = `$scrypt$ln=14,r=8,p=1$${b64(salt)}$${b64(scryptSync("old one", salt, 32, { N: 2 ** 14, r: 8, p: 1 }))}`;
    expect(await verifyPassword({ hash: older, password: "old one" })).toBe(true);
    const began = performance.now();
    for (const hash of ["", "$2b$10$abc", "plain", older.replace("ln=14", "ln=31"), older.replace("r=8", "r=99"), older.slice(0, -4)])
      expect(await verifyPassword({ hash, password: "old one" })).toBe(false);
    expect(performance.now() - began).toBeLessThan(5000);
  });
});

describe("refused", () => {
  const reason = (password: string, known: string[] = []): string | null => {
    try {
      refuseWeak(password, known);
      return null;
    } catch (error) {
      if (error instanceof Refused) return error.told ?? error.code;
      throw error;
    }
  };
  test("what is short, of few letters, or little more than a word that is tried first", () => {
    for (const weak of ["", "eleven char", "abababababab", "aaaaaaaaaaaaaaaaaaaa", "Password1234", "letmein!!!!!!", "Dry Arc 2026!"])
      expect(reason(weak), weak).not.toBeNull();
    for (const good of [
      "kelp over granite",
      "q7#Lw9!xPz2m",
      "password is not what opens this door",
      "\u5e72\u71e5\u7684\u5f27\u7ebf\u5728\u6d77\u9762\u4e0a\u5f88\u957f\u5f88\u957f",
    ])
      expect(reason(good), good).toBeNull();
  });
  test("one's own name and address, unless much stands beside them", () => {
    expect(reason("mara.tolliver", ["Mara Tolliver", "mara.tolliver"])).not.toBeNull();
    expect(reason("tolliver1234", ["tolliver"])).not.toBeNull();
    expect(reason("tolliver counts the gulls", ["tolliver"])).toBeNull();
  });
});
