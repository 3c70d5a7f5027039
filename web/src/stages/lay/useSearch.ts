// The search, live: each better lay as it comes. Leaving the page, an edit or Stop closes the stream, which stops it.
import { useCallback, useEffect, useRef, useState } from 'react';
import type { LayView } from '../../api/client';

export interface Search {
  running: boolean;
  seconds: number;
  iterations: number;
  lay: LayView | null;
  ended: 'proven' | 'time' | 'stopped' | 'failed' | null;
  start: () => void;
  stop: () => void;
}

export function useSearch(id: string, revision: number, onEnd: () => void): Search {
  const source = useRef<EventSource | null>(null);
  const [state, setState] = useState({ running: false, seconds: 0, iterations: 0 });
  const [lay, setLay] = useState<LayView | null>(null);
  const [ended, setEnded] = useState<Search['ended']>(null);
  const end = useRef(onEnd);
  end.current = onEnd;

  const close = useCallback((why: Search['ended']) => {
    if (!source.current) return;
    source.current.close();
    source.current = null;
    setState((s) => ({ ...s, running: false }));
    setEnded(why);
    end.current();
  }, []);

  const start = useCallback(() => {
    source.current?.close();
    const stream = new EventSource(`/api/projects/${id}/search?seconds=20`);
    source.current = stream;
    setEnded(null);
    setState({ running: true, seconds: 0, iterations: 0 });
    stream.addEventListener('lay', (e) => setLay(JSON.parse(e.data)));
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
  }, [id, close]);

  // Another revision is another job: what is searched for no longer counts.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the revision is what this is about
  useEffect(() => {
    source.current?.close();
    source.current = null;
    setState({ running: false, seconds: 0, iterations: 0 });
    setLay(null);
    setEnded(null);
    return () => {
      source.current?.close();
      source.current = null;
    };
  }, [id, revision]);

  return { ...state, lay, ended, start, stop: () => close('stopped') };
}
