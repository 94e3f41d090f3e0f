import { docs } from './eslint.docs.js'
import js from '@eslint/js'
import prettier from 'eslint-config-prettier'
import n from 'eslint-plugin-n'
import vue from 'eslint-plugin-vue'
import globals from 'globals'
import ts from 'typescript-eslint'

/** Inside core, each room may use only those before it; `measure` may use all, nothing uses `measure`. */
const ROOMS = {
  time: [],
  chart: [],
  geometry: [],
  assets: ['geometry'],
  colour: [],
  raster: ['geometry', 'colour'],
  path: ['time', 'chart', 'geometry'],
  clip: ['time', 'geometry', 'raster'],
  sheets: ['geometry', 'raster'],
  sound: ['time'],
  models: ['geometry', 'assets'],
  motion: ['time', 'chart', 'geometry', 'path'],
  document: ['time', 'chart', 'geometry', 'assets', 'path', 'motion', 'clip', 'sound', 'colour'],
  work: ['time', 'chart', 'document'],
  measure: [
    'time',
    'chart',
    'geometry',
    'assets',
    'path',
    'motion',
    'clip',
    'sound',
    'colour',
    'raster',
    'models',
    'document',
    'work',
  ],
}

/** The client's folders, each of which may use those before it; so no ring of folders can come about. */
const CLIENT = [
  'words',
  'local',
  'api',
  'protocols',
  'paint',
  'strokes',
  'recipes',
  'pictures',
  'send',
  'workers',
  'sound',
  'clips',
  'sheets',
  'stores',
  'keys',
  'shared',
  'tools',
  'stands',
]
/** Rooms use all of these, and never one another. */
const CLIENT_ROOMS = [
  'bin',
  'desk',
  'flip',
  'measure',
  'nowhere',
  'plan',
  'send-off',
  'shelf',
  'shot',
  'sign-in',
  'telephone',
]

const SERVER_SIDE = ['@unhurried/server', '**/server/src/**', 'typeorm', 'koa']
const clientRules = [
  ...CLIENT.map((folder, i) => ({
    files: [`packages/web/src/${folder}/**/*.{ts,vue}`],
    away: [...CLIENT.slice(i + 1), 'rooms'].map(later => `**/${later}/**`),
    message: `${folder}/ may use ${CLIENT.slice(0, i).join(', ') || 'no other folder'}`,
  })),
  ...CLIENT_ROOMS.map(room => ({
    files: [`packages/web/src/rooms/${room}/**/*.{ts,vue}`],
    away: CLIENT_ROOMS.filter(other => other !== room).flatMap(other => [`../${other}/**`, `../../${other}/**`]),
    message: 'a room uses shared/ and what lies before it, never another room',
  })),
].map(({ files, away, message }) => ({
  files,
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          { group: SERVER_SIDE, message: 'the client never imports the server' },
          { group: away, message },
        ],
      },
    ],
  },
}))

const roomRules = Object.entries(ROOMS).map(([room, may]) => {
  const others = Object.keys(ROOMS).filter(other => other !== room && !may.includes(other))
  const group = others.flatMap(other => [`../${other}/*`, `../../${other}/*`])
  return {
    files: [`packages/core/src/${room}/**/*.ts`],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { group: [...group, '@unhurried/*'], message: `core/${room} may use ${may.join(', ') || 'no other room'}` },
          ],
        },
      ],
    },
  }
})

/** Inside the document of core: what a shot is, how it is changed, what a desk makes of that, and the acts on the sheet. */
const DOCUMENT = {
  model: [],
  elements: ['model'],
  operations: ['model', 'elements'],
  replica: ['model', 'elements', 'operations'],
  acts: ['model', 'elements', 'operations'],
}
const documentRules = Object.entries(DOCUMENT).map(([folder, may]) => {
  const others = Object.keys(DOCUMENT).filter(other => other !== folder && !may.includes(other))
  const rooms = Object.keys(ROOMS).filter(room => room !== 'document' && !ROOMS.document.includes(room))
  const group = [
    ...others.map(other => `../${other}/*`),
    ...rooms.flatMap(room => [`../../${room}/*`, `../../../${room}/*`]),
  ]
  return {
    files: [`packages/core/src/document/${folder}/**/*.ts`],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { group: [...group, '@unhurried/*'], message: `core/document/${folder} may use ${may.join(', ')}` },
          ],
        },
      ],
    },
  }
})

