// After an install: the pre-commit hook, in a clone; a copy without .git has no commits to guard.
import { existsSync } from 'node:fs';
import { spawnSync } from 'node:child_process';

if (existsSync('.git') && existsSync('node_modules/simple-git-hooks')) {
  spawnSync('npx', ['simple-git-hooks'], { stdio: 'inherit' });
}
