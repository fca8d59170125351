const swc = [
  '@swc/jest',
  {
    jsc: {
      parser: { syntax: 'typescript', tsx: true, decorators: true },
      transform: { react: { runtime: 'automatic' }, legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: false },
      keepClassNames: true,
      target: 'es2022',
    },
    module: { type: 'commonjs' },
  },
];
const base = {
  testEnvironment: 'node',
  transform: { '^.+\\.(ts|tsx|mjs|js)$': swc },
  transformIgnorePatterns: [
    '/node_modules/(?!(@nestjs|file-type|strtok3|token-types|uint8array-extras|@tokenizer|@borewit|load-esm|@noble|ical-generator|ical.js|temporal-polyfill|temporal-utils|@tus|srvx|slug|mdast-util-[^/]+|micromark[^/]*|unist-util-[^/]+|decode-named-character-reference|character-entities[^/]*|zwitch|longest-streak|ccount|devlop)/)',
  ],
  moduleNameMapper: {
    '^file-type$': '<rootDir>/node_modules/file-type/index.js',
    '^strtok3/core$': '<rootDir>/node_modules/strtok3/lib/core.js',
    '^(\\.{1,2}/.*)\\.js$': '$1',
  },
  testEnvironmentOptions: { customExportConditions: ['source', 'node', 'node-addons'] },
  setupFiles: ['reflect-metadata'],
};
module.exports = {
  // a slow machine is no fault: what is waited for comes or does not
  testTimeout: 240_000,
  testSequencer: '<rootDir>/tools/sequencer.mjs',
  projects: [
    {
      ...base,
      displayName: 'unit',
      roots: ['<rootDir>/packages', '<rootDir>/apps', '<rootDir>/demo', '<rootDir>/tools'],
      testMatch: ['**/*.test.ts'],
      testPathIgnorePatterns: ['/node_modules/', '/dist/', '\\.db\\.test\\.ts$'],
    },
    {
      ...base,
      displayName: 'pages',
      testEnvironment: 'jsdom',
      testEnvironmentOptions: { customExportConditions: ['source', 'browser', 'require', 'default'] },
      setupFiles: [...base.setupFiles, '<rootDir>/apps/web/test-support/setup.ts'],
      setupFilesAfterEnv: ['@testing-library/jest-dom', '<rootDir>/apps/web/test-support/patience.ts'],
      roots: ['<rootDir>/apps/web'],
      testMatch: ['**/*.test.tsx'],
      testPathIgnorePatterns: ['/node_modules/', '/dist/'],
    },
    {
      ...base,
      displayName: 'database',
      roots: ['<rootDir>/apps', '<rootDir>/demo'],
      // npm test puts these files into a few groups, see tools/test.mjs
      testMatch: process.env.ZESTING_GROUPS ? ['<rootDir>/apps/server/.groups/*.db.test.ts'] : ['**/*.db.test.ts'],
      testPathIgnorePatterns: ['/node_modules/', '/dist/', ...(process.env.ZESTING_GROUPS ? [] : ['/\\.groups/'])],
    },
  ],
};

// npm run mutate: the core's tests alone, as one project, for whoever changes its code and looks whether they notice
if (process.env.ZESTING_MUTATE) {
  const { displayName: _name, ...unit } = module.exports.projects[0];
  module.exports = { ...unit, roots: ['<rootDir>/packages/core'] };
}
