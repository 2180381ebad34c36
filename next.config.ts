import type { NextConfig } from 'next';

const headers = [
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'X-Frame-Options', value: 'DENY' },
  { key: 'Referrer-Policy', value: 'same-origin' },
  {
    key: 'Content-Security-Policy',
    // The reader of codes is a module that is compiled here.
    // Next.js puts its own small inline scripts and styles into the page; everything else comes from this server.
    value:
      "default-src 'self'; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline'; script-src 'self' 'unsafe-inline' 'wasm-unsafe-eval'; connect-src 'self'; frame-ancestors 'none'; base-uri 'self'; form-action 'self'",
  },
];

const config: NextConfig = {
  poweredByHeader: false,
  serverExternalPackages: [
    'opentype.js',
    'heic-decode',
    'libheif-js',
    'zxing-wasm',
    'sharp',
    'mysql2',
    'pino',
    'sanitize-html',
  ],
  headers: async () => [{ source: '/:path*', headers }],
  // Types are checked by `npm test`, once and with the compiler of choice.
  typescript: { ignoreBuildErrors: true },
  turbopack: { root: import.meta.dirname },
};

export default config;
