const transform = {
  '^.+\\.(ts|tsx|js|mjs)$': [
    '@swc/jest',
    {
      jsc: {
        target: 'es2022',
        parser: { syntax: 'typescript', tsx: true },
        transform: { react: { runtime: 'automatic' } },
      },
      module: { type: 'commonjs' },
    },
  ],
};
// These packages ship only as ES modules, which Jest's CommonJS mode cannot load as they are.
const transformIgnorePatterns = [
  '/node_modules/(?!(parse5|entities|@noble/hashes|fast-png|iobuffer|pixelmatch|css-tree/dist|pdfjs-dist/legacy)/)',
];
const project = (name, testEnvironment, more = {}) => ({
  displayName: name,
  rootDir: `packages/${name}`,
  testEnvironment,
  testMatch: ['<rootDir>/src/**/*.test.ts', '<rootDir>/src/**/*.test.tsx'],
  transform,
  transformIgnorePatterns,
  ...more,
});

export default {
  projects: [
    project('core', 'node'),
    project('reader', 'node'),
    project('renderer', 'node'),
    project('server', 'node'),
    project('cli', 'node'),
    project('web', 'jsdom', { setupFiles: ['<rootDir>/src/testing/setup.ts'] }),
  ],
  testTimeout: 60_000,
  // Each suite has modules of its own: a worker that has run many of them is all memory and hardly gets on.
  workerIdleMemoryLimit: '700MB',
};
