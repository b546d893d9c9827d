// Reads the JSON report of Vitest or Playwright and prints "PASSED FAILED"; what failed is named on stderr. A report with no test in it is a failure.
import { readFileSync } from 'node:fs'
const report = JSON.parse(readFileSync(process.argv[2], 'utf8'))
const inSuites = suites =>
  suites.flatMap(({ title, specs = [], suites: within = [] }) =>
    [...specs.filter(({ ok }) => !ok).map(spec => spec.title), ...inSuites(within)].map(
      name => `${title} > ${name}`,
    ),
  )
const ofPlaywright = ({ stats, errors, suites }) => ({
  passed: stats.expected + stats.flaky,
  failed: stats.unexpected + errors.length,
  names: [...inSuites(suites), ...errors.map(({ message }) => message)],
})
const ofVitest = ({ numPassedTests, numFailedTests, testResults }) => {
  const broken = testResults.filter(r => r.status === 'failed' && r.assertionResults.length === 0)
  const names = testResults.flatMap(({ name, assertionResults }) =>
    assertionResults.filter(({ status }) => status === 'failed').map(each => `${name} > ${each.fullName}`),
  )
  return {
    passed: numPassedTests,
    failed: numFailedTests + broken.length,
    names: [...names, ...broken.map(({ name, message }) => `${name}: ${message}`)],
  }
}
const { passed, failed, names } = report.stats ? ofPlaywright(report) : ofVitest(report)
for (const name of names) console.error(`FAILED  ${name}`)
console.log(`${passed} ${failed || (passed ? 0 : 1)}`)
