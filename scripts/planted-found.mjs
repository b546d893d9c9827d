// Reads what ESLint told of everything: in each planted file its own fault must be found, and elsewhere nothing.
import { readFileSync } from 'node:fs'

const [report, ...plants] = process.argv.slice(2)
const results = JSON.parse(readFileSync(report, 'utf8'))
const planted = results.filter(({ filePath }) => plants.some(plant => filePath.endsWith(plant)))
const faults = plants.flatMap(plant => {
  const rule = plant.endsWith('.vue') ? '@typescript-eslint/no-floating-promises' : 'no-restricted-imports'
  const told = planted.find(({ filePath }) => filePath.endsWith(plant))?.messages ?? []
  return told.some(({ ruleId }) => ruleId === rule) ? [] : [`ESLint found nothing of ${rule} in ${plant}`]
})
for (const { filePath, messages } of results)
  if (!plants.some(plant => filePath.endsWith(plant)))
    for (const { line, ruleId, message } of messages) faults.push(`${filePath}:${line} ${ruleId}: ${message}`)
if (results.length < 300) faults.push(`ESLint looked at ${results.length} files alone`)
for (const fault of faults) console.error(fault)
process.exit(faults.length === 0 ? 0 : 1)
