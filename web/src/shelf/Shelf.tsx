// The shelf: every project as a card with its own small lay and where it stands; drawn as it scrolls, found by name.
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Plus, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { ApiError, api, type Card, done, must } from '../api/client';
import { asChoices, useChoices } from '../api/useChoices';
import { Drawing } from '../drawing/Drawing';
import { ChoiceField } from '../fields/ChoiceField';
import { FindByName } from '../frame/FindByName';
import { More } from '../frame/More';
import { useStretches } from '../frame/useStretches';
import { Kinds } from '../stages/bag/Kinds';

/** With fewer projects than this all are in sight. */
const FOUND_AT_A_GLANCE = 12;

export function Shelf() {
  const queries = useQueryClient();
  const [find, setFind] = useState('');
  const shelf = useStretches<Card>(
    'shelf',
    find,
    async (query) => {
      const { cards, found, total } = await must(api.GET('/api/projects', { params: { query } }));
      return { entries: cards, found, total };
    },
    (card) => card.pending,
  );
  const [putAway, setPutAway] = useState<Card | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    document.title = 'Bofta';
  }, []);
  const failed = (error: unknown) => setProblem(error instanceof ApiError ? error.message : String(error));
  const remove = useMutation({
    mutationFn: async (card: Card) => {
      await done(api.DELETE('/api/projects/{id}', { params: { path: { id: card.id } } }));
      return card;
    },
    onSuccess: (card) => {
      setPutAway(card);
      setProblem(null);
      queries.invalidateQueries({ queryKey: ['shelf'] });
      queries.invalidateQueries({ queryKey: ['drawer'] });
    },
    onError: failed,
  });
  const restore = async () => {
    if (!putAway) return;
    try {
      await done(api.POST('/api/projects/{id}/restore', { params: { path: { id: putAway.id } } }));
      setPutAway(null);
      setProblem(null);
    } catch (error) {
      failed(error);
    }
    queries.invalidateQueries({ queryKey: ['shelf'] });
  };
  const said = problem ?? shelf.problem;
  return (
    <main className="mx-auto max-w-[1280px] px-5 pb-10">
      <header className="flex flex-wrap items-end gap-4 pt-5 pb-4">
        <h1 className="text-[34px] leading-none">Bofta</h1>
        <p className="w-full flex-1 text-soft max-[600px]:flex-none">
          What to cut from which cloth, and what to buy.
        </p>
        <FindByName
          label="Find a project by its name"
          total={shelf.total}
          atAGlance={FOUND_AT_A_GLANCE}
          find={find}
          onFind={setFind}
        />
        <Link to="/cupboard" className="btn">
          The cupboard
        </Link>
        <Link to="/drawer" className="btn">
          The drawer
        </Link>
      </header>
      <div aria-hidden="true" className="ticks mb-6 h-5 rounded border border-tape-edge bg-tape" />
      {putAway && (
        <p role="status" className="sheet mb-4 flex items-center gap-3 px-3 py-2">
          <span>“{putAway.name}” is in the drawer.</span>
          <button type="button" className="btn" onClick={restore}>
            Restore
          </button>
        </p>
      )}
      {!shelf.isDone && !said && <p className="text-soft">Opening the shelf …</p>}
      {said && (
        <div role="alert" className="sheet mb-4 p-4">
          <p>{said}</p>
          <button type="button" className="btn mt-3" onClick={shelf.again}>
            Try again
          </button>
        </div>
      )}
      {shelf.isDone && find === '' && <NewProject first={shelf.total === 0} />}
      {shelf.isDone && (
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(270px,1fr))] gap-4">
          {shelf.entries.map((card) => (
            <li key={card.id} className="sheet group relative flex flex-col">
              {card.unreadable ? <Unreadable card={card} /> : <OnTheShelf card={card} />}
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
      {shelf.isDone && find !== '' && (
        <p role="status" className={shelf.found === 0 ? 'sheet max-w-xl p-5' : 'sr-only'}>
          {shelf.found === 0 ? `No project is called “${find}”.` : `${shelf.found} found`}
        </p>
      )}
      <More of={shelf} />
    </main>
  );
}

function OnTheShelf({ card }: { card: Card }) {
  return (
    <Link
      to={`/projects/${card.id}/${card.stage}`}
      className="flex flex-1 flex-col p-4"
      aria-busy={card.pending}
    >
      <span className="flex h-[110px] items-center gap-4">
        {card.drawings.length === 0 && (
          <span className="text-soft">{card.pending ? 'planning …' : 'no cloth yet'}</span>
        )}
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
      <span className="mt-2 border-t border-ruled pt-2 pr-8 font-bold">{card.state}</span>
    </Link>
  );
}

/** What this version cannot read is shown as such; its text is not lost. */
function Unreadable({ card }: { card: Card }) {
  return (
    <div className="flex flex-1 flex-col border-l-4 border-madder p-4">
      <span className="font-heading text-lg">{card.name}</span>
      <p className="mt-1 text-madder">Bofta cannot open this project: {card.unreadable}.</p>
      <a
        className="btn mt-auto self-start"
        href={`/api/projects/${card.id}/document.json`}
        download={`${card.id}.json`}
      >
        Save its text
      </a>
    </div>
  );
}

function NewProject({ first }: { first: boolean }) {
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const [system, setSystem] = useState(() => localStorage.getItem('bofta-system') ?? 'in');
  const [family, setFamily] = useState('tote');
  const { systems } = useChoices();
  const [problem, setProblem] = useState<string | null>(null);
  // On a narrow screen the bags there are come first.
  const [open, setOpen] = useState(() => first || window.innerWidth >= 640);
  const begin = useMutation({
    mutationFn: () => must(api.POST('/api/projects', { body: { name, system, family } })),
    onSuccess: (view) => {
      localStorage.setItem('bofta-system', system);
      navigate(`/projects/${view.id}/bag`);
    },
    onError: (error) => setProblem(error instanceof ApiError ? error.message : String(error)),
  });
  if (!open) {
    return (
      <button type="button" className="btn btn-act mb-5" onClick={() => setOpen(true)}>
        <Plus size={17} /> Another bag
      </button>
    );
  }
  return (
    <form
      aria-label="A new bag"
      className="mb-5 flex flex-col gap-x-6 gap-y-3 rounded border-2 border-dashed border-[#b3a68d] p-4 lg:flex-row"
      onSubmit={(e) => {
        e.preventDefault();
        begin.mutate();
      }}
    >
      <div className="min-w-0 flex-1">
        <h2 className="text-lg">{first ? 'Begin with a bag' : 'Another bag'}</h2>
        <p className="mb-1 text-soft">
          {first
            ? 'Choose a kind of bag, name it, and give its size and cloth. Bofta works out the cut list, the layout and the shopping list.'
            : 'Which kind is it?'}
        </p>
        <Kinds small chosen={family} onChoose={setFamily} />
      </div>
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2 lg:w-64">
        <div className="min-w-44 flex-1">
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
          choices={asChoices(systems)}
        />
        <button type="submit" className="btn btn-act" disabled={begin.isPending}>
          <Plus size={17} /> Begin
        </button>
      </div>
    </form>
  );
}
