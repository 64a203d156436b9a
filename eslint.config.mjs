import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import { globalIgnores } from 'eslint/config';
import ts from 'typescript-eslint';

export default ts.config(
  globalIgnores([
    '**/dist/',
    '**/node_modules/',
    '.data/',
    'apps/server/drizzle/',
    'apps/web/public/',
    'docs/',
  ]),
  js.configs.recommended,
  ...ts.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      // An underscore says that a name is there only to be left out.
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
      'prefer-const': ['error', { destructuring: 'all' }],
      eqeqeq: 'error',
    },
  },
  {
    files: ['apps/web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    // Arguments of routes are validated, and access is declared: see http/validated.ts and http/access.ts.
    files: ['apps/server/src/**/*.ts'],
    ignores: ['apps/server/src/http/validated.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: [
            {
              name: '@nestjs/common',
              importNames: ['Body', 'Query', 'Param'],
              message: 'Use ValidBody, ValidQuery, ValidParam or PathId of http/validated.ts.',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['**/*.mjs', '**/*.cjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        setTimeout: 'readonly',
        module: 'writable',
      },
    },
  },
  {
    // The core is pure: no clock, no chance without a seed, nothing of a browser or of Node.
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'process',
        'performance',
        'fetch',
        'console',
        'setTimeout',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'The core has no clock: take the time as an argument.' },
        { object: 'Math', property: 'random', message: 'The core takes no chance without a seed.' },
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'The core has no clock.',
        },
      ],
    },
  },
);
