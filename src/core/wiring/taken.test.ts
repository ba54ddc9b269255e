import fc from "fast-check";
import { expect, test } from "vitest";
import { portVlans, readTaken, wire } from ".";
import { cleanEnd, lead, PARTS, place } from "./testing/ends";

test("what ip neigh printed: those that answered, with their ports; failed ones and IPv6 are nobody's", () => {
  const text = [
    "192.168.41.1 dev eth0 lladdr 02:00:5e:00:53:01 REACHABLE",
    "192.168.41.12 dev eth0 lladdr 02:00:5e:00:53:0c STALE",
    "192.168.41.77 dev eth0 FAILED",
    "192.168.41.78 dev eth0  INCOMPLETE",
    "fe80::1 dev eth0 lladdr 02:00:5e:00:53:01 router STALE",
    "",
  ].join("\n");
  expect(readTaken(text)).toEqual({
    taken: [
      { address: "192.168.41.1", mac: "02:00:5e:00:53:01", name: "" },
      { address: "192.168.41.12", mac: "02:00:5e:00:53:0c", name: "" },
    ],
    faults: [],
  });
});

test("what arp -a printed, in both its ways", () => {
  const { taken, faults } = readTaken(
    "printer.local (192.168.41.9) at 2:0:5e:0:53:9 on en0 ifscope [ethernet]\r\n? (192.168.41.10) at (incomplete) on en0\r\n  192.168.41.11         02-00-5e-00-53-0b     dynamic\r\nInterface: 192.168.41.5 --- 0x4\r\n  Internet Address      Physical Address      Type\r\n",
  );
  expect(taken).toEqual([
    { address: "192.168.41.9", mac: "02:00:5e:00:53:09", name: "printer.local" },
    { address: "192.168.41.11", mac: "02:00:5e:00:53:0b", name: "" },
  ]);
  expect(faults).toEqual([]);
});

test("a table, with its heading; what is no address is told by its line, and twice is once", () => {
  const { taken, faults } = readTaken(
    'address,mac,name\n10.0.0.2,02:00:5e:00:53:02,"Old camera"\n10.0.0.2,,again\n10.0.0.300,,x\nnothing here\n',
  );
  expect(taken).toEqual([{ address: "10.0.0.2", mac: "02:00:5e:00:53:02", name: "Old camera" }]);
  expect(faults).toEqual([
    { line: 4, text: "10.0.0.300,,x" },
    { line: 5, text: "nothing here" },
  ]);
});

test("no text makes it fail, or find what is not there", () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 400 }), (text) => {
      for (const t of readTaken(text).taken) expect(text.replace(/(^|[^\d])0+(?=\d)/g, "$1")).toContain(t.address);
    }),
    { numRuns: 1000 },
  );
});

test("ports of a switch: untagged to a device of its network, tagged to where several go on, management untagged to an access point", () => {
  const g = cleanEnd();
  const w = wire(
    {
      ...g,
      places: [...g.places, place("ap", "access-point", "shoal"), place("second", "switch", "thrift-5")],
      leads: [...g.leads, lead("a", "switch/5", "ap/1", "kelp-indoor", 9), lead("s", "switch/10", "second/1", "kelp-cord", 2)],
    },
    PARTS,
  );
  const vlan = (id: string): number | null => (id.startsWith("camera") ? 20 : id === "phone" ? 40 : 10);
  const ports = portVlans(w, vlan, [10, 20, 30, 40], 10).filter((p) => p.placeId === "switch");
  const of = (port: string) => ports.find((p) => p.port === port);
  expect(of("1")).toMatchObject({ to: "camera-1", untagged: 20, tagged: [] });
  expect(of("4")).toMatchObject({ to: "phone", untagged: 40, tagged: [] });
  expect(of("5")).toMatchObject({ to: "ap", untagged: 10, tagged: [20, 30, 40] });
  expect(of("9")).toMatchObject({ to: "injector", untagged: 10, tagged: [20, 30, 40] });
  expect(of("10")).toMatchObject({ to: "second", untagged: null, tagged: [10, 20, 30, 40] });
  expect(ports.map((p) => p.port)).toEqual(["1", "2", "3", "4", "5", "9", "10"]);
});
