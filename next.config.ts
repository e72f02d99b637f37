import type { NextConfig } from 'next';

const config: NextConfig = {
  poweredByHeader: false,
  serverExternalPackages: ['better-sqlite3', 'free-email-domains-list', 'mailparser', 'pino', 'smtp-server'],
  outputFileTracingExcludes: { '*': ['.data/**', 'docs/**'] },
  devIndicators: false,
  allowedDevOrigins: ['*.localhost'],
  // The test run has read the types by itself just before.
  typescript: { ignoreBuildErrors: process.env.PARAMO_TYPES_READ === '1' },
};

export default config;
