// @ts-check
import withNuxt from './.nuxt/eslint.config.mjs'
import { readFileSync } from 'node:fs'

/** The rooms of the core from the ground up: a room imports only rooms that stand before it. */
const ROOMS = JSON.parse(readFileSync(new URL('core/rooms.json', import.meta.url), 'utf8'))

const forbid = (group, message) => ({ group, message })
const OWN = forbid(
  ROOMS.flatMap((r) => [`../${r}`, `../${r}/*`, `../../${r}`, `../../${r}/*`]),
  'Another room is imported by its name: #core/room.',
)
const IO = [
  '**/app/**',
  '**/server/**',
  '**/shared/**',
  '**/demo/**',
  'node:*',
  'vue',
  'pinia',
  'element-plus',
  'chart.js',
  '\\#shared/*',
  '\\#imports',
  '\\#app',
  '~/*',
  '@/*',
]

/** Arrows of the core: pure, and from plan down to the kernels. Only the document room knows Zod. */
const arrows = ROOMS.map((room, i) => ({
  files: [`core/${room}/**/*.ts`],
  ignores: ['core/**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          OWN,
          forbid(
            [...IO, ...(room === 'document' ? [] : ['zod'])],
            'The core is pure: no interface, no I/O, nothing of ours but the core.',
          ),
          forbid(
            // patterns are those of .gitignore, in which a bare # begins a comment
            ROOMS.slice(i).flatMap((r) => [`\\#core/${r}`, `\\#core/${r}/*`]),
            'An arrow up, or through the own index: a room imports only rooms below it.',
          ),
        ],
      },
    ],
  },
}))

/** Arrows of the rest: app and server stand on shared and core, and do not know each other or the demo. */
const between = (folder, not) => ({
  files: [`${folder}/**/*.{ts,vue}`],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          forbid(
            not.map((n) => `**/${n}/**`),
            `${folder} must not import ${not.join(', ')}.`,
          ),
        ],
      },
    ],
  },
})

export default withNuxt(
  { ignores: ['.output/**', '.cache/**', 'tests/handbook/cases/**'] },
  {
    rules: {
      'max-len': ['error', { code: 140, ignoreUrls: true }],
      // an interface that only names what a schema infers
      '@typescript-eslint/no-empty-object-type': ['error', { allowInterfaces: 'with-single-extends' }],
      'vue/multi-word-component-names': 'off',
      // Prettier’s
      'vue/max-attributes-per-line': 'off',
      'vue/html-self-closing': 'off',
    },
  },
  { files: ['tests/e2e/**/*.ts'], rules: { 'no-empty-pattern': 'off' } },
  ...arrows,
  between('app', ['server', 'demo', 'tests']),
  between('server', ['app', 'demo', 'tests']),
  between('shared', ['app', 'server', 'demo', 'tests']),
)
