import { expect, test } from "vitest";
import { callState } from "./calls";

const when = (): string => "3 Dec, 10:15";
const base = { paused: false, failures: 0, lastAnswer: "", due: 0, dropped: 0, nextAt: "", lastOkAt: null };

test.each([
  [{}, "nothing to tell yet"],
  [{ lastOkAt: "x" }, "all taken"],
  [{ lastOkAt: "x", due: 1 }, "being told; 1 change waits"],
  [{ failures: 2, lastAnswer: "answered 500", due: 3 }, "not taken: answered 500; again 3 Dec, 10:15; 3 changes wait"],
  [
    { paused: true, failures: 15, lastAnswer: "it cannot be reached", due: 3, dropped: 1 },
    "given up after 15 tries: it cannot be reached. Mend it, then call it now; 3 changes wait; 1 waited for over a week and was never told",
  ],
])("calls that stand as %j are told as %s", (more, words) => {
  expect(callState({ ...base, ...more }, when)).toBe(words);
});
