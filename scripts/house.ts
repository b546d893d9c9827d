// npm run house : measures how the code reads. Ends with 1 where a figure is over its target; `-v` names the places.
import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { parse } from '@vue/compiler-sfc'
import ts from 'typescript'

const longest = 160
const files = execFileSync('git', ['ls-files', '-co', '--exclude-standard', '*.ts', '*.vue'], {
  encoding: 'utf8',
})
  .split('\n')
  .filter(file => file !== '' && !file.startsWith('demo/make/prose'))
const isTest = (file: string): boolean => file.startsWith('tests/') || file.includes('.test.')

type Measure = 'long lines' | 'assertions and casts' | 'nested ternaries'
const found: Record<Measure, string[]> = {
  'long lines': [],
  'assertions and casts': [],
  'nested ternaries': [],
}
const functions = new Map<string, Set<string>>()
let lines = 0
let productLines = 0

/** The TypeScript of a file: of a page, its script and what its template computes, each with the line it starts on. */
function scriptsOf(file: string, text: string): { code: string; line: number }[] {
  if (!file.endsWith('.vue')) return [{ code: text, line: 1 }]
  const { descriptor } = parse(text)
  const script = descriptor.scriptSetup
  const computed = [
    ...(descriptor.template?.content ?? '').matchAll(/\{\{([\s\S]*?)\}\}|[:@#][\w.:-]+="([^"]*)"/g),
  ]
  const start = descriptor.template?.loc.start.line ?? 1
  return [
    ...(script ? [{ code: script.content, line: script.loc.start.line }] : []),
    ...computed.map(match => ({
      code: `(${match[1] ?? match[2] ?? ''})`,
      line: start + (descriptor.template?.content.slice(0, match.index).split('\n').length ?? 1) - 1,
    })),
  ]
}
const isConst = (node: ts.AsExpression): boolean => node.type.getText() === 'const'
const isExported = (node: ts.FunctionDeclaration | ts.VariableStatement): boolean =>
  node.modifiers?.some(modifier => modifier.kind === ts.SyntaxKind.ExportKeyword) ?? false
function isExportedFunction(node: ts.Node): node is ts.FunctionDeclaration | ts.VariableDeclaration {
  if (ts.isFunctionDeclaration(node)) return isExported(node)
  return (
    ts.isVariableDeclaration(node) &&
    node.initializer !== undefined &&
    ts.isArrowFunction(node.initializer) &&
    ts.isVariableStatement(node.parent.parent) &&
    isExported(node.parent.parent)
  )
}
function look(file: string, code: string, line: number): void {
  const source = ts.createSourceFile(file, code, ts.ScriptTarget.Latest, true, ts.ScriptKind.TS)
  const visit = (node: ts.Node): void => {
    const at = `${file}:${line + source.getLineAndCharacterOfPosition(node.getStart()).line}`
    if (
      ts.isNonNullExpression(node) ||
      ts.isTypeAssertionExpression(node) ||
      (ts.isAsExpression(node) && !isConst(node))
    )
      found['assertions and casts'].push(at)
    if (ts.isConditionalExpression(node)) {
      const parts = [node.condition, node.whenTrue, node.whenFalse]
      const bare = parts.map(part => (ts.isParenthesizedExpression(part) ? part.expression : part))
      if (bare.some(ts.isConditionalExpression)) found['nested ternaries'].push(at)
    }
    if (isExportedFunction(node) && node.name && ts.isIdentifier(node.name)) {
      const places = functions.get(node.name.text) ?? new Set()
      functions.set(node.name.text, places.add(at))
    }
    ts.forEachChild(node, visit)
  }
  visit(source)
}
for (const file of files) {
  const text = readFileSync(file, 'utf8')
  const all = text.split('\n')
  lines += all.length
  all.forEach((line, at) => {
    if (line.length > longest) found['long lines'].push(`${file}:${at + 1}`)
  })
  if (isTest(file)) continue
  productLines += all.length
  for (const { code, line } of scriptsOf(file, text)) look(file, code, line)
}
const twice = [...functions].filter(([, places]) => places.size > 1)

const rows = [
  ['lines over 160 characters, %', (100 * found['long lines'].length) / lines, 1],
  ['! and casts per 1,000 lines', (1000 * found['assertions and casts'].length) / productLines, 8],
  ['nested ternaries per 1,000 lines', (1000 * found['nested ternaries'].length) / productLines, 1],
  ['exported names of two functions', twice.length, 1],
] as const
console.log(`${files.length} files, ${lines} lines, ${productLines} of them not tests`)
for (const [name, value, most] of rows)
  console.log(
    `${value < most ? 'ok  ' : 'OVER'}  ${name.padEnd(34)} ${value.toFixed(2).padStart(6)}  (under ${most})`,
  )
if (process.argv.includes('-v')) {
  for (const [name, places] of Object.entries(found)) console.log(`\n${name}\n  ${places.join('\n  ')}`)
  console.log(`\nexported names of two functions`)
  for (const [name, places] of twice) console.log(`  ${name}: ${[...places].join(', ')}`)
}
if (rows.some(([, value, most]) => value >= most)) process.exitCode = 1
