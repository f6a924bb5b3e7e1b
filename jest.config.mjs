const swc = [
  '@swc/jest',
  {
    jsc: {
      parser: { syntax: 'typescript', tsx: true },
      transform: { react: { runtime: 'automatic' } },
      target: 'es2022',
    },
  },
];
/** `npm run fuzz` does all runs of the long property tests; every run of the tests a tenth, with others each time. */
const SHARE_OF_RUNS = process.env.FUZZ ? 1 : 0.1;

const common = {
  globals: { SHARE_OF_RUNS },
  transform: { '^.+\\.(t|m?j)sx?$': swc },
  transformIgnorePatterns: [
    '/node_modules/(?!(ical\\.js|temporal-polyfill|temporal-utils|@nimble-bell|d3|d3-[a-z-]+|internmap|delaunator|robust-predicates)/)',
  ],
};

export default {
  projects: [
    {
      ...common,
      displayName: 'core',
      testEnvironment: 'node',
      testMatch: ['<rootDir>/core/src/**/*.test.ts'],
    },
    {
      ...common,
      displayName: 'cli',
      testEnvironment: 'node',
      testMatch: ['<rootDir>/cli/src/**/*.test.ts'],
    },
    {
      ...common,
      displayName: 'server',
      testEnvironment: 'node',
      testMatch: ['<rootDir>/server/src/**/*.test.ts'],
    },
    {
      ...common,
      displayName: 'web',
      testEnvironment: 'jsdom',
      testMatch: ['<rootDir>/web/src/**/*.test.{ts,tsx}'],
      setupFiles: ['<rootDir>/web/src/testing/setup.ts'],
      moduleNameMapper: { '\\.css$': '<rootDir>/web/src/testing/noStyles.ts' },
    },
  ],
};
