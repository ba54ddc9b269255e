import { createHash, randomUUID } from "node:crypto";
import { type APIRequestContext, type APIResponse, expect, test } from "@playwright/test";
import { demoJob } from "./helpers";

/* Doors: what may be asked, by whom, of which job; and what a repeat does. Over HTTP, as anybody could. */

const newJob = async (request: APIRequestContext, name: string): Promise<string> => {
  const made = await request.post("/api/jobs", {
    data: { name, visitOn: "2026-12-03", centreLatDeg: 46, centreLonDeg: -25, ruleDomain: "cautious", rainRate001MmH: 28 },
  });
  return ((await made.json()) as { id: string }).id;
};
const idOf = async (response: APIResponse): Promise<string> => {
  expect(response.status(), await response.text()).toBe(200);
  return ((await response.json()) as { id: string }).id;
};
const site = (name: string, latDeg: number) => ({ name, latDeg, lonDeg: -25, mountAglM: 5 });
const sha = (bytes: Buffer): string => createHash("sha256").update(bytes).digest("hex");
const WINDOW = { crs: "EPSG:32626", x0: 400_000, y0: 5_200_000, stepM: 100, cols: 20, rows: 20 };

test("reads and writes from another page are refused, and what costs is never a plain address", async ({ request }) => {
  const { job } = await demoJob(request);
  const elsewhere: Record<string, string>[] = [
    { "sec-fetch-site": "cross-site" },
    { "sec-fetch-site": "same-site" },
    { origin: "http://elsewhere.example" },
    { origin: "null" },
  ];
  for (const headers of elsewhere) {
    for (const path of [
      "/api/jobs",
      `/api/jobs/${job.id}`,
      `/api/jobs/${job.id}/verdicts`,
      `/api/jobs/${job.id}/events`,
      "/api/hardware",
      "/api/health",
    ])
      expect((await request.get(path, { headers })).status(), `${path} ${JSON.stringify(headers)}`).toBe(403);
    expect((await request.post(`/api/jobs/${job.id}/terrain`, { headers, data: WINDOW })).status()).toBe(403);
  }
  for (const path of ["terrain?crs=EPSG:32626", "export?what=sites&format=csv", "bundle", "heights"])
    expect((await request.get(`/api/jobs/${job.id}/${path}`)).status(), path).toBe(405);
});

