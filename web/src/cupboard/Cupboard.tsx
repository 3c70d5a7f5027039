// The cupboard: the cloths known to the house.
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { Link } from 'react-router';
import { api, must } from '../api/client';
import { Drawing } from '../drawing/Drawing';

export function Cupboard() {
  const queries = useQueryClient();
  const cupboard = useQuery({ queryKey: ['cupboard'], queryFn: () => must(api.GET('/api/cupboard')) });
  useEffect(() => {
    document.title = 'The cupboard · Bofta';
  }, []);
  const drop = async (id: string) => {
    queries.setQueryData(
      ['cupboard'],
      await must(api.DELETE('/api/cupboard/{id}', { params: { path: { id } } })),
    );
  };
  return (
    <main className="mx-auto max-w-[1280px] px-5 pb-10">
      <header className="flex flex-wrap items-end gap-4 pt-5 pb-4">
        <h1 className="text-[34px] leading-none">The cupboard</h1>
        <p className="flex-1 text-soft">Cloths that any project can take.</p>
        <Link to="/" className="btn">
          To the shelf
        </Link>
      </header>
      <div aria-hidden="true" className="ticks mb-6 h-5 rounded border border-tape-edge bg-tape" />
      {cupboard.isPending && <p className="text-soft">Opening the cupboard …</p>}
      {cupboard.isError && (
        <p role="alert" className="sheet p-4">
          {cupboard.error.message}
        </p>
      )}
      {cupboard.data?.length === 0 && (
        <p className="sheet max-w-xl p-5">
          The cupboard is empty. In a project, under Cloth, “Keep in the cupboard” puts a cloth here.
        </p>
      )}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(230px,1fr))] gap-4">
        {cupboard.data?.map((c) => (
          <li key={c.id} className="sheet flex flex-col overflow-hidden">
            <Drawing drawing={c.swatch} label={`${c.name}, its print`} className="h-24 w-full object-cover" />
            <div className="flex flex-1 flex-col p-3">
              <h2 className="text-lg leading-tight">{c.name}</h2>
              <p className="text-soft">
                {c.material}, {c.width} wide{c.price ? `, ${c.price}` : ''}
              </p>
              {c.owned && <p className="font-bold text-woad">{c.owned} here</p>}
              <button
                type="button"
                className="btn mt-3 self-start"
                onClick={() => drop(c.id)}
                aria-label={`Take ${c.name} out of the cupboard`}
              >
                Take out
              </button>
            </div>
          </li>
        ))}
      </ul>
    </main>
  );
}
