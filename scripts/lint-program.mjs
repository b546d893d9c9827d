import { readFileSync } from 'node:fs'
import { extname } from 'node:path'
import ts from 'typescript'
import tseslint from 'typescript-eslint'

/**
 * The whole repository as one TypeScript program, with the script of every .vue file in it.
 *
 * ESLint's own way of having types makes the checker anew for every .vue file, since a component's text is not what
 * stands on the disk; over a hundred components that is two minutes. Here the program is made once, with just the text
 * that vue-eslint-parser hands on: what stands between `<script …>` and `</script>`. It holds for one run only, so an
 * editor, whose files change under it, keeps ESLint's own way.
 */
function programOf(configFile) {
  const { config } = ts.readConfigFile(configFile, ts.sys.readFile)
  const vue = [{ extension: '.vue', isMixedContent: true, scriptKind: ts.ScriptKind.Deferred }]
  const parsed = ts.parseJsonConfigFileContent(config, ts.sys, process.cwd(), {}, configFile, undefined, vue)
  const options = { ...parsed.options, allowNonTsExtensions: true, noEmit: true }
  const host = ts.createCompilerHost(options, true)
  const readTypeScript = host.getSourceFile
  host.getSourceFile = (name, target, ...rest) =>
    extname(name) === '.vue'
      ? ts.createSourceFile(name, scriptOf(readFileSync(name, 'utf8')), target, true, ts.ScriptKind.TS)
      : readTypeScript(name, target, ...rest)
  return ts.createProgram(parsed.fileNames, options, host)
}

const script = /<script[^>]*?(?: generic="(\w+) extends ([^",]+)")?>([\s\S]*?)<\/script>/
/** What vue-eslint-parser hands on of a component; a type parameter stands in front of it, as there. */
function scriptOf(component) {
  const [, name, bound, text = ''] = script.exec(component) ?? []
  return name ? `type ${name} =  ${bound};\n${text}` : text
}

/**
 * A parser of TypeScript for ESLint that has its types from one program. Expressions of a template, which stand in no
 * program, are parsed without types, as ESLint does it too; a text that is not the program's goes ESLint's own way.
 */
export function parserWithProgram(configFile) {
  const program = programOf(configFile)
  return {
    ...tseslint.parser,
    parseForESLint(code, options) {
      const known = options.project && program.getSourceFile(options.filePath)?.text === code
      return tseslint.parser.parseForESLint(
        code,
        known ? { ...options, project: undefined, programs: [program] } : options,
      )
    },
  }
}
