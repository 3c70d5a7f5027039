// What could be made of the cloths that are found: the bags on the shelf and the usual ones, each drawn in them.
import { useQuery } from '@tanstack/react-query';
import { Scissors } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, type Make, must } from '../api/client';
import { Drawing } from '../drawing/Drawing';

export function Makes({ find }: { find: string }) {
  const [open, setOpen] = useState(false);
  return (
    <section aria-label="What could be made" className="mb-6">
      <button type="button" className="btn" aria-expanded={open} onClick={() => setOpen(!open)}>
        <Scissors size={16} aria-hidden="true" className="mr-1 inline" />
        What could I make of {find.trim() === '' ? 'all this' : 'these'}?
      </button>
      {open && <Tried find={find.trim()} />}
    </section>
  );
}

function Tried({ find }: { find: string }) {
  const [why, setWhy] = useState<string | null>(null);
  const makes = useQuery({
    queryKey: ['cupboard', 'makes', find],
    queryFn: ({ signal }) => must(api.GET('/api/cupboard/makes', { params: { query: { find } }, signal })),
    retry: false,
  });
  if (makes.isError) {
    return (
      <div role="alert" className="sheet mt-3 p-4">
        <p>{makes.error.message}</p>
      </div>
    );
  }
  if (!makes.data) {
    return (
      <p role="status" className="mt-3 text-soft">
        Trying your bags and the usual kinds in these cloths …
      </p>
    );
  }
  const { makes: found, not, untried, cloths } = makes.data;
  return (
    <div className="mt-3">
      <p role="status" className="mb-3">
        {found.length === 0 ? (
          <>
            <strong>No bag</strong> comes from{' '}
            {cloths === 0 ? 'these: nothing of them is here' : count(cloths, 'cloth')}, not at half its size
            either.
          </>
        ) : (
          <>
            <strong>{count(found.length, 'bag')}</strong> of {count(cloths, 'cloth')}, with nothing bought of
            them.
          </>
        )}
      </p>
      <p aria-live="polite" className="font-bold text-madder">
        {why}
      </p>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(250px,1fr))] gap-3">
        {found.map((make) => (
          <Card key={JSON.stringify(make.which)} make={make} find={find} onProblem={setWhy} />
        ))}
      </ul>
      <Names lead="Not possible from these" names={not} />
      <Names lead="Not finished in the time allowed" names={untried} />
    </div>
  );
}

function Card({
  make,
  find,
  onProblem,
}: {
  make: Make;
  find: string;
  onProblem: (why: string | null) => void;
}) {
  const navigate = useNavigate();
  const [busy, setBusy] = useState(false);
  const begin = async () => {
    setBusy(true);
    try {
      const body = { find, which: make.which, percent: make.percent };
      const view = await must(api.POST('/api/cupboard/makes', { body }));
      navigate(`/projects/${view.id}/lay`);
    } catch (error) {
      onProblem(error instanceof Error ? error.message : String(error));
      setBusy(false);
    }
  };
  const own = 'shelf' in make.which;
  return (
    <li className="sheet flex flex-col p-2" aria-label={make.name}>
      <Drawing drawing={make.drawing} label={`${make.name}, ${make.cloths.join('; ')}`} className="w-full" />
      <h2 className="mt-1 text-base leading-tight">
        {make.name}
        <span className="text-soft"> · {own ? 'on the shelf' : 'the usual one'}</span>
      </h2>
      <p>
        {make.bag}
        {make.percent < 100 && <strong> · at {make.percent} % of its size</strong>}
      </p>
      <ul className="text-sm text-soft">
        {make.cloths.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      {make.besides && <p className="text-sm font-bold text-madder">{make.besides}</p>}
      <button type="button" className="btn mt-2 self-start" disabled={busy} onClick={begin}>
        Begin it{own && ' as a new bag'}
      </button>
    </li>
  );
}

/** A long shelf is told by its first names and how many more there are. */
const MOST_NAMED = 40;

function Names({ lead, names }: { lead: string; names: string[] }) {
  if (names.length === 0) return null;
  return (
    <p className="mt-3 text-sm text-soft">
      {lead}: {names.slice(0, MOST_NAMED).join(', ')}
      {names.length > MOST_NAMED && `, and ${names.length - MOST_NAMED} more`}.
    </p>
  );
}

const count = (n: number, word: string) => `${n} ${word}${n === 1 ? '' : 's'}`;
