/** Run once when a server starts: opens the data, brings it up to date, and starts what runs by itself. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { startJobs } = await import('./server/jobs/start.ts');
  startJobs();
}
