import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import { createNodeResolver, importX } from 'eslint-plugin-import-x';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Floors of core, lowest first: a folder may import from its own floor's folder and from floors below. */
const floors = [
  ['model'],
  ['change'],
  ['lens'],
  ['racks'],
  ['cabling'],
  ['switching', 'address'],
  ['routing'],
  ['commands'],
  ['draw', 'check', 'report'],
  ['exchange'],
];

const allFolders = floors.flat();
const floorRules = floors.flatMap((floor, level) =>
  floor.map((folder) => {
    const below = floors.slice(0, level).flat();
    const banned = allFolders.filter((other) => other !== folder && !below.includes(other));
    return {
      files: [`packages/core/src/${folder}/**/*.ts`],
      ignores: ['**/*.test.ts'],
      rules: {
        'no-restricted-imports': [
          'error',
          {
            patterns: [
              ...(banned.length === 0
                ? []
                : [
                    {
                      group: banned.map((other) => `**/${other}/**`),
                      message: `${folder} may import only from the floors below it.`,
                    },
                  ]),
              {
                group: ['node:*', 'react', 'react-dom', '@visograph/*', '../index.ts'],
                message: 'core has no I/O, no DOM and imports nothing of ours.',
              },
            ],
          },
        ],
      },
    };
  }),
);

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
  packageRule('typeface', ['@visograph/server', '@visograph/web', '@visograph/cli', 'react', 'react-dom']),
  packageRule('server', ['@visograph/web', '@visograph/cli']),
  {
    files: ['packages/server/src/http/*.ts'],
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
