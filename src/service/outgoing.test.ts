import type { lookup as lookUp } from "node:dns";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { callOut, leadsTo, OutFault, type Reach } from "./outgoing";

let server: Server;
let port: number;
let asked: string[] = [];
beforeAll(async () => {
  server = createServer((request, response) => {
    asked.push(`${request.method} ${request.url}`);
    if (request.url === "/away") response.writeHead(302, { location: `http://127.0.0.1:${port}/secret` }).end();
    else if (request.url === "/large") response.end(Buffer.alloc(70_000));
    else if (request.url === "/slow")
      response.write("a"); // and nothing more
    else if (request.method === "POST") request.pipe(response.writeHead(200, { "content-type": "text/plain; charset=utf-8" }));
    else response.writeHead(200, { "content-type": "application/json" }).end('{"level":-61}');
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  port = (server.address() as AddressInfo).port;
});
afterAll(() => {
  server.closeAllConnections();
  server.close();
});
beforeEach(() => {
  asked = [];
});

const to = (path = "/", host = "127.0.0.1"): URL => new URL(`http://${host}:${port}${path}`);
const listed = (): Reach => ({ outside: false, hosts: [`127.0.0.1:${port}`] });
const why = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => "answered",
    (error: unknown) => (error instanceof OutFault ? error.why : String(error)),
  );
/** Names that answer as they are told, each time the next. */
const naming = (...answers: string[][]): typeof lookUp =>
  ((_name: string, _options: object, callback: (e: null, a: { address: string; family: number }[]) => void) => {
    const next = answers.length > 1 ? answers.shift()! : answers[0]!;
    callback(
      null,
      next.map((address) => ({ address, family: address.includes(":") ? 6 : 4 })),
    );
  }) as never;

describe("a call that goes out", () => {
  test("reaches what is listed by name and port, and no other port of this machine", async () => {
    const answer = await callOut(to(), listed());
    expect([answer.status, answer.type, Buffer.from(answer.bytes).toString()]).toEqual([200, "application/json", '{"level":-61}']);
    expect(await why(callOut(to(), { outside: true, hosts: [`127.0.0.1:${port + 1}`] }))).toBe("not-allowed");
    expect(asked).toEqual(["GET /"]);
  });

  test("takes a body along, follows no redirect, and is cut off where it is too large or too slow", async () => {
    const sent = await callOut(to("/hook"), listed(), { method: "POST", body: "told", headers: { "content-type": "text/plain" } });
    expect([sent.type, Buffer.from(sent.bytes).toString()]).toEqual(["text/plain", "told"]);
    expect(await why(callOut(to("/away"), listed()))).toBe("redirect");
    expect(asked).not.toContain("GET /secret");
    expect(await why(callOut(to("/large"), listed()))).toBe("too-large");
    const began = performance.now();
    expect(await why(callOut(to("/slow"), listed(), { timeMs: 300 }))).toBe("too-slow");
    expect(performance.now() - began).toBeLessThan(3000);
    expect(await why(callOut(new URL("http://127.0.0.1:1/"), { outside: false, hosts: ["127.0.0.1"] }))).toBe("unreachable");
  });

  test.each(["file:///etc/passwd", "ftp://10.0.0.1/", "gopher://10.0.0.1/", "data:text/plain,x"])("does not go by %s", async (address) => {
    expect(await why(callOut(new URL(address), { outside: true, subnets: ["10.0.0.0/8"] }))).toBe("not-allowed");
  });

  test("goes into the subnets of a job's radios, and into no other", async () => {
    const radios: Reach = { outside: false, subnets: ["10.20.0.0/16", "fd00:20::/32"] };
    // Whether anything answers there is the network's: that it was tried is what is looked at.
    for (const address of ["10.20.3.4", "[fd00:20::7]"])
      expect(await why(callOut(new URL(`http://${address}:9/`), radios, { timeMs: 200 })), address).not.toBe("not-allowed");
    for (const address of ["10.21.3.4", "192.168.1.20", "[fd00:21::7]", "203.0.113.9"])
      expect(await why(callOut(new URL(`http://${address}:9/`), radios)), address).toBe("not-allowed");
  });

  test("never comes back to this machine or to what lies beside it, however wide the subnets are", async () => {
    const wide: Reach = { outside: true, subnets: ["0.0.0.0/0", "::/0"] };
    for (const host of [
      "127.0.0.1",
      "127.9.9.9",
      "0.0.0.0",
      "[::1]",
      "[::]",
      "[::ffff:127.0.0.1]",
      "169.254.169.254",
      "[fe80::1]",
      "224.0.0.1",
      "localhost",
      "radio.localhost",
      "2130706433",
      "0x7f.1",
    ])
      expect(await why(callOut(to("/", host), wide)), host).toBe("not-allowed");
    expect(asked).toEqual([]);
  });
});

describe("a name", () => {
  test("is looked at by what it answers: one that leads here is not gone to, nor one of which any answer does", async () => {
    for (const answers of [["127.0.0.1"], ["::1"], ["203.0.113.9", "127.0.0.1"], ["169.254.169.254"], ["10.1.2.3"]])
      expect(await why(callOut(to("/", "radio.example"), { outside: true }, { lookup: naming(answers) })), answers.join()).toBe(
        "not-allowed",
      );
    expect(asked).toEqual([]);
  });

  test("that changes its answer is connected to as it was looked at, and looked at again each time", async () => {
    // First an address in the job's subnet, where nothing answers; then this machine.
    const lookup = naming(["10.20.0.9"], ["127.0.0.1"]);
    const radios: Reach = { outside: false, subnets: ["10.20.0.0/16"] };
    expect(await why(callOut(to("/", "radio.example"), radios, { lookup, timeMs: 200 }))).not.toBe("not-allowed");
    expect(await why(callOut(to("/", "radio.example"), radios, { lookup }))).toBe("not-allowed");
    expect(asked).toEqual([]);
  });
});

test("where an address leads is known by its number, in every spelling", () => {
  expect(["10.0.0.1", "100.64.0.1", "172.31.255.255", "192.168.0.1", "fd12::1", "::ffff:10.0.0.1", "::ffff:a00:1"].map(leadsTo)).toEqual(
    Array(7).fill("inside"),
  );
  expect(["127.0.0.1", "::1", "::", "fe80::9", "::ffff:7f00:1", "0.1.2.3", "255.255.255.255", "radio", ""].map(leadsTo)).toEqual(
    Array(9).fill("here"),
  );
  expect(["203.0.113.9", "2001:db8::1", "11.0.0.1", "172.32.0.1"].map(leadsTo)).toEqual(Array(4).fill("outside"));
});
