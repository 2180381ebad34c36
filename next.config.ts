import type { NextConfig } from 'next';

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
  // Types are checked by `npm test`, once and with the compiler of choice.
  typescript: { ignoreBuildErrors: true },
  turbopack: { root: import.meta.dirname },
};

export default config;
