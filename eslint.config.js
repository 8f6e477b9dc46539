import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import { createNodeResolver, importX } from 'eslint-plugin-import-x';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Capabilities of core, lowest first: the computations of one may use those of the floors below it. */
const capabilities = [
  ['catalogue', 'places'],
  ['racks'],
  ['cabling'],
  ['switching', 'addressing'],
  ['routing'],
  ['cloud'],
  ['sheets'],
];
/** What every capability rests on, lowest first. */
const bases = ['model', 'change', 'lens'];
/** Parts of a capability, lowest first, with the folder of what all capabilities share of such a part. */
const parts = [['commands'], ['projection'], ['checks', 'reports'], ['exchange']];
const sharedFolder = { commands: 'commands', checks: 'check', reports: 'report', exchange: 'exchange' };

const allCapabilities = capabilities.flat();
const allParts = parts.flat();
const allShared = Object.values(sharedFolder);
const anyOf = (names) => `(?:${[...new Set(names)].join('|')})`;
/** Imports of a folder at the top of core. */
const foldersOf = (names) => `^(?:\\.\\./)+${anyOf(names)}/`;
/** Imports of a part of any capability. */
const partsOf = (names) => `^\\.{1,2}/(?:\\.\\./)*(?:[a-z]+/)?${anyOf(names)}/`;
const coreRule = (folders, banned, message) => ({
  files: folders.map((folder) => `packages/core/src/${folder}/**/*.ts`),
  ignores: ['**/*.test.ts', 'packages/core/src/*/index.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          ...banned.map((regex) => ({ regex, message })),
          {
            group: ['**/index.ts', '!**/builtIn/index.ts', '!**/constraints/index.ts'],
            message: 'Entry points are for other packages.',
          },
          { group: ['**/testing/**'], message: 'That is for tests.' },
          {
            group: ['node:*', 'react', 'react-dom', '@visograph/*'],
            message: 'core has no I/O, no DOM and imports nothing of ours.',
          },
        ],
      },
    ],
  },
});
const floorRules = [
  ...bases.map((base, level) =>
    coreRule(
      [base],
      [foldersOf([...bases.slice(level + 1), ...allCapabilities, ...allShared])],
      `${base} may import only from the floors below it.`,
    ),
  ),
  // Computations: of the capabilities below, and nothing that has to do with a part.
  ...capabilities.flatMap((floor, level) =>
    floor.map((capability) => {
      const below = capabilities.slice(0, level).flat();
      const others = allCapabilities.filter((other) => other !== capability && !below.includes(other));
      return coreRule(
        [capability],
        [foldersOf([...others, ...allShared]), partsOf(allParts)],
        `What ${capability} works out may use only the capabilities below it, and no commands, projections, checks, reports or files.`,
      );
    }),
  ),
  // Parts: of any capability, and of parts below.
  ...parts.flatMap((floor, level) =>
    floor.map((part) => {
      const banned = [...floor.filter((other) => other !== part), ...parts.slice(level + 1).flat()];
      const shared = banned.flatMap((one) => sharedFolder[one] ?? []);
      return coreRule(
        [`*/${part}`, ...(sharedFolder[part] === undefined ? [] : [sharedFolder[part]])],
        banned.length === 0 ? [] : [partsOf(banned), ...(shared.length === 0 ? [] : [foldersOf(shared)])],
        `${part} may import computations and the parts below.`,
      );
    }),
  ),
];

const packageRule = (name, banned) => ({
  files: [`packages/${name}/src/**/*.{ts,tsx}`],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          {
            group: banned,
            message: `packages/${name} may not import that (docs/architecture.md, Packages).`,
          },
        ],
      },
    ],
  },
});

/**
 * Where a type may be asserted: at the edges, where values come from outside of the compiler's sight (sockets, SQL, JSON,
 * the browser, libraries without types), and in the few functions that take something for granted for all others.
 */
