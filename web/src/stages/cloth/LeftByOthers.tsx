// What other bags leave of their cloths, as they are planned or cut: looked up when it is opened, and taken with one press.
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiError, api, must } from '../../api/client';
import { useProject } from '../../project/ProjectContext';

export function LeftByOthers() {
  const { view, put, notify } = useProject();
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const path = { id: view.id };
  const left = useQuery({
    queryKey: ['left-by-others', view.id, view.revision],
    queryFn: () => must(api.GET('/api/projects/{id}/left-by-others', { params: { path } })),
    enabled: open,
    // Another bag may have been changed meanwhile.
    staleTime: 0,
    placeholderData: (before) => before,
  });
  const take = async (project: string, cloth: string) => {
    try {
      const body = { based_on: view.revision, project, cloth };
      put(await must(api.POST('/api/projects/{id}/left-by-others', { params: { path }, body })));
      queries.invalidateQueries({ queryKey: ['project', view.id] });
    } catch (error) {
      if (error instanceof ApiError) notify(error.message);
    }
  };
  return (
    <details className="mb-2 border-b border-ruled pb-2" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="font-bold text-chalk hover:underline">What other bags leave</summary>
      <div className="mt-1" aria-live="polite">
        {left.isPending && open && <p className="text-soft">Reading their layouts …</p>}
        {left.isError && (
          <p role="alert" className="text-madder">
            {left.error.message}
          </p>
        )}
        {left.data?.length === 0 && <p className="text-soft">No other bag leaves a piece worth keeping.</p>}
        <ul className="flex flex-col gap-2">
          {left.data?.map((bag) => (
            <li key={bag.project}>
              <p className="font-bold leading-tight">
                {bag.name}
                <span className="font-normal text-soft"> · {bag.begun ? 'is being cut' : 'planned'}</span>
              </p>
              <ul>
                {bag.cloths.map((cloth) => (
                  <li key={cloth.name} className="mt-1 flex items-start gap-2 text-sm leading-tight">
                    <span className="min-w-0 flex-1">
                      {cloth.name}: <span className="text-woad">{cloth.kept}</span>
                    </span>
                    {cloth.taken_as && cloth.same ? (
                      <span className="text-soft">taken</span>
                    ) : (
                      <button
                        type="button"
                        className="btn px-2 py-0.5"
                        aria-label={`Take ${cloth.name}, left of ${bag.name}${cloth.taken_as ? ', as it is now' : ''}`}
                        onClick={() => take(bag.project, cloth.name)}
                      >
                        {cloth.taken_as ? 'Use it as it is now' : 'Take'}
                      </button>
                    )}
                  </li>
                ))}
              </ul>
            </li>
          ))}
        </ul>
      </div>
    </details>
  );
}
