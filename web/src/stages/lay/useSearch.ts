// The search, live. Each better lay is kept as it is found, and the whole project is read again with it, so that lay,
// tally and list always show the same one. Leaving the page, an edit or Stop closes the stream, which stops it.
import { useCallback, useEffect, useRef, useState } from 'react';

export interface Search {
  running: boolean;
  seconds: number;
  iterations: number;
  ended: 'proven' | 'time' | 'stopped' | 'failed' | null;
  start: () => void;
  stop: () => void;
}

/** Better lays come faster than they are worth showing. */
const SHOWN_EVERY = 350;

export function useSearch(id: string, revision: number, onBetter: () => void): Search {
  const source = useRef<EventSource | null>(null);
  const [state, setState] = useState({ running: false, seconds: 0, iterations: 0 });
  const [ended, setEnded] = useState<Search['ended']>(null);
  const better = useRef(onBetter);
  better.current = onBetter;
  const soon = useRef<number | null>(null);

  const show = useCallback(() => {
    if (soon.current) window.clearTimeout(soon.current);
    soon.current = null;
    better.current();
  }, []);

  const close = useCallback(
    (why: Search['ended']) => {
      if (!source.current) return;
      source.current.close();
      source.current = null;
      setState((s) => ({ ...s, running: false }));
      setEnded(why);
      show();
    },
    [show],
  );

  const start = useCallback(() => {
    source.current?.close();
    const stream = new EventSource(`/api/projects/${id}/search?seconds=20`);
    source.current = stream;
    setEnded(null);
    setState({ running: true, seconds: 0, iterations: 0 });
    stream.addEventListener('lay', () => {
      soon.current ??= window.setTimeout(show, SHOWN_EVERY);
    });
    stream.addEventListener('progress', (e) => {
      const { seconds, iterations } = JSON.parse(e.data);
      setState({ running: true, seconds, iterations });
    });
    stream.addEventListener('done', (e) => {
      const done = JSON.parse(e.data);
      setState({ running: true, seconds: done.seconds, iterations: done.iterations });
      close(done.proven ? 'proven' : 'time');
    });
    stream.onerror = () => close('failed');
  }, [id, close, show]);

  // Another revision is another job: what is searched for no longer counts.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the revision is what this is about
  useEffect(() => {
    source.current?.close();
    source.current = null;
    setState({ running: false, seconds: 0, iterations: 0 });
    setEnded(null);
    return () => {
      source.current?.close();
      source.current = null;
    };
  }, [id, revision]);

  return { ...state, ended, start, stop: () => close('stopped') };
}
