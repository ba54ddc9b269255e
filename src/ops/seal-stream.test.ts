import { randomBytes } from "node:crypto";
import { describe, expect, test } from "vitest";
import { SEALED, SealFault, seal, unseal } from "./seal-stream";

const PASS = "a tern over the saddle, at nine";
const PIECE = 1_048_576;

async function* inParts(bytes: Buffer, size: number): AsyncGenerator<Buffer> {
  for (let at = 0; at < bytes.length; at += size) yield bytes.subarray(at, at + size);
}
const gather = async (source: AsyncIterable<Buffer>): Promise<Buffer> => {
  const parts: Buffer[] = [];
  for await (const part of source) parts.push(part);
  return Buffer.concat(parts);
};
const sealed = (bytes: Buffer, pass = PASS) => gather(seal(inParts(bytes, 70_001), pass));
const opened = (bytes: Buffer, pass = PASS, size = 4099) => gather(unseal(inParts(bytes, size), pass));

describe("a sealed file", () => {
  test.each([
    [0, 4099],
    [1000, 1],
    [PIECE, 70_001],
    [2 * PIECE + 17, 9_999_999],
  ])("of %d bytes comes out as it went in, read in parts of %d", async (n, size) => {
    const bytes = randomBytes(n);
    const out = await sealed(bytes);
    expect(out.subarray(0, SEALED.length).toString()).toBe(SEALED);
    expect(Buffer.compare(await opened(out, PASS, size), bytes)).toBe(0);
  });

  test("says nothing of what is in it, and is another each time", async () => {
    const bytes = Buffer.from("Ailsa, Pilot Station ".repeat(100));
    const [a, b] = [await sealed(bytes), await sealed(bytes)];
    expect(a.includes("Pilot")).toBe(false);
    expect(a.subarray(200).equals(b.subarray(200))).toBe(false);
  });

  test("opens by no other passphrase; the same one typed by another keyboard does", async () => {
    const out = await sealed(Buffer.from("x"), "na\u00efve gull on the quay");
    await expect(opened(out, "naive gull on the quay")).rejects.toThrow("the passphrase is not the one");
    expect((await opened(out, "nai\u0308ve gull on the quay")).toString()).toBe("x");
  });

  test("that was changed, cut off, or whose pieces were moved, doubled or left out is refused in words", async () => {
    const out = await sealed(randomBytes(3 * PIECE + 5));
    const head = out.indexOf("\n", SEALED.length) + 1;
    const whole = PIECE + 16;
    const pieces = [0, 1, 2].map((i) => out.subarray(head + i * whole, head + (i + 1) * whole));
    const last = out.subarray(head + 3 * whole);
    const made = (...parts: Buffer[]) => opened(Buffer.concat([out.subarray(0, head), ...parts]));
    const flip = (at: number): Buffer => {
      const changed = Buffer.from(out);
      changed[at] = changed[at]! ^ 1;
      return changed;
    };
    await expect(made(...pieces)).rejects.toThrow(SealFault);
    await expect(made(pieces[0]!)).rejects.toThrow(SealFault);
    await expect(made(pieces[0]!, pieces[2]!, pieces[1]!, last)).rejects.toThrow("cut off or changed");
    await expect(made(pieces[0]!, pieces[1]!, pieces[1]!, pieces[2]!, last)).rejects.toThrow("cut off or changed");
    await expect(made(pieces[0]!, pieces[2]!, last)).rejects.toThrow("cut off or changed");
    await expect(made(...pieces, last, Buffer.from("more"))).rejects.toThrow(SealFault);
    await expect(opened(flip(head + 10))).rejects.toThrow(SealFault);
    await expect(opened(flip(out.length - 3))).rejects.toThrow(SealFault);
    // The head is held as well: weaker figures for the passphrase, another start of the nonces.
    await expect(opened(flip(head - 5))).rejects.toThrow(SealFault);
    await expect(opened(Buffer.concat([Buffer.from("another file altogether"), out]))).rejects.toThrow("not a sealed one");
    await expect(opened(out.subarray(0, 30))).rejects.toThrow("ends within its head");
    const greedy = Buffer.from(out.subarray(0, head).toString().replace('"ln":17', '"ln":30'));
    await expect(opened(Buffer.concat([greedy, out.subarray(head)]))).rejects.toThrow("the head of the file is damaged");
  });
});
