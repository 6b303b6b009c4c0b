/** Runs once when the server starts: the database is brought up to date before the first request. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { migrateDatabase } = await import('./server/db/client');
  await migrateDatabase();
  const { tidySound } = await import('./server/settings');
  await tidySound();
}
