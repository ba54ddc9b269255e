// Sums test reports (vitest's and playwright's JSON) into one closing line.
import { existsSync, readFileSync } from "node:fs";

let passed = 0;
let failed = 0;
let skipped = 0;
for (const file of process.argv.slice(2)) {
  if (!existsSync(file)) continue;
  const report = JSON.parse(readFileSync(file, "utf8"));
  if (report.stats !== undefined) {
    passed += report.stats.expected;
    failed += report.stats.unexpected + report.stats.flaky;
    skipped += report.stats.skipped;
  } else {
    passed += report.numPassedTests;
    failed += report.numFailedTests;
    skipped += report.numPendingTests + report.numTodoTests;
  }
}
console.log(`${passed} passed, ${failed} failed${skipped > 0 ? `, ${skipped} skipped` : ""}`);
if (passed === 0) process.exitCode = 1;
