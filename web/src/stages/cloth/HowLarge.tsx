// How large the bag can be from what there is: asked, answered by laying it at one size after another.
import { useMutation } from '@tanstack/react-query';
import { useEffect } from 'react';
import { api, must } from '../../api/client';
import { useProject } from '../../project/ProjectContext';

export function HowLarge() {
  const { view, edit } = useProject();
  const ask = useMutation({
    mutationFn: () => must(api.GET('/api/projects/{id}/largest', { params: { path: { id: view.id } } })),
  });
  const { reset } = ask;
  // An answer is for the bag and the cloth as they were when it was asked.
  // biome-ignore lint/correctness/useExhaustiveDependencies: at each revision
  useEffect(() => reset(), [view.revision]);
  const limited = view.lay && view.cloths.some((c) => c.at_hand !== '' && !c.buy_more && c.parts.length > 0);
  if (!limited || view.steps_done > 0) return null;
  const { percent, bag, limited: why, edits } = ask.data ?? {};
  return (
    <div className="mb-4 flex flex-wrap items-center gap-x-4 gap-y-2" aria-live="polite">
      <button type="button" className="btn" disabled={ask.isPending} onClick={() => ask.mutate()}>
        {ask.isPending ? 'Trying sizes …' : 'What’s the biggest bag I can make from this?'}
      </button>
      {ask.isError && <p className="font-bold text-madder">{ask.error.message}</p>}
      {ask.isSuccess && (
        <p className="min-w-60 flex-1 leading-snug">
          {percent === 100 && <strong>As big as the bag is now. </strong>}
          {percent && percent !== 100 && (
            <>
              <strong>{bag}</strong>: {percent} % of its present size.{' '}
            </>
          )}
          {why} <span className="text-soft">A quick answer. A longer search may find a little more.</span>
        </p>
      )}
      {edits && edits.length > 0 && (
        <button type="button" className="btn btn-act" onClick={() => edit(...edits)}>
          Use this size
        </button>
      )}
    </div>
  );
}
