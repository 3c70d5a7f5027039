// The end of a list of which more is there: coming into sight, or pressed, it asks for the next stretch.
import { useEffect, useRef } from 'react';
import type { Stretches } from './useStretches';

export function More<T>({ of }: { of: Stretches<T> }) {
  const end = useRef<HTMLDivElement>(null);
  const more = useRef(of.more);
  more.current = of.more;
  const count = of.entries.length;
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at again after each stretch, which may not fill the view
  useEffect(() => {
    if (!end.current || !of.hasMore) return;
    const watch = new IntersectionObserver(([seen]) => seen?.isIntersecting && more.current(), {
      rootMargin: '600px',
    });
    watch.observe(end.current);
    return () => watch.disconnect();
  }, [of.hasMore, count]);
  if (!of.hasMore) return null;
  return (
    <div ref={end} className="mt-4 flex items-center gap-3 text-soft">
      <button type="button" className="btn" onClick={of.more}>
        More
      </button>
      <span>
        {count} of {of.found}
      </span>
    </div>
  );
}
