/** Run once when a server of pages starts: where the web server hasn't done so, opens the data and starts what runs by itself. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs' || 'paramoJobs' in globalThis) return;
  const { startJobs } = await import('./server/jobs/start.ts');
  startJobs();
}