test("a job that is not there is not there for any route, and no route touches a row of another job", async ({ request }) => {
  const [mine, theirs] = [await newJob(request, "Mine"), await newJob(request, "Theirs")];
  const base = `/api/jobs/${theirs}`;
  const near = await idOf(await request.post(`${base}/sites`, { data: site("A", 46) }));
  const far = await idOf(await request.post(`${base}/sites`, { data: site("B", 46.01) }));
  const link = (await (await request.post(`${base}/links`, { data: { nearSiteId: near, farSiteId: far } })).json()) as {
    id: string;
    design: { id: string };
  };
  const outline = [
    [-25, 46],
    [-24.999, 46],
    [-24.999, 46.001],
  ];
  const obstacle = await idOf(
    await request.post(`${base}/obstacles`, { data: { kind: "building", outline, heightM: 5, surveyedOn: "2026-01-01" } }),
  );
  const feature = await idOf(await request.post(`${base}/features`, { data: { name: "Ridge", points: [[-25, 46]] } }));
  const bytes = Buffer.from("name,lat,lon\na,46,-25\n");
  const upload = await idOf(await request.post(`${base}/uploads`, { data: { name: "a.csv", sizeBytes: bytes.length } }));
  const taken = { uploadId: upload, options: { what: "features", epsg: null, nameColumn: "name" } };
  await request.put(`${base}/uploads/${upload}?at=0`, { data: bytes, headers: { "x-sha256": sha(bytes) } });
  const change = ((await (await request.get(`${base}/history`)).json()) as { changes: { id: number }[] }).changes[0]!.id;
  const about = encodeURIComponent(JSON.stringify({ siteId: null, fromWhere: "ground", bearingDeg: null, takenOn: null, note: "" }));
  const photo = await idOf(await request.post(`${base}/photos?about=${about}`, { data: PLAIN_PNG }));
  const before = await (await request.get(base)).text();

  const asks = (job: string): [string, string, unknown][] => [
    ["GET", "", undefined],
    ["GET", "/verdicts", undefined],
    ["GET", "/history", undefined],
    ["GET", "/imports", undefined],
    ["GET", "/datasets", undefined],
    ["GET", "/brief", undefined],
    ["GET", "/photos", undefined],
    ["GET", "/basemap", undefined],
    ["GET", "/events", undefined],
    ["GET", "/obstacles?westDeg=-26&southDeg=45&eastDeg=-24&northDeg=47", undefined],
    ["POST", "/terrain", WINDOW],
    ["POST", "/heights", { points: [[-25, 46]] }],
    ["POST", "/undo", { redo: false }],
    ["POST", "/bundle", {}],
    ["POST", "/export?what=sites&format=csv", {}],
    ["POST", "/sites", site("C", 46.2)],
    ["POST", "/uploads", { name: "a.csv", sizeBytes: 5 }],
    ...(job === mine ? [] : []),
  ];
  const nobody = randomUUID();
  for (const [method, path, data] of asks(nobody))
    expect((await request.fetch(`/api/jobs/${nobody}${path}`, { method, data: data as object })).status(), `${method} ${path}`).toBe(404);
  const strangers: [string, string, unknown][] = [
    ["PATCH", `/sites/${near}`, { version: 1, name: "Mine now" }],
    ["GET", `/links/${link.id}`, undefined],
    ["PATCH", `/links/${link.id}`, { version: 1, deleted: true }],
    ["GET", `/links/${link.id}/profile`, undefined],
    ["POST", `/links/${link.id}/designs`, {}],
    ["POST", `/links/${link.id}/places`, { end: "near", along: "points" }],
    ["POST", `/links/${link.id}/relay`, { siteId: near }],
    ["PATCH", `/designs/${link.design.id}`, { version: 1, nearPowerDbm: 9 }],
    ["PATCH", `/designs/${link.design.id}`, { version: 1, deleted: true }],
    ["PATCH", `/obstacles/${obstacle}`, { version: 1, deleted: true }],
    ["POST", `/obstacles/${obstacle}/split`, { version: 1, parts: [outline, outline] }],
    ["PATCH", `/features/${feature}`, { version: 1, deleted: true }],
    ["GET", `/photos/${photo}`, undefined],
    ["GET", `/photos/${photo}/file`, undefined],
    ["PATCH", `/photos/${photo}`, { version: 1, deleted: true }],
    ["GET", `/uploads/${upload}`, undefined],
    ["POST", `/uploads/${upload}/preview`, {}],
    ["POST", "/imports", taken],
    ["POST", "/links", { nearSiteId: near, farSiteId: far }],
    ["POST", "/history", { changeId: change }],
    ["PUT", "/basemap", { basemap: { kind: "pmtiles", name: "m", uploadId: upload } }],
  ];
  for (const [method, path, data] of strangers)
    expect((await request.fetch(`/api/jobs/${mine}${path}`, { method, data: data as object })).status(), `${method} ${path}`).toBe(404);
  const imported = await idOf(await request.post(`${base}/imports`, { data: taken }));
  expect((await request.post(`/api/jobs/${mine}/imports/${imported}`, { data: { action: "stop" } })).status()).toBe(404);
  expect(await (await request.get(base)).text()).toBe(before);
});