const forbid = (files, group, message) => ({
  files,
  rules: { 'no-restricted-imports': ['error', { patterns: [{ group, message }] }] },
})

/** The distance of two points is worked out in one place. */
const EUCLID = {
  selector:
    'CallExpression[callee.property.name="hypot"][arguments.0.type="BinaryExpression"][arguments.0.left.property.name="x"][arguments.0.right.property.name="x"]',
  message: 'the distance of two points is distance() of core/geometry',
}

export default ts.config(
  { ignores: ['**/dist/**', 'data/**', 'test-results/**', 'playwright-report/**'] },
  js.configs.recommended,
  ...ts.configs.strict,
  ...vue.configs['flat/recommended'],
  prettier,
  {
    files: ['packages/*/src/**/*.ts'],
    ignores: ['packages/core/src/geometry/point.ts'],
    rules: { 'no-restricted-syntax': ['error', EUCLID] },
  },
  {
    files: ['**/*.vue'],
    rules: {
      'no-restricted-syntax': [
        'error',
        EUCLID,
        {
          selector: 'Property[key.name="kind"] > Literal[value=/^[a-z]+[.][a-z]+$/]',
          message: 'components build no operations: an act of core does, or of the room',
        },
      ],
    },
  },
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: ts.parser } },
  },
  {
    // What is longer cannot be read alone.
    files: ['packages/*/src/**/*.{ts,vue}'],
    ignores: ['**/*.test.ts'],
    rules: { 'max-lines-per-function': ['error', { max: 100, skipBlankLines: true, skipComments: true }] },
  },
  {
    rules: {
      'no-undef': 'off',
      'no-control-regex': 'off',
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-extraneous-class': 'off',
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-invalid-void-type': 'off',
      '@typescript-eslint/no-dynamic-delete': 'off',
      'prefer-const': ['error', { destructuring: 'all' }],
      eqeqeq: 'error',
      'vue/multi-word-component-names': 'off',
      // Keys can be changed: what names them asks the command.
      'vue/no-restricted-static-attribute': [
        'error',
        {
          key: 'title',
          value: '/(^|[^a-z])(Ctrl|Alt|Shift|Esc|Del|Enter|Space)([^a-z]|$)|^[A-Z]$|\\( . \\)/',
          message: 'a tip with a key in it comes from commands.tip()',
        },
      ],
    },
  },
  {
    files: ['packages/*/src/**/*.{ts,vue}'],
    ignores: ['**/*.test.ts', '**/tests/**'],
    plugins: { n },
    rules: { 'n/no-extraneous-import': ['error', { allowModules: ['@jest/globals'] }] },
    settings: { n: { tryExtensions: ['.ts', '.vue'] } },
  },
  {
    files: ['packages/core/src/**/*.ts', 'packages/contract/src/**/*.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'pass the moment in' },
        { object: 'Math', property: 'random', message: 'pass a seed in' },
      ],
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'process',
        'performance',
        'crypto',
        'setTimeout',
        'fetch',
        'Buffer',
      ],
    },
  },
  {
    // `document` is the name of a value everywhere in core; only the browser's global is meant above.
    files: ['packages/core/src/document/**/*.ts', 'packages/core/src/work/**/*.ts'],
    rules: {
      'no-restricted-globals': ['error', 'window', 'process', 'performance', 'crypto', 'setTimeout', 'fetch', 'Buffer'],
    },
  },
  ...roomRules,
  ...documentRules,
  {
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.test.ts', '**/tests/**'],
    plugins: { docs },
    rules: { 'docs/exported': 'error' },
  },
  forbid(
    ['packages/contract/src/**/*.ts'],
    ['@unhurried/web', '@unhurried/server', '../../server/*', '../../web/*'],
    'contract uses core only',
  ),
  forbid(['packages/server/**/*.ts'], ['@unhurried/web', '**/web/src/**'], 'the server never imports the client'),
  forbid(
    ['packages/server/src/services/**/*.ts', 'packages/server/src/db/**/*.ts', 'packages/server/src/problems/**/*.ts'],
    ['@unhurried/web', '**/web/src/**', '../http/**'],
    'what is done knows nothing of how it is asked for over http',
  ),
  forbid(['packages/web/**/*.{ts,vue}'], SERVER_SIDE, 'the client never imports the server'),
  ...clientRules,
  { files: ['**/*.mjs', '*.js'], languageOptions: { globals: globals.node } },
)
