// What a plan leaves out, said wherever the plan is shown: how many pieces, which, and by how much of which cloth it is short.
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useLocation } from 'react-router';
import { api, must } from '../api/client';
import { useProject } from '../project/ProjectContext';

/** So many ways out are shown at first. */
const FIRST = 6;

export function NotWhole({ className = '' }: { className?: string }) {
  const { view } = useProject();
  const missing = view.lay?.missing;
  if (!missing) return null;
  return (
    <section
      role="alert"
      aria-label="Not enough cloth"
      className={`rounded border-2 border-madder bg-paper px-3 py-2 ${className}`}
    >
      <p>
        <strong className="text-madder">Not enough cloth:</strong> {missing.headline}
        <span className="text-soft"> ({missing.pieces.join(', ')})</span>
      </p>
      {missing.told.map((line) => (
        <p key={line}>{line}</p>
      ))}
      <WaysOut />
    </section>
  );
}

/** What would lay the rest, each with its price; tried by laying it. */
function WaysOut() {
  const { view, edit } = useProject();
  const onCloth = useLocation().pathname.endsWith('/cloth');
  const [all, setAll] = useState(false);
  const ways = useQuery({
    queryKey: ['ways-out', view.id, view.revision],
    queryFn: () => must(api.GET('/api/projects/{id}/ways-out', { params: { path: { id: view.id } } })),
    enabled: view.steps_done === 0,
  });
  const shown = all ? (ways.data ?? []) : (ways.data ?? []).slice(0, FIRST);
  return (
    <div className="mt-1 print:hidden">
      {ways.isPending && view.steps_done === 0 && <p className="text-soft">Looking for ways out …</p>}
      {shown.length > 0 && (
        <>
          <h2 className="text-sm">Ways out</h2>
          <ul className="mt-1 flex flex-wrap gap-2">
            {shown.map((way) => (
              <li key={way.name}>
                <button
                  type="button"
                  className="rounded border-[1.5px] border-indigo bg-paper px-3 py-1 text-left leading-tight hover:bg-[#f3e7bd]"
                  onClick={() => edit(...way.edits)}
                >
                  <span className="block font-bold">{way.name}</span>
                  <span className={`block text-sm ${way.whole ? 'text-woad' : 'text-soft'}`}>{way.told}</span>
                </button>
              </li>
            ))}
            {!all && (ways.data?.length ?? 0) > FIRST && (
              <li>
                <button type="button" className="btn" onClick={() => setAll(true)}>
                  {(ways.data?.length ?? 0) - FIRST} more
                </button>
              </li>
            )}
          </ul>
        </>
      )}
      <p className="mt-1 flex flex-wrap gap-x-4">
        {ways.isSuccess && ways.data.length === 0 && view.steps_done === 0 && (
          <span>No single change of cloth or layout makes room for them.</span>
        )}
        {!onCloth && (
          <Link to={`/projects/${view.id}/cloth`} className="font-bold text-chalk underline">
            Choose the cloth
          </Link>
        )}
      </p>
    </div>
  );
}
