/** The directions of docs/structure.md, as rules. */
module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-is-pure',
      comment: 'core imports itself and small pure packages; no I/O, framework, clock or database',
      severity: 'error',
      from: { path: '^src/core', pathNot: '(\\.test|/testing)\\.ts$' },
      to: {
        pathNot: [
          '^src/core',
          '^node_modules/(papaparse|d3-array|internmap|pluralize|stemmer|damerau-levenshtein|lru-cache|tinyqueue|@stdlib/(stats-base-dists-beta-cdf|math-base-special-(digamma|trigamma|gammaln|gammainc))|@types/)',
        ],
      },
    },
    {
      name: 'contracts-know-only-core',
      severity: 'error',
      from: { path: '^src/contracts' },
      to: { path: '^src/', pathNot: ['^src/contracts', '^src/core'] },
    },
    {
      name: 'ui-has-no-domain',
      severity: 'error',
      from: { path: '^src/ui' },
      to: { path: '^src/(server|screens|app|standins|contracts)' },
    },
    {
      name: 'screens-reach-the-server-through-actions',
      severity: 'error',
      from: { path: '^src/screens', pathNot: 'actions\\.ts$' },
      to: { path: '^src/(server|standins|app)' },
    },
    {
      name: 'app-reaches-use-cases-only',
      severity: 'error',
      from: { path: '^src/app' },
      to: { path: '^src/(standins|server/(?!use-cases|web|threads/requests))' },
    },
    {
      name: 'repositories-know-db-and-core',
      severity: 'error',
      from: { path: '^src/server/repositories' },
      to: { path: '^src/server/(use-cases|compute|platform|jobs|threads)' },
    },
    {
      name: 'compute-knows-repositories-and-core',
      severity: 'error',
      from: { path: '^src/server/compute' },
      to: { path: '^src/server/(use-cases|platform|jobs|threads)' },
    },
    {
      name: 'use-cases-do-not-know-the-queue',
      severity: 'error',
      from: { path: '^src/server/use-cases' },
      to: { path: '^src/server/(jobs|threads)' },
    },
    {
      name: 'standins-stand-alone',
      comment: 'a simulated service is spoken to over HTTP only',
      severity: 'error',
      from: { path: '^src/standins' },
      to: { path: '^src/(server|screens|app|ui)' },
    },
    {
      name: 'nobody-imports-a-standin',
      severity: 'error',
      from: { path: '^src/(core|server|contracts|screens|ui|app)' },
      to: { path: '^src/standins' },
    },
    {
      name: 'core-by-the-front-door',
      comment: 'others import src/core/index.ts, not what lies behind it',
      severity: 'error',
      from: { path: '^(src/(server|standins|contracts|screens|ui|app)|demo|tests|bench|scripts)' },
      to: { path: '^src/core/(?!index\\.ts)' },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.next|\\.data|^dist' },
  },
};
