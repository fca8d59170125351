import js from '@eslint/js';
import tseslint from 'typescript-eslint';
import reactHooks from 'eslint-plugin-react-hooks';

const namedExports = { selector: 'ExportDefaultDeclaration', message: 'Named exports only.' };
/** Only the clock gives now, so that everything can be tried at every hour. */
const ONE_NOW = 'Only the clock says what time it is: take now as an argument.';
const oneNow = [
  { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: ONE_NOW },
  { selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']", message: ONE_NOW },
  { selector: "MemberExpression[object.name='Temporal'][property.name='Now']", message: ONE_NOW },
  { selector: 'Literal[value=/\\b(now\\(\\)|current_(date|timestamp)\\b)/]', message: ONE_NOW },
  { selector: 'TemplateElement[value.raw=/\\b(now\\(\\)|current_(date|timestamp)\\b)/]', message: ONE_NOW },
  { selector: "CallExpression[callee.name='dayIn'] Literal[value='UTC']", message: 'Nobody works by the day of UTC: see dayNear.' },
];

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/node_modules/**',
      'apps/server/.groups/**',
      '.data/**',
      'test-results/**',
      '.dependency-cruiser.cjs',
      'jest.config.cjs',
    ],
  },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    rules: {
      // a feature's names join the application's: `interface PolicyNames extends NamesOf<typeof policies> {}`
      '@typescript-eslint/no-empty-object-type': ['error', { allowInterfaces: 'with-single-extends' }],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/no-extraneous-class': ['error', { allowWithDecorator: true, allowStaticOnly: true }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': ['error', { disallowTypeAnnotations: false }],
      'no-restricted-syntax': ['error', namedExports],
    },
  },
  {
    files: ['**/*.mjs', '**/*.cjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        setTimeout: 'readonly',
        clearTimeout: 'readonly',
        fetch: 'readonly',
        URL: 'readonly',
        AbortSignal: 'readonly',
        structuredClone: 'readonly',
        performance: 'readonly',
        Buffer: 'readonly',
        setInterval: 'readonly',
        clearInterval: 'readonly',
      },
    },
  },
  {
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', 'Date', 'fetch', 'process', 'window', 'document'],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random' }],
    },
  },
  {
    files: ['apps/server/{src,test-support}/**/*.ts', 'packages/contract/src/**/*.ts'],
    rules: { '@typescript-eslint/consistent-type-imports': 'off' },
  },
  { files: ['apps/web/src/**/*.{ts,tsx}'], plugins: { 'react-hooks': reactHooks }, rules: reactHooks.configs.recommended.rules },
  {
    files: ['{packages,apps/server,apps/web,demo}/**/*.{ts,tsx}'],
    ignores: [
      '**/*.test.ts',
      'apps/server/test-support/**',
      'apps/server/src/platform/time/clock.ts',
      'apps/web/src/lib/now.ts',
      // sessions end as their cookies do, and the queue of jobs has its own time: by the machine's clock
      'apps/server/src/platform/access/session-store.ts',
      'apps/server/src/features/identity/devices.ts',
      'apps/server/src/platform/jobs/jobs.ts',
    ],
    rules: { 'no-restricted-syntax': ['error', namedExports, ...oneNow] },
  },
  {
    // a key of the query cache is made in one place, so that whoever writes there or asks anew names the same thing
    files: ['apps/web/src/**/*.{ts,tsx}'],
    ignores: ['apps/web/src/api/**', 'apps/web/src/lib/now.ts', '**/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        namedExports,
        ...oneNow,
        { selector: "Property[key.name='queryKey'] > ArrayExpression", message: 'Keys are made in src/api.' },
      ],
    },
  },
  { files: ['**/*.config.{js,ts}', 'apps/server/src/migrations/**'], rules: { 'no-restricted-syntax': 'off' } },
);
