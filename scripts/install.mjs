import { spawnSync } from 'node:child_process';
import { changed } from './freshBuild.mjs';

/**
 * Installs what package-lock.json names, where that is not done yet. Uses Node alone: it runs in a fresh
 * clone.
 */
export function installPackages() {
  if (changed('node_modules/.package-lock.json') >= changed('package-lock.json')) return;
  console.log('Installing…');
  const { status } = spawnSync('npm', ['ci', '--no-audit', '--no-fund'], { stdio: 'inherit' });
  if (status !== 0) process.exit(status ?? 1);
}