const assertionsAllowed = [
  // Edges.
  'packages/cli/src/openFile.ts',
  'packages/core/src/exchange/{oldNames,read}.ts',
  'packages/server/src/{main,server,settings}.ts',
  'packages/server/src/http/{answerByJob,app,bodies,metrics,refusals}.ts',
  'packages/server/src/jobs/{perform,queue}.ts',
  'packages/server/src/live/live.ts',
  'packages/server/src/plans/plans.ts',
  'packages/server/src/sheets/sheetRoutes.ts',
  'packages/server/src/sheets/printing/*.ts',
  'packages/server/src/spreadsheets/{sheetRows,workbookLimits}.ts',
  'packages/server/src/store/{copiedLines,databaseProblems,journal,rowsIO}.ts',
  'packages/web/src/data/{api,jobs,projectSync}.ts',
  'packages/web/src/sheets/printing/PrintMany.tsx',
  // Rows of a kind of which only the name is known; entries of an object put together again.
  'packages/core/src/model/kinds.ts',
  'packages/core/src/model/fields/storage.ts',
  'packages/core/src/model/network/{network,layeredMap}.ts',
  'packages/core/src/model/values/words.ts',
  'packages/core/src/change/change.ts',
  'packages/core/src/check/finding.ts',
  'packages/core/src/exchange/{format,given,sparse}.ts',
  'packages/core/src/sheets/exchange/writeSheets.ts',
  'packages/core/src/sheets/scene/richText.ts',
  'packages/web/src/kit/form/{Form.tsx,useSchemaForm.ts}',
  'packages/web/src/record/KindRecord.tsx',
  'packages/web/src/sheets/surface/SheetCanvas.tsx',
];

export default tseslint.config(
  {
    ignores: ['**/dist/**', '.visograph/**', '**/node_modules/**', 'test-results/**', 'playwright-report/**'],
  },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    files: ['packages/*/src/**/*.{ts,tsx}', 'packages/*/bench/**/*.ts', 'e2e/**/*.ts'],
    languageOptions: { parserOptions: { projectService: true } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      '@typescript-eslint/await-thenable': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true },
      ],
      '@typescript-eslint/no-unnecessary-type-assertion': 'error',
    },
  },
  {
    files: ['packages/*/src/**/*.{ts,tsx}'],
    plugins: { 'import-x': importX },
    settings: {
      'import-x/resolver-next': [createNodeResolver({ extensions: ['.ts', '.tsx'] })],
      'import-x/extensions': ['.ts', '.tsx'],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts', '.tsx'] },
    },
    rules: { 'import-x/no-cycle': 'error' },
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-invalid-void-type': 'off',
      '@typescript-eslint/no-dynamic-delete': 'off',
      '@typescript-eslint/no-extraneous-class': 'off',
    },
  },
  {
    files: ['packages/*/src/**/*.{ts,tsx}'],
    ignores: ['**/*.test.{ts,tsx}', '**/testing/**', '**/test*.ts', ...assertionsAllowed],
    rules: { '@typescript-eslint/consistent-type-assertions': ['error', { assertionStyle: 'never' }] },
  },
  {
    files: ['packages/web/**/*.{ts,tsx}', 'packages/drawing/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  packageRule('api', [
    '@visograph/server',
    '@visograph/web',
    '@visograph/cli',
    '@visograph/drawing',
    'node:*',
  ]),
  packageRule('drawing', [
    '@visograph/api',
    '@visograph/server',
    '@visograph/web',
    '@visograph/cli',
    '@visograph/typeface',
    'styled-components',
    'node:*',
  ]),
  packageRule('field', [
    '@visograph/server',
    '@visograph/web',
    '@visograph/cli',
    '@visograph/drawing',
    'react',
    'react-dom',
  ]),
  packageRule('typeface', ['@visograph/server', '@visograph/web', '@visograph/cli', 'react', 'react-dom']),
  packageRule('server', ['@visograph/web', '@visograph/cli']),
  {
    files: [
      'packages/server/src/http/*.ts',
      'packages/server/src/**/*Routes.ts',
      'packages/server/src/sheets/**/*.ts',
    ],
    ignores: ['packages/server/src/http/meant.ts', '**/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        ...['read', 'at', 'write', 'step'].map((name) => ({
          selector: `MemberExpression[object.property.name='store'][property.name='${name}']`,
          message:
            'Which network is meant is decided in one place: call.network() and call.pen() (http/meant.ts).',
        })),
      ],
    },
  },
  {
    files: ['packages/web/src/**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          paths: [
            {
              name: '@visograph/api',
              allowTypeImports: true,
              message:
                'The contract is for the compiler alone here: its schemas are not sent to the browser.',
            },
          ],
        },
      ],
    },
  },
  packageRule('web', ['@visograph/server', '@visograph/cli', '@visograph/typeface', 'node:*']),
  packageRule('cli', ['@visograph/server', '@visograph/web', '@visograph/api']),
  ...floorRules,
  {
    files: ['**/*.mjs', 'eslint.config.js', 'jest.config.js'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        setTimeout: 'readonly',
        clearTimeout: 'readonly',
        setInterval: 'readonly',
        clearInterval: 'readonly',
        fetch: 'readonly',
        localStorage: 'readonly',
        Buffer: 'readonly',
      },
    },
  },
  prettier,
);
