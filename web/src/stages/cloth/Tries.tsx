// Ways of dressing the bag, kept and held beside each other; two cloths change places with one key.
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, must, type TryView } from '../../api/client';
import { Drawing } from '../../drawing/Drawing';
import { whyNot } from '../../project/outcome';
import { useProject } from '../../project/ProjectContext';

export function Tries() {
  const { view } = useProject();
  const [open, setOpen] = useState(view.tries > 0);
  const begun = view.steps_done > 0;
  const worth =
    view.cloths.filter((c) => c.parts.length > 0 || c.things.length > 0).length > 1 || view.tries > 0;
  if (begun || !worth) return null;
  return (
    <details className="sheet mb-4 p-3" open={open} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="cursor-pointer font-bold text-chalk hover:underline">
        Compare cloths{view.tries > 0 && `, ${view.tries} saved`}
      </summary>
      {open && <Beside />}
    </details>
  );
}

function Beside() {
  const { view, edit } = useProject();
  const [name, setName] = useState('');
  const [why, setWhy] = useState<string | null>(null);
  const tries = useQuery({
    queryKey: ['tries', view.id, view.revision],
    queryFn: () => must(api.GET('/api/projects/{id}/tries', { params: { path: { id: view.id } } })),
    placeholderData: (before) => before,
  });
  const swap = useSwap();
  const now = tries.data?.find((t) => t.chosen);
  return (
    <div className="mt-3">
      <form
        className="mb-3 flex flex-wrap items-end gap-2"
        onSubmit={async (e) => {
          e.preventDefault();
          const outcome = await edit({ edit: 'keep-try', name });
          setWhy(whyNot(outcome)[0] ?? null);
          if (outcome.is === 'ok') setName('');
        }}
      >
        <label className="text-sm text-soft">
          Save these cloths as
          <input
            className="field"
            value={name}
            placeholder={`Try ${view.tries + 1}`}
            aria-describedby="try-problem"
            onChange={(e) => {
              setName(e.target.value);
              setWhy(null);
            }}
          />
        </label>
        <button type="submit" className="btn" disabled={Boolean(now?.name)}>
          {now?.name ? `Saved as ${now.name}` : 'Save'}
        </button>
        {swap && (
          <button type="button" className="btn" onClick={swap.make} aria-keyshortcuts="x">
            Swap {swap.one} and {swap.other} <kbd className="ml-1 text-soft">x</kbd>
          </button>
        )}
      </form>
      <p id="try-problem" aria-live="polite" className="font-bold text-madder">
        {why}
      </p>
      {tries.isError && <p role="alert">{tries.error.message}</p>}
      {tries.isPending && <p className="text-soft">drawing it …</p>}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(250px,1fr))] gap-3">
        {tries.data?.map((one) => (
          <Card key={one.chosen ? ' now' : one.name} one={one} onProblem={setWhy} />
        ))}
      </ul>
    </div>
  );
}

function Card({ one, onProblem }: { one: TryView; onProblem: (why: string | null) => void }) {
  const { edit } = useProject();
  const make = async (kind: 'take-try' | 'forget-try') => {
    const outcome = await edit({ edit: kind, name: one.name });
    onProblem(whyNot(outcome)[0] ?? null);
  };
  const name = one.name || 'As it is now';
  return (
    <li
      className={`flex flex-col rounded border p-2 ${one.chosen ? 'border-2 border-indigo' : 'border-ruled'}`}
      aria-label={one.chosen ? `${name}, in use now` : name}
    >
      <Drawing drawing={one.drawing} label={`The bag, ${one.cloths.join('; ')}`} className="w-full" />
      <h2 className="mt-1 text-base leading-tight">
        {name}
        {one.chosen && one.name && <span className="text-soft"> · now</span>}
      </h2>
      <p>
        <strong>{one.bought}</strong>
        {one.cost && ` · ${one.cost}`}
        {one.difference && ` · ${one.difference}`}
        {one.glance && <span className="text-soft"> quick answer</span>}
      </p>
      {one.lacks && <p className="font-bold text-madder">{one.lacks}</p>}
      <ul className="text-sm text-soft">
        {one.cloths.map((p) => (
          <li key={p}>{p}</li>
        ))}
      </ul>
      {one.name && (
        <div className="mt-auto flex gap-2 pt-2">
          {!one.chosen && (
            <button type="button" className="btn" onClick={() => make('take-try')}>
              Use these cloths
            </button>
          )}
          <button
            type="button"
            className="btn"
            onClick={() => make('forget-try')}
            aria-label={`Delete ${name}`}
          >
            Forget
          </button>
        </div>
      )}
    </li>
  );
}

/** The cloths of the outside and the inside, or else the first two that are seen, and what makes them change places. */
function useSwap() {
  const { view, edit } = useProject();
  const of = (part: string) => view.cloths.find((c) => c.parts.includes(part));
  const seen = view.cloths.filter((c) => c.parts.some((p) => p !== 'backing' && p !== 'interfacing'));
  const one = of('outer') ?? seen[0];
  const other = [of('lining'), ...seen].find((c) => c && c.id !== one?.id);
  const pair = one && other ? { one: one.id, other: other.id } : null;
  useEffect(() => {
    if (!pair) return;
    const onKey = (e: KeyboardEvent) => {
      const typing =
        e.target instanceof HTMLElement && e.target.closest('input, textarea, select, [role=dialog]');
      if (e.key !== 'x' || e.ctrlKey || e.metaKey || e.altKey || e.repeat || typing) return;
      e.preventDefault();
      edit({ edit: 'swap-cloths', ...pair });
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
  return pair && one && other
    ? { one: one.name, other: other.name, make: () => edit({ edit: 'swap-cloths', ...pair }) }
    : null;
}
