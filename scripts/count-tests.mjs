// Reads the JSON report of Vitest or Playwright and prints "PASSED FAILED". A report with no test in it counts as a failure.
import { readFileSync } from 'node:fs'
const report = JSON.parse(readFileSync(process.argv[2], 'utf8'))
const [passed, failed] = report.stats
  ? [report.stats.expected + report.stats.flaky, report.stats.unexpected + report.errors.length]
  : [
      report.numPassedTests,
      report.numFailedTests +
        report.testResults.filter(r => r.status === 'failed' && r.assertionResults.length === 0).length,
    ]
console.log(`${passed} ${failed || (passed ? 0 : 1)}`)