test("bad bodies are told by field, and none is the program's own fault", async ({ request }) => {
  const job = await newJob(request, "Bodies");
  const post = (body: string | Buffer) =>
    request.post(`/api/jobs/${job}/sites`, { data: Buffer.from(body), headers: { "content-type": "application/json" } });
  const told = async (body: string | Buffer, words: RegExp): Promise<void> => {
    const answer = await post(body);
    expect(answer.status(), String(body).slice(0, 80)).toBe(400);
    expect(JSON.stringify(await answer.json())).toMatch(words);
  };
  await told('{"name":"A\\u0000B","latDeg":46,"lonDeg":-25,"mountAglM":5}', /"path":"name".*cannot be kept/);
  await told('{"name":"A\\ud800","latDeg":46,"lonDeg":-25,"mountAglM":5}', /"path":"name".*half a letter/);
  await told('{"name":"A","latDeg":91,"lonDeg":-25,"mountAglM":5}', /"path":"latDeg"/);
  await told('{"name":', /is not JSON/);
  await told("[".repeat(5000) + "]".repeat(5000), /nested too deep/);
  await told(Buffer.from([0x22, 0xff, 0xfe, 0x22]), /not text in UTF-8/);
  await told(`{"name":"${"x".repeat(5_000_000)}"}`, /larger than/);
  const hardware = await request.post("/api/hardware", { data: Buffer.from('{"radios":[{"id":"a","name":"A\\u0000"}],"antennas":[]}') });
  expect(await hardware.json()).toMatchObject({ code: "invalid", path: "radios.0.name" });
  expect((await request.get(`/api/systems?q=a%00b`)).status()).toBe(400);
  expect((await request.get(`/api/jobs/${"x".repeat(40)}`)).status()).toBe(400);
  const bowTie = [
    [-25, 46],
    [-24.99, 46.01],
    [-24.99, 46],
    [-25, 46.01],
  ];
  const crossed = await request.post(`/api/jobs/${job}/obstacles`, {
    data: { kind: "wall", outline: bowTie, heightM: 3, surveyedOn: "2026-01-01" },
  });
  expect(await crossed.json()).toMatchObject({ code: "invalid", path: "outline", message: "the outline may not cross itself" });
});

test("an edit sent twice under one number is made once, also when both come at the same time", async ({ request }) => {
  const job = await newJob(request, "Twice");
  const headers = { "x-edit": randomUUID(), "x-client": "client-doors" };
  const send = () => request.post(`/api/jobs/${job}/sites`, { data: site("Once", 46.3), headers });
  const [first, second] = await Promise.all([send(), send()]);
  const third = await send();
  const ids = await Promise.all([first, second, third].map(idOf));
  expect(new Set(ids).size).toBe(1);
  const { sites } = (await (await request.get(`/api/jobs/${job}`)).json()) as { sites: unknown[] };
  expect(sites).toHaveLength(1);
  // One that was refused was not made: under the same number it may be made when it can.
  const other = { "x-edit": randomUUID() };
  const patch = (version: number) => request.patch(`/api/jobs/${job}/sites/${ids[0]}`, { data: { version, notes: "b" }, headers: other });
  expect((await patch(7)).status()).toBe(409);
  expect((await patch(1)).status()).toBe(200);
  expect(((await (await patch(1)).json()) as { version: number }).version).toBe(2);
});

test("a question as wide as the world is answered or refused soon, and others are answered meanwhile", async ({ request }) => {
  const { job } = await demoJob(request);
  const began = Date.now();
  const wide = request.post(`/api/jobs/${job.id}/terrain`, {
    data: { crs: "EPSG:32627", x0: -20_000_000, y0: 20_000_000, stepM: 10_000, cols: 1000, rows: 1000 },
  });
  const apart = request.post(`/api/jobs/${job.id}/heights`, {
    data: { points: Array.from({ length: 500 }, (_, i) => [-179 + (i % 50) * 7, -80 + Math.floor(i / 50) * 16]), outline: true },
  });
  expect((await request.get("/api/health")).status()).toBe(200);
  const [a, b] = await Promise.all([wide, apart]);
  expect([200, 422]).toContain(a.status());
  expect(b.status()).toBe(200);
  expect(Date.now() - began).toBeLessThan(30_000);
  expect((await request.post(`/api/jobs/${job.id}/terrain`, { data: { ...WINDOW, cols: 100_000 } })).status()).toBe(400);
});

