/** Runs once when the server starts: the database is brought up to date before the first request. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { openDatabase } = await import('./server/db/startUp');
  const trouble = await openDatabase();
  if (trouble !== null) {
    console.error(trouble);
    process.exit(1);
  }
  const { isFileDatabase, databaseFile } = await import('./server/db/client');
  const { keepEarlierHomes } = await import('./server/earlierHomes');
  // not a reason to serve nothing: it is tried again at the next start
  await keepEarlierHomes().catch((error: Error) => console.warn(`Earlier home scales: ${error.message}`));
  const { judgingThread } = await import('./server/judging/judgingThread');
  judgingThread().warm();
  const { startRetention } = await import('./server/retention');
  startRetention();
  const { startDailyBackups } = await import('./server/backup');
  startDailyBackups();
  if (!isFileDatabase()) return;
  const { lockForServing } = await import('./server/db/serverLock');
  if (!(await lockForServing(databaseFile()))) {
    console.warn(`Another Idle Wander is running on ${databaseFile()}. Both work on the same takes.`);
  }
}
