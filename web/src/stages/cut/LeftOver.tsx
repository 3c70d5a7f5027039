// What is left of the cloths once all is cut: entered in the cupboard with one press, and taken out again.
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Archive, Undo2 } from 'lucide-react';
import { Link } from 'react-router';
import { api, must } from '../../api/client';
import { useProject } from '../../project/ProjectContext';

export function LeftOver() {
  const { view } = useProject();
  const queries = useQueryClient();
  const key = ['left-over', view.id, view.revision];
  const path = { id: view.id };
  const left = useQuery({
    queryKey: key,
    queryFn: () => must(api.GET('/api/projects/{id}/left-over', { params: { path } })),
  });
  const enter = useMutation({
    mutationFn: (put: boolean) =>
      must(
        put
          ? api.POST('/api/projects/{id}/left-over', { params: { path } })
          : api.DELETE('/api/projects/{id}/left-over', { params: { path } }),
      ),
    onSuccess: (now) => {
      queries.setQueryData(key, now);
      queries.invalidateQueries({ queryKey: ['cupboard'] });
    },
  });
  if (left.isError) return <p className="mt-4 text-madder">{left.error.message}</p>;
  if (!left.data || left.data.cloths.length === 0) return null;
  const { cloths, in_cupboard: there } = left.data;
  return (
    <section aria-label="What is left" className="mt-5 border-t border-ruled pt-4">
      <h2 className="text-lg">What is left</h2>
      <dl className="mt-1">
        {cloths.map((cloth) => (
          <div
            key={cloth.name}
            className="flex flex-wrap gap-x-4 border-t border-ruled py-1 first:border-t-0"
          >
            <dt className="min-w-40 font-bold">{cloth.name}</dt>
            <dd className="flex-1">
              {cloth.kept || <span className="text-soft">nothing worth keeping</span>}
              {cloth.used && <span className="block text-sm text-soft">cut into: {cloth.used}</span>}
            </dd>
          </div>
        ))}
      </dl>
      {left.data.not_there.map((line) => (
        <p key={line} className="mt-2 font-bold text-madder">
          {line}
        </p>
      ))}
      {left.data.became && <p className="mt-2">{left.data.became}</p>}
      <div className="mt-3 flex flex-wrap items-center gap-3" aria-live="polite">
        {there ? (
          <>
            <span className="font-bold text-woad">
              It is in the <Link to="/cupboard">cupboard</Link>.
            </span>
            <button
              type="button"
              className="btn"
              disabled={enter.isPending}
              onClick={() => enter.mutate(false)}
            >
              <Undo2 size={16} /> Remove again
            </button>
          </>
        ) : (
          <button
            type="button"
            className="btn btn-act"
            disabled={enter.isPending}
            onClick={() => enter.mutate(true)}
          >
            <Archive size={16} /> Add it to the cupboard
          </button>
        )}
        {enter.isError && <span className="font-bold text-madder">{enter.error.message}</span>}
      </div>
    </section>
  );
}
