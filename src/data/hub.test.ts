/* A hub and the designs of its links, on a real PostgreSQL: what a sector is set to, all that hang on it are. */
import { expect, test } from "vitest";
import type { HubDto } from "../contract";
import { asClient } from "./actor";
import { VersionClash } from "./clash";
import { listRadios } from "./hardware";
import { undoLast } from "./history";
import { linksOf } from "./jobs";
import { createLink } from "./links";
import { testDb } from "./testing/db";
import { create, createJob, patch, plainDesign } from "./testing/edits";

const db = testDb();
const CLIENT = "client-hub";

/** A mast with three links that go out from it, one of them told from its other end, and one link of other sites. */
const mast = async () => {
  const job = await createJob(db, "Hub", { centreLatDeg: 44, centreLonDeg: -34 });
  const sites: { id: string }[] = [];
  for (const i of [0, 1, 2, 3])
    sites.push(await create(db, job.id, "site", { name: `S${i}`, latDeg: 44 + i / 100, lonDeg: -34, mountAglM: 6 }));
  const [radio] = await listRadios(db);
  const design = plainDesign(radio!.id);
  const join = (a: number, b: number) => createLink(db, job.id, { nearSiteId: sites[a]!.id, farSiteId: sites[b]!.id, label: "", design });
  const links = [await join(0, 1), await join(2, 0), await join(0, 3), await join(1, 2)];
  const sector = { id: "a", radioId: radio!.id, azimuthDeg: 10, tiltDeg: -3, centreMhz: 5580, widthMhz: 40, powerDbm: 11 };
  const make = (remotes: readonly number[]) =>
    asClient(CLIENT, () =>
      create(db, job.id, "hub", {
        siteId: sites[0]!.id,
        mountAglM: 14,
        sectors: [sector, { ...sector, id: "b", azimuthDeg: 190 }],
        remotes: remotes.map((i) => ({ linkId: links[i]!.id, sectorId: i === 2 ? "b" : "a" })),
      }),
    );
  const designs = async () => (await linksOf(db, job.id)).map((l) => l.design);
  return { job, links, make, designs };
};

test("made, it changes no link; changed, its links follow at the hub's own end, whichever that is, and others stay", async () => {
  const { make, designs } = await mast();
  const before = await designs();
  const made = (await make([0, 1, 2])) as HubDto;
  expect(await designs()).toEqual(before);
  const hub = await patch(db, "hub", made.id, made.version, { mountAglM: 15 });
  const [a, b, c, other] = await designs();
  expect(a).toMatchObject({
    nearMountAglM: 15,
    nearAimAzimuthDeg: 10,
    nearAimTiltDeg: -3,
    nearPowerDbm: 11,
    centreMhz: 5580,
    widthMhz: 40,
  });
  expect(a).toMatchObject({ farMountAglM: 6, farPowerDbm: 5, farAimAzimuthDeg: null });
  expect(b).toMatchObject({ farMountAglM: 15, farAimAzimuthDeg: 10, farPowerDbm: 11, nearMountAglM: 6, centreMhz: 5580 });
  expect(c).toMatchObject({ nearAimAzimuthDeg: 190 });
  expect(other).toEqual(before[3]);

  const turned = hub.sectors.map((s) => (s.id === "a" ? { ...s, azimuthDeg: 25 } : s));
  await patch(db, "hub", hub.id, hub.version, { sectors: turned });
  const after = await designs();
  expect([after[0]!.nearAimAzimuthDeg, after[1]!.farAimAzimuthDeg, after[2]!.nearAimAzimuthDeg]).toEqual([25, 25, 190]);
  // Nothing of a link is written that did not change.
  expect(after[2]!.version).toBe(c!.version);
});

test("one undo takes back the hub and all its links together; what stands at another version clashes and changes nothing", async () => {
  const { job, make, designs } = await mast();
  const before = await designs();
  const hub = (await make([0, 1, 2])) as HubDto;
  await asClient(CLIENT, () => patch(db, "hub", hub.id, hub.version, { mountAglM: 20 }));
  expect((await designs())[0]!.nearMountAglM).toBe(20);
  await expect(patch(db, "hub", hub.id, hub.version, { mountAglM: 30 })).rejects.toThrow(VersionClash);
  expect((await designs())[0]!.nearMountAglM).toBe(20);
  await asClient(CLIENT, () => undoLast(db, job.id));
  const plain = (list: Awaited<ReturnType<typeof designs>>) => list.map(({ version: _v, updatedAt: _u, ...d }) => d);
  expect(plain(await designs())).toEqual(plain(before));
});

test("a link that ends elsewhere, a sector that is none, and a link twice are refused, and nothing is written", async () => {
  const { make, designs } = await mast();
  const before = await designs();
  await expect(make([0, 3])).rejects.toMatchObject({ code: "hub-remote" });
  await expect(make([0, 0])).rejects.toThrow(/hangs on the hub already/);
  expect(await designs()).toEqual(before);
  const hub = (await make([0])) as HubDto;
  await expect(patch(db, "hub", hub.id, hub.version, { remotes: [{ linkId: hub.remotes[0]!.linkId, sectorId: "z" }] })).rejects.toThrow(
    /names a sector that the hub lacks/,
  );
});
