// npm run mutate: Stryker changes the core's code in small ways, one at a time, and sees whether its tests notice.
export default {
  testRunner: 'jest',
  jest: { projectType: 'custom', configFile: 'tools/mutate.jest.cjs' },
  coverageAnalysis: 'perTest',
  mutate: ['packages/core/src/**/*.ts', '!packages/core/src/**/*.test.ts', '!packages/core/src/**/index.d.ts'],
  concurrency: 2,
  incremental: true,
  incrementalFile: '.data/mutate.json',
  tempDirName: '.data/mutate',
  reporters: ['clear-text', 'html', 'progress-append-only'],
  clearTextReporter: { allowColor: false, allowEmojis: false, logTests: false, reportTests: false },
  htmlReporter: { fileName: '.data/mutate.html' },
  thresholds: { high: 90, low: 85, break: 85 },
  // constants of a module are looked at by review: to try one, every test would run anew
  ignoreStatic: true,
  disableTypeChecks: true,
};
