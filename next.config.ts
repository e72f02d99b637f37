import type { NextConfig } from 'next';

const config: NextConfig = {
  poweredByHeader: false,
  serverExternalPackages: ['better-sqlite3', 'mailparser', 'pino', 'smtp-server'],
  outputFileTracingExcludes: { '*': ['.data/**', 'docs/**'] },
  devIndicators: false,
  allowedDevOrigins: ['*.localhost'],
};

export default config;
