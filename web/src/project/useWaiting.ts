// What cannot be kept just now is kept here and sent again, until it is kept or the maker leaves it.
import { useCallback, useEffect, useRef, useState } from 'react';
import { isPassing } from '../api/client';

export interface Waiting {
  /** Why, as the program says. */
  message: string;
  now: () => void;
  leave: () => void;
}

/** Milliseconds from one try to the next; the last goes on. */
const PAUSES = [1000, 2000, 4000, 8000];

export function useWaiting() {
  const [waiting, setWaiting] = useState<Waiting | null>(null);
  const alive = useRef(true);
  useEffect(() => {
    alive.current = true;
    return () => {
      alive.current = false;
    };
  }, []);

  // Leaving the page would lose it.
  useEffect(() => {
    if (!waiting) return;
    const ask = (e: BeforeUnloadEvent) => e.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [waiting]);

  const until = useCallback(async <T>(work: () => Promise<T>): Promise<T> => {
    for (let tries = 0; ; tries++) {
      try {
        const result = await work();
        setWaiting(null);
        return result;
      } catch (error) {
        if (!isPassing(error) || !alive.current) {
          setWaiting(null);
          throw error;
        }
        const goOn = await new Promise<boolean>((resolve) => {
          const timer = setTimeout(() => resolve(true), PAUSES[Math.min(tries, PAUSES.length - 1)]);
          const end = (value: boolean) => () => {
            clearTimeout(timer);
            resolve(value);
          };
          // Unreached, it says nothing itself.
          const message = error.status === 0 ? 'Bofta does not answer. Is it still running?' : error.message;
          setWaiting({ message, now: end(true), leave: end(false) });
        });
        if (!goOn) {
          setWaiting(null);
          throw error;
        }
      }
    }
  }, []);

  return { waiting, until };
}