test("a file comes in whole or not at all: pieces by checksum, repeats harmless, nothing cut", async ({ request }) => {
  const job = await newJob(request, "Pieces");
  const bytes = Buffer.from("name,lat,lon\na,46,-25\nb,46.1,-25\n");
  const id = await idOf(await request.post(`/api/jobs/${job}/uploads`, { data: { name: "a.csv", sizeBytes: bytes.length } }));
  const put = (at: number, piece: Buffer, sha256 = sha(piece)) =>
    request.put(`/api/jobs/${job}/uploads/${id}?at=${at}`, { data: piece, headers: { "x-sha256": sha256 } });
  const received = async (): Promise<number> =>
    ((await (await request.get(`/api/jobs/${job}/uploads/${id}`)).json()) as { receivedBytes: number }).receivedBytes;
  expect((await request.put(`/api/jobs/${job}/uploads/${id}?at=0`, { data: bytes })).status()).toBe(400);
  expect((await put(0, bytes.subarray(0, 10), sha(bytes))).status()).toBe(422);
  expect(await received()).toBe(0);
  expect((await put(0, bytes.subarray(0, 20))).status()).toBe(200);
  expect((await put(30, bytes.subarray(30))).status()).toBe(422);
  expect((await put(20, bytes.subarray(20))).status()).toBe(200);
  expect(await received()).toBe(bytes.length);
  // The first piece again, shorter: what is there stays.
  expect((await put(0, bytes.subarray(0, 5))).status()).toBe(200);
  expect(await received()).toBe(bytes.length);
  const seen = (await (await request.post(`/api/jobs/${job}/uploads/${id}/preview`, { data: {} })).json()) as { seen: number };
  expect(seen.seen).toBe(2);
  const huge = await request.post(`/api/jobs/${job}/uploads`, { data: { name: "a.tif", sizeBytes: 2_000_000_000 } });
  expect([200, 422]).toContain(huge.status());
  for (let i = 0; i < 3; i++) await request.post(`/api/jobs/${job}/uploads`, { data: { name: "a.tif", sizeBytes: 2_000_000_000 } });
  const over = (await (await request.post(`/api/jobs/${job}/uploads`, { data: { name: "a.tif", sizeBytes: 2_000_000_000 } })).json()) as {
    code: string;
  };
  expect(["quota-job", "disk-full"]).toContain(over.code);
});

/** A picture of one point. */
const PLAIN_PNG = Buffer.from("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==", "base64");

test("photos come back without what they said of themselves, under a policy that lets them do nothing", async ({ request }) => {
  const job = await newJob(request, "Photos");
  const chunk = (kind: string, data: Buffer): Buffer => {
    const length = Buffer.alloc(4);
    length.writeUInt32BE(data.length);
    return Buffer.concat([length, Buffer.from(kind), data, Buffer.alloc(4)]);
  };
  const told = Buffer.concat([
    PLAIN_PNG.subarray(0, 33),
    chunk("tEXt", Buffer.from("Author\0somebody at 47.3 north")),
    chunk("eXIf", Buffer.from("GPS")),
    PLAIN_PNG.subarray(33),
  ]);
  const about = encodeURIComponent(JSON.stringify({ siteId: null, fromWhere: "ground", bearingDeg: null, takenOn: null, note: "" }));
  const id = await idOf(await request.post(`/api/jobs/${job}/photos?about=${about}`, { data: told }));
  const back = await request.get(`/api/jobs/${job}/photos/${id}/file`);
  expect(Buffer.compare(await back.body(), PLAIN_PNG)).toBe(0);
  expect(back.headers()["content-security-policy"]).toBe("default-src 'none'; sandbox; frame-ancestors 'none'");
  expect(back.headers()["x-content-type-options"]).toBe("nosniff");
  expect((await request.post(`/api/jobs/${job}/photos?about=${about}`, { data: Buffer.from("<svg/>") })).status()).toBe(422);
});

test("the credit of a map is text: nothing in it becomes part of the page", async ({ page, request }) => {
  const job = await newJob(request, "Credit");
  const credit = '<a href="http://elsewhere.example" style="position:fixed;inset:0">all of it</a>';
  await request.put(`/api/jobs/${job}/basemap`, {
    data: { basemap: { kind: "xyz", name: "m", address: "http://127.0.0.1:1/{z}/{x}/{y}.png", credit } },
  });
  await page.goto(`/jobs/${job}/ground`);
  await expect(page.locator(".ol-attribution")).toContainText("all of it");
  expect(await page.locator('a[href*="elsewhere.example"]').count()).toBe(0);
  const tile = await request.get(`/api/jobs/${job}/basemap/tiles/3/4/2`);
  expect(await tile.json()).toMatchObject({ code: "map-inside" });
});
