// The shelf: every project as a card with its own small lay and where it stands.
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Plus, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, type Card, must, Refused } from '../api/client';
import { Drawing } from '../drawing/Drawing';
import { ChoiceField } from '../fields/ChoiceField';

export function Shelf() {
  const queries = useQueryClient();
  const shelf = useQuery({
    queryKey: ['shelf'],
    queryFn: () => must(api.GET('/api/projects')),
    staleTime: 0,
  });
  const [putAway, setPutAway] = useState<Card | null>(null);
  useEffect(() => {
    document.title = 'Bofta';
  }, []);
  const remove = useMutation({
    mutationFn: async (card: Card) => {
      await api.DELETE('/api/projects/{id}', { params: { path: { id: card.id } } });
      return card;
    },
    onSuccess: (card) => {
      setPutAway(card);
      queries.invalidateQueries({ queryKey: ['shelf'] });
    },
  });
  const restore = async () => {
    if (putAway) await api.POST('/api/projects/{id}/restore', { params: { path: { id: putAway.id } } });
    setPutAway(null);
    queries.invalidateQueries({ queryKey: ['shelf'] });
  };
  return (
    <main className="mx-auto max-w-[1280px] px-5 pb-10">
      <header className="flex flex-wrap items-end gap-4 pt-5 pb-4">
        <h1 className="text-[34px] leading-none">Bofta</h1>
        <p className="flex-1 text-soft">What to cut from which cloth, and what to buy.</p>
        <Link to="/cupboard" className="btn">
          The cupboard
        </Link>
      </header>
      <div aria-hidden="true" className="ticks mb-6 h-5 rounded border border-tape-edge bg-tape" />
      {putAway && (
        <p role="status" className="sheet mb-4 flex items-center gap-3 px-3 py-2">
          <span>“{putAway.name}” is put away.</span>
          <button type="button" className="btn" onClick={restore}>
            Put it back
          </button>
        </p>
      )}
      {shelf.isPending && <p className="text-soft">Looking at the shelf …</p>}
      {shelf.isError && (
        <div role="alert" className="sheet p-4">
          <p>{shelf.error.message}</p>
          <button type="button" className="btn mt-3" onClick={() => shelf.refetch()}>
            Try again
          </button>
        </div>
      )}
      {shelf.data && (
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(270px,1fr))] gap-4">
          <li>
            <NewProject first={shelf.data.length === 0} />
          </li>
          {shelf.data.map((card) => (
            <li key={card.id} className="sheet group relative flex flex-col">
              <Link
                to={`/projects/${card.id}/${card.state === 'needs cloth' ? 'cloth' : 'lay'}`}
                className="flex flex-1 flex-col p-4"
              >
                <span className="flex h-[110px] items-center gap-4">
                  {card.drawings.length === 0 && <span className="text-soft">no cloth yet</span>}
                  {card.drawings.map((d, i) => (
                    <Drawing
                      // biome-ignore lint/suspicious/noArrayIndexKey: drawings have no key of their own and never move
                      key={i}
                      drawing={d}
                      label={`Lay ${i + 1} of ${card.name}`}
                      className="max-h-[104px] min-w-0 flex-1"
                    />
                  ))}
                </span>
                <span className="mt-3 font-heading text-lg">{card.name}</span>
                <span className="text-soft">{card.bag}</span>
                <span className="mt-2 border-t border-ruled pt-2 font-bold">{card.state}</span>
              </Link>
              <button
                type="button"
                className="absolute right-2 bottom-2 rounded p-1.5 text-soft hover:bg-calico hover:text-madder"
                aria-label={`Put ${card.name} away`}
                title="Put away"
                onClick={() => remove.mutate(card)}
              >
                <Trash2 size={17} />
              </button>
            </li>
          ))}
        </ul>
      )}
    </main>
  );
}

function NewProject({ first }: { first: boolean }) {
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const [system, setSystem] = useState(() => localStorage.getItem('bofta-system') ?? 'in');
  const [problem, setProblem] = useState<string | null>(null);
  const begin = useMutation({
    mutationFn: () => must(api.POST('/api/projects', { body: { name, system } })),
    onSuccess: (view) => {
      localStorage.setItem('bofta-system', system);
      navigate(`/projects/${view.id}/bag`);
    },
    onError: (error) => setProblem(error instanceof Refused ? error.message : String(error)),
  });
  return (
    <form
      className="flex h-full flex-col gap-3 rounded border-2 border-dashed border-[#b3a68d] p-4"
      onSubmit={(e) => {
        e.preventDefault();
        begin.mutate();
      }}
    >
      <h2 className="text-lg">{first ? 'Begin with a bag' : 'Another bag'}</h2>
      {first && (
        <p className="text-soft">
          Name it, say its size, choose a cloth: the cut list, the lay and the shopping list follow.
        </p>
      )}
      <div>
        <label htmlFor="new-name" className="text-sm text-soft">
          What will it be?
        </label>
        <input
          id="new-name"
          className="field"
          value={name}
          placeholder="Market tote"
          aria-invalid={problem !== null}
          aria-describedby="new-problem"
          onChange={(e) => {
            setName(e.target.value);
            setProblem(null);
          }}
        />
        <p id="new-problem" aria-live="polite" className="text-sm font-bold text-madder">
          {problem}
        </p>
      </div>
      <ChoiceField
        label="Measured in"
        inline
        value={system}
        onChoose={setSystem}
        choices={[
          { value: 'in', name: 'inches' },
          { value: 'cm', name: 'centimetres' },
        ]}
      />
      <button type="submit" className="btn btn-act mt-auto self-start" disabled={begin.isPending}>
        <Plus size={17} /> Begin
      </button>
    </form>
  );
}
