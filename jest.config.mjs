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
const common = {
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
