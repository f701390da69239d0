import type { NextConfig } from 'next';

/** What a page may run stands in `proxy.ts`, which names each page's own scripts. */
const SECURITY_HEADERS = [
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'X-Frame-Options', value: 'DENY' },
  { key: 'Referrer-Policy', value: 'same-origin' },
];

const config: NextConfig = {
  poweredByHeader: false,
  serverExternalPackages: [
    'knex',
    'pg',
    'pg-copy-streams',
    'pg-query-stream',
    'piscina',
    'workerpool',
    'pino',
    'graphile-worker',
    'exceljs',
    'yauzl',
  ],
  headers: () => Promise.resolve([{ source: '/:path*', headers: SECURITY_HEADERS }]),
};

export default config;
