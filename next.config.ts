import type { NextConfig } from 'next';

const SECURITY_HEADERS = [
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'X-Frame-Options', value: 'DENY' },
  { key: 'Referrer-Policy', value: 'same-origin' },
  {
    key: 'Content-Security-Policy',
    value: [
      "default-src 'self'",
      // Next writes its start-up data as inline scripts; development evaluates code as well.
      `script-src 'self' 'unsafe-inline'${process.env.NODE_ENV === 'development' ? " 'unsafe-eval'" : ''}`,
      "worker-src 'self' blob:", // a workbook is packed by a worker of its package
      "style-src 'self' 'unsafe-inline'",
      "img-src 'self' data:",
      "connect-src 'self'",
      "frame-ancestors 'none'",
      "form-action 'self'",
      "base-uri 'none'",
    ].join('; '),
  },
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
