/**
 * Mutation testing of what plans, supports and mixes: `npm run mutants`, or of one file with
 * `npm run mutants -- --mutate core/plan/scheduling/slack.ts`. Not part of npm test; the score is in docs/development.md.
 */
export default {
  testRunner: 'vitest',
  plugins: ['@stryker-mutator/vitest-runner'],
  vitest: { configFile: 'bootstrap/mutants.vitest.config.ts', related: true },
  mutate: ['core/plan/**/*.ts', 'core/print/support/**/*.ts', 'core/paint/recipes/**/*.ts', '!core/**/*.test.ts'],
  // Names and words of what is made up are not what is tested.
  mutator: { excludedMutations: ['StringLiteral', 'ObjectLiteral'] },
  coverageAnalysis: 'perTest',
  ignoreStatic: true,
  concurrency: 2,
  timeoutMS: 60_000,
  // What is related to a file of the supports takes minutes by itself.
  dryRunTimeoutMinutes: 30,
  tempDirName: '.undercut/mutants',
  incremental: true,
  incrementalFile: '.undercut/mutants.json',
  reporters: ['clear-text', 'progress'],
  clearTextReporter: { allowColor: false, logTests: false },
  thresholds: { high: 90, low: 85, break: null },
}
