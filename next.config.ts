import type { NextConfig } from 'next';
import { dataPolicy, everywhere, filePolicy, overTls } from './src/web/headers';

const told = (headers: Record<string, string>) => Object.entries(headers).map(([key, value]) => ({ key, value }));

const config: NextConfig = {
  poweredByHeader: false,
  serverExternalPackages: [
    'opentype.js',
    'heic-decode',
    'libheif-js',
    'zxing-wasm',
    'sharp',
    'mysql2',
    '@aws-sdk/client-s3',
    'prom-client',
    'pino',
    'sanitize-html',
  ],
  // The policy of a page is made with each answer, in src/proxy.ts.
  headers: async () => [
    { source: '/:path*', headers: told(everywhere) },
    { source: '/api/:path*', headers: told({ 'Content-Security-Policy': dataPolicy }) },
    { source: '/_next/:path*', headers: told({ 'Content-Security-Policy': filePolicy }) },
    { source: '/:path*', has: [{ type: 'header', key: 'x-forwarded-proto', value: 'https' }], headers: told(overTls) },
  ],
  // Types are checked by `npm test`, once and with the compiler of choice.
  typescript: { ignoreBuildErrors: true },
  turbopack: { root: import.meta.dirname },
};

export default config;
