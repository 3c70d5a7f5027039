// What of a cloth is in the cupboard: whether other bags plan with it too, and laying it aside for this bag.
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, type ClothView, done, must } from '../../api/client';
import { outcomeOf, whyNot } from '../../project/outcome';
import { useProject } from '../../project/ProjectContext';

export function InCupboard({ cloth }: { cloth: ClothView }) {
  const { view } = useProject();
  const queries = useQueryClient();
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const claims = useQuery({
    queryKey: ['claims', view.id, view.revision],
    queryFn: () => must(api.GET('/api/projects/{id}/claims', { params: { path: { id: view.id } } })),
    enabled: view.cloths.some((c) => c.at_hand !== ''),
    placeholderData: (before) => before,
  });
  if (claims.isError && cloth.at_hand !== '') {
    return (
      <p className="mt-1 text-sm text-soft">
        Bofta could not check which other bags use this cloth: {claims.error.message}
      </p>
    );
  }
  const claim = claims.data?.find((c) => c.cloth === cloth.id);
  if (!claim) return null;
  const send = async (what: 'lay' | 'put-back') => {
    setBusy(true);
    const path = { id: view.id, cloth: cloth.id };
    const outcome = await outcomeOf(() =>
      done(api.POST('/api/projects/{id}/cloths/{cloth}/aside', { params: { path }, body: { what } })),
    );
    setProblem(whyNot(outcome).join(' ') || null);
    await Promise.all(['claims', 'cupboard'].map((key) => queries.invalidateQueries({ queryKey: [key] })));
    setBusy(false);
  };
  return (
    <div className="mt-1 text-sm" aria-live="polite">
      {claim.over.map((line) => (
        <p key={line} className="font-bold text-madder">
          In the cupboard: {line}
        </p>
      ))}
      {claim.laid !== '' && (
        <p className="flex flex-wrap items-baseline gap-x-2">
          <span>
            Set aside for this bag: <strong>{claim.laid}</strong>
          </span>
          <button
            type="button"
            className="font-bold text-chalk hover:underline"
            disabled={busy}
            aria-label={`Put ${cloth.name} back in the cupboard`}
            onClick={() => send('put-back')}
          >
            return
          </button>
        </p>
      )}
      {claim.to_lay !== '' && (
        <button
          type="button"
          className="text-left font-bold text-chalk hover:underline"
          disabled={busy}
          onClick={() => send('lay')}
        >
          Set aside for this bag: {claim.to_lay}
          <span className="sr-only"> of {cloth.name}</span>
        </button>
      )}
      {problem && <p className="font-bold text-madder">{problem}</p>}
    </div>
  );
}
