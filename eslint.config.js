import js from '@eslint/js';
import ts from 'typescript-eslint';
import a11y from 'eslint-plugin-jsx-a11y';
import hooks from 'eslint-plugin-react-hooks';
import globals from 'globals';

export default ts.config(
  { ignores: ['dist', '.cache', 'web/public', 'test-results', 'playwright-report', 'server/db/migrations'] },
  js.configs.recommended,
  ...ts.configs.recommendedTypeChecked,
  {
    languageOptions: {
      globals: { ...globals.browser, ...globals.node },
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_', argsIgnorePattern: '^_' }],
    },
  },
  { files: ['**/*.{js,mjs,cjs}'], extends: [ts.configs.disableTypeChecked] },
  {
    files: ['web/**/*.{ts,tsx}'],
    extends: [
      hooks.configs.flat['recommended-latest'] ?? hooks.configs.flat.recommended,
      a11y.flatConfigs.recommended,
    ],
    rules: {
      // A passage or table that scrolls must be reachable by keys, which needs a tab stop on a plain element.
      'jsx-a11y/no-noninteractive-tabindex': 'off',
    },
  },
  // A fixture of Playwright takes an object pattern even where it needs nothing.
  { files: ['e2e/**'], rules: { 'no-empty-pattern': 'off' } },
);
