import { useEffect, useState } from 'react';

/** Whether what was drawn first has been painted: what can wait comes in then, and keeps nothing waiting. */
export function useIsPainted(): boolean {
  const [isPainted, setPainted] = useState(false);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const frame = requestAnimationFrame(() => {
      timer = setTimeout(() => setPainted(true));
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
    };
  }, []);
  return isPainted;
}
