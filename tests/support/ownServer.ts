import { spawn, type ChildProcess } from 'node:child_process';
import { rmSync } from 'node:fs';

const RESTART_CODE = 75;

/** A server of a test's own, on a database of its own, that can be killed like a machine that loses its power. */
export class OwnServer {
  private child: ChildProcess | null = null;
  readonly url: string;
  constructor(
    private readonly port: number,
    /** A file, or a database on a server with what opens it. */
    private readonly kept: string | { readonly url: string; readonly token: string },
    private readonly env: Readonly<Record<string, string>> = {},
  ) {
    this.url = `http://127.0.0.1:${port}`;
    if (typeof kept === 'string')
      for (const suffix of ['', '-wal', '-shm']) rmSync(`${kept}${suffix}`, { force: true });
  }

  async start(): Promise<void> {
    this.spawn();
    for (let tries = 0; tries < 150; tries++) {
      if (
        await fetch(`${this.url}/api/charts`).then(
          (response) => response.ok,
          () => false,
        )
      )
        return;
      await new Promise((done) => setTimeout(done, 100));
    }
    throw new Error('the server did not start');
  }

  /** Started again where it asks for that, as `npm run demo` does. */
  private spawn(): void {
    this.child = spawn(
      'node',
      ['node_modules/next/dist/bin/next', 'start', '-H', '127.0.0.1', '-p', String(this.port)],
      {
        stdio: 'ignore',
        detached: true,
        env: {
          ...process.env,
          ...(typeof this.kept === 'string'
            ? { DATABASE_URL: `file:./${this.kept}` }
            : { DATABASE_URL: this.kept.url, DATABASE_TOKEN: this.kept.token }),
          NEXT_TELEMETRY_DISABLED: '1',
          IDLE_WANDER_RESTARTS: 'yes',
          ...this.env,
        },
      },
    );
    this.child.on('exit', (code) => {
      if (code === RESTART_CODE) this.spawn();
    });
  }

  /** SIGKILL to it and all it started: nothing is finished or flushed. */
  kill(): void {
    if (this.child?.pid) {
      try {
        process.kill(-this.child.pid, 'SIGKILL');
      } catch {
        /* it is gone already */
      }
    }
    this.child = null;
  }
}
