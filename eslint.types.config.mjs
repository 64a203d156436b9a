import hooks from 'eslint-plugin-react-hooks';
import ts from 'typescript-eslint';

// Rules that need types: too slow for every run (about two minutes), so that `npm run check` applies them to changed
// files and `npm run soak` to all.
export default ts.config(
  {
    ignores: [
      '**/dist/',
      '**/node_modules/',
      'apps/server/drizzle/',
      'apps/web/public/',
      '**/*.test.{ts,tsx}',
    ],
  },
  {
    files: ['packages/*/src/**/*.ts', 'apps/*/src/**/*.{ts,tsx}'],
    // Only so that comments which name their rules are understood.
    plugins: { '@typescript-eslint': ts.plugin, 'react-hooks': hooks },
    languageOptions: {
      parser: ts.parser,
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
    rules: {
      '@typescript-eslint/await-thenable': 'error',
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': 'error',
      '@typescript-eslint/no-unnecessary-type-assertion': 'error',
      '@typescript-eslint/no-unsafe-argument': 'error',
      '@typescript-eslint/no-unsafe-assignment': 'error',
      '@typescript-eslint/no-unsafe-call': 'error',
      '@typescript-eslint/no-unsafe-member-access': 'error',
      '@typescript-eslint/no-unsafe-return': 'error',
    },
  },
  {
    // A driver without types of its own, and one memo for groups of all kinds.
    files: ['apps/server/src/store/database.ts', 'packages/core/src/document/scene.ts'],
    rules: { '@typescript-eslint/no-unsafe-assignment': 'off' },
  },
);
