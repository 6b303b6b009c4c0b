/** Latency of each device on this computer, in seconds, as a calibration found it. */
const NAME = 'idle-wander-latencies';
const LEAST = -0.2;
const MOST = 1;

function all(): Record<string, number> {
  try {
    const read: unknown = JSON.parse(localStorage.getItem(NAME) ?? '{}');
    if (typeof read !== 'object' || read === null || Array.isArray(read)) return {};
    return Object.fromEntries(
      Object.entries(read).filter(
        ([, value]) => typeof value === 'number' && value >= LEAST && value <= MOST,
      ),
    );
  } catch {
    return {}; // what is kept cannot be read: it is measured anew
  }
}

export const latencyFor = (device: string): number | null => all()[device] ?? null;

export function keepLatency(device: string, seconds: number | null): void {
  const known = all();
  if (seconds === null) delete known[device];
  else known[device] = seconds;
  try {
    localStorage.setItem(NAME, JSON.stringify(known));
  } catch {
    // storage is full or forbidden: the measurement holds for this visit's calculations only
  }
}
