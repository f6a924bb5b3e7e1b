import tseslint from 'typescript-eslint';
import reactHooks from 'eslint-plugin-react-hooks';

const forbidden = (patterns, message) => ({
  'no-restricted-imports': ['error', { patterns: [{ group: patterns, message }] }],
});

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.data/**', '.tmp/**', 'test-results/**'] },
  ...tseslint.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      eqeqeq: 'error',
      'no-console': 'error',
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }],
      'max-lines': ['error', { max: 450, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      ...forbidden(
        [
          'react*',
          '@mantine/*',
          'node:*',
          'fs',
          'path',
          'mysql2*',
          'express',
          'socket.io*',
          '@nimble-bell/*',
        ],
        'core computes: it imports neither React nor Node nor the database.',
      ),
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'process',
        'fetch',
        'setTimeout',
        'setInterval',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'core has no clock of its own: time is an argument.' },
        { object: 'Math', property: 'random', message: 'core draws nothing at random: it is an argument.' },
      ],
    },
  },
  {
    files: ['web/src/**/*.{ts,tsx}'],
    ignores: ['web/src/testing/**'],
    plugins: { 'react-hooks': reactHooks },
    rules: {
      ...reactHooks.configs.recommended.rules,
      ...forbidden(['@nimble-bell/server*', 'node:*', 'mysql2*'], 'web imports core, never the server.'),
    },
  },
  {
    files: ['server/src/**/*.ts'],
    rules: forbidden(['react*', '@nimble-bell/web*'], 'server imports core, never the web.'),
  },
  {
    files: ['core/src/**/*.ts', 'server/src/**/*.ts', 'web/src/**/*.{ts,tsx}', 'cli/src/**/*.ts'],
    ignores: ['**/*.test.{ts,tsx}'],
    rules: {
      'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    files: ['server/src/**/*.ts'],
    ignores: ['**/store.ts', 'server/src/db/**', '**/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        ...[
          'Literal[value=/^\\s*(SELECT|INSERT|UPDATE|DELETE|REPLACE) /]',
          'TemplateElement[value.raw=/^\\s*(SELECT|INSERT|UPDATE|DELETE|REPLACE) /]',
        ].map((selector) => ({ selector, message: 'SQL stands in the store.ts of its part.' })),
      ],
    },
  },
  { files: ['**/*.mjs', 'e2e/**/*.ts'], rules: { 'no-console': 'off' } },
);
