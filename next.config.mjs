// @ts-check

/** The test run has read the types by itself just before, and builds once. */
const forTests = process.env.PARAMO_TYPES_READ === '1';

/** @type {import('next').NextConfig} */
const config = {
  poweredByHeader: false,
  serverExternalPackages: ['better-sqlite3', 'mailparser', 'smtp-server'],
  outputFileTracingExcludes: { '*': ['.data/**', 'docs/**'] },
  devIndicators: false,
  allowedDevOrigins: ['*.localhost'],
  typescript: { ignoreBuildErrors: forTests },
  experimental: {
    // Nobody reads maps of what is built; what a next build would take up is two hundred megabytes.
    turbopackSourceMaps: false,
    turbopackFileSystemCacheForBuild: !forTests,
    // The API, which is most of it, is answered by the web server itself.
    preloadEntriesOnStart: false,
  },
};

export default config;
