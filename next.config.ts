import type { NextConfig } from 'next';

/** The test run has read the types by itself just before, and builds once. */
const forTests = process.env.PARAMO_TYPES_READ === '1';

const config: NextConfig = {
  poweredByHeader: false,
  serverExternalPackages: ['better-sqlite3', 'free-email-domains-list', 'mailparser', 'pino', 'smtp-server'],
  outputFileTracingExcludes: { '*': ['.data/**', 'docs/**'] },
  devIndicators: false,
  allowedDevOrigins: ['*.localhost'],
  typescript: { ignoreBuildErrors: forTests },
  // Nobody reads maps of what is built; what a next build would take up is two hundred megabytes.
  experimental: { turbopackSourceMaps: false, turbopackFileSystemCacheForBuild: !forTests },
};

export default config;
