import tseslint from 'typescript-eslint'
import vue from 'eslint-plugin-vue'
import prettier from 'eslint-config-prettier'
import { parserWithProgram } from './scripts/lint-program.mjs'

// An editor's files change under it, so it takes its types the usual way; `npm run lint` looks once, and fast.
const parser = process.env.LINT_ONCE ? parserWithProgram('tsconfig.lint.json') : tseslint.parser

// Imports go one way: core knows nobody; shared knows core; server and app know both and never each other.
const fence = (files, banned, message) => ({
  files,
  rules: {
    'no-restricted-imports': [
      'error',
      { patterns: banned.map(group => ({ group: [group].flat(), message })) },
    ],
  },
})
const reach = name => [`**/${name}/**`, `~~/${name}/**`, `#${name}/**`]
const impure = [
  'vue',
  'nuxt',
  'nuxt/*',
  'pinia',
  'knex',
  'mysql2',
  'mysql2/*',
  'h3',
  'node:*',
  'fs',
  'path',
  'crypto',
  'element-plus',
  'element-plus/*',
  '#imports',
  '#app',
]

export default tseslint.config(
  {
    ignores: [
      '.nuxt/**',
      '.output/**',
      '.data/**',
      'node_modules/**',
      'test-results/**',
      'playwright-report/**',
    ],
  },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser } },
    rules: { 'vue/multi-word-component-names': 'off', 'vue/require-default-prop': 'off' },
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-explicit-any': 'error',
      eqeqeq: 'error',
    },
  },
  { files: ['**/*.vue', '**/*.ts'], rules: { 'no-undef': 'off' } },
  { files: ['**/*.ts'], languageOptions: { parser } },
  // What only types can tell.
  {
    files: ['**/*.ts', 'app/**/*.vue'],
    ignores: ['nuxt.config.ts'],
    plugins: { '@typescript-eslint': tseslint.plugin },
    languageOptions: {
      parserOptions: {
        project: './tsconfig.lint.json',
        tsconfigRootDir: import.meta.dirname,
        extraFileExtensions: ['.vue'],
      },
    },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true },
      ],
      '@typescript-eslint/no-unnecessary-type-assertion': 'error',
    },
  },
  {
    // A where(query => …) of Knex gives its builder back, which can be awaited and is not here.
    files: ['server/**/*.queries.ts'],
    rules: {
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { arguments: false } }],
    },
  },
  // SQL stands with the queries of its subject, or in db/.
  {
    files: ['server/**/*.ts'],
    ignores: ['server/**/*.queries.ts', 'server/db/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'CallExpression[callee.name=/^(db|trx)$/]',
          message: 'SQL stands in *.queries.ts or server/db',
        },
        {
          selector:
            'CallExpression[callee.object.name=/^(db|trx)$/][callee.property.name=/^(raw|select|from|table|with)$/]',
          message: 'SQL stands in *.queries.ts or server/db',
        },
        {
          selector: 'TaggedTemplateExpression[tag.name="sql"]',
          message: 'SQL stands in *.queries.ts or server/db',
        },
      ],
    },
  },
  fence(
    ['core/**/*.ts'],
    [reach('server'), reach('app'), reach('shared'), impure],
    'core is pure and knows nobody',
  ),
  {
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        'process',
        'window',
        'document',
        'fetch',
        'setTimeout',
        'setInterval',
        'localStorage',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random' },
        { object: 'Date', property: 'now' },
      ],
    },
  },
  { files: ['core/**/*.test.ts'], rules: { 'no-restricted-imports': 'off' } },
  fence(['shared/**/*.ts'], [reach('server'), reach('app')], 'shared knows core only'),
  fence(['server/**/*.ts'], [reach('app')], 'server and app never know each other'),
  fence(['app/**/*.{ts,vue}'], [reach('server')], 'server and app never know each other'),
  // How a line looks is Prettier's.
  prettier,
)
