// Sums test reports (vitest's and playwright's JSON) into one closing line, after the names of the tests that failed and why.
import { existsSync, readFileSync } from "node:fs";

const WHY_LINES = 12;

let passed = 0;
let failed = 0;
let skipped = 0;
/** @type {{ where: string, what: string, why: string }[]} */
const fallen = [];

/** The tests of a playwright suite and of those inside it. */
function specsOf(suite) {
  return [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specsOf)];
}

function readPlaywright(report) {
  passed += report.stats.expected;
  failed += report.stats.unexpected + report.stats.flaky;
  skipped += report.stats.skipped;
  for (const spec of report.suites.flatMap(specsOf).filter((one) => !one.ok))
    fallen.push({
      where: `${spec.file}:${spec.line}`,
      what: spec.title,
      why: spec.tests.flatMap((test) => test.results.map((result) => result.error?.message ?? "")).join("\n"),
    });
}

function readVitest(report) {
  passed += report.numPassedTests;
  failed += report.numFailedTests;
  skipped += report.numPendingTests + report.numTodoTests;
  for (const file of report.testResults) {
    const tests = file.assertionResults.filter((one) => one.status === "failed");
    for (const test of tests) fallen.push({ where: file.name, what: test.fullName, why: test.failureMessages.join("\n") });
    if (file.status === "failed" && tests.length === 0) fallen.push({ where: file.name, what: "the file itself", why: file.message });
  }
}

for (const file of process.argv.slice(2)) {
  if (!existsSync(file)) continue;
  const report = JSON.parse(readFileSync(file, "utf8"));
  if (report.stats === undefined) readVitest(report);
  else readPlaywright(report);
}
for (const { where, what, why } of fallen) {
  console.log(`failed: ${where} › ${what}`);
  for (const line of why.trim().split("\n").slice(0, WHY_LINES)) console.log(`    ${line}`);
}
console.log(`${passed} passed, ${failed} failed${skipped > 0 ? `, ${skipped} skipped` : ""}`);
if (passed === 0) process.exitCode = 1;
