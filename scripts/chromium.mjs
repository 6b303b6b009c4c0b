import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

const PLACES = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];
const INSTALL = 'apt-get update && apt-get install -y --no-install-recommends chromium';

/**
 * The browser the tests drive: the one named, the one installed, or Debian's, installed here where that is
 * allowed.
 */
export function findChromium() {
  const found = process.env.CHROMIUM ?? PLACES.find((place) => existsSync(place));
  if (found) return found;
  if (process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
    console.log('Installing Chromium…');
    const { status } = spawnSync('sh', ['-c', INSTALL], { stdio: ['ignore', 'ignore', 'inherit'] });
    if (status === 0 && existsSync(PLACES[0])) return PLACES[0];
  }
  console.error(`The browser tests need Chromium. Install it with: sudo sh -c '${INSTALL}'`);
  process.exit(1);
}
