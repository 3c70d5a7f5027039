// Pre-cuts of one's own: what the house calls a size it always has. Its name is read wherever it is said what there is.
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, done, must } from '../api/client';
import { Field } from '../cupboard/Field';
import { type Outcome, outcomeOf, whyNot } from '../project/outcome';

const KEY = ['own-cuts'];
const EMPTY = { name: '', size: '' };

export function OwnCuts({ system }: { system: string }) {
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState(EMPTY);
  const [problem, setProblem] = useState<{ field: string; message: string } | null>(null);
  const kept = useQuery({ queryKey: KEY, queryFn: () => must(api.GET('/api/pre-cuts')), enabled: open });
  const after = (outcome: Outcome) => {
    const field = outcome.is === 'problems' ? (outcome.problems[0]?.field ?? '') : '';
    const why = whyNot(outcome).join(' ');
    setProblem(why ? { field, message: why } : null);
    queries.invalidateQueries({ queryKey: KEY });
    return outcome.is === 'ok';
  };
  const keep = async () => {
    const body = { ...typed, system };
    if (after(await outcomeOf(() => must(api.POST('/api/pre-cuts', { body }))))) setTyped(EMPTY);
  };
  const forget = async (name: string) =>
    after(
      await outcomeOf(() => done(api.DELETE('/api/pre-cuts/{key}', { params: { path: { key: name } } }))),
    );
  const field = (key: keyof typeof EMPTY, label: string, placeholder: string) => (
    <div className="min-w-32 flex-1">
      <Field
        label={label}
        placeholder={placeholder}
        value={typed[key]}
        problem={problem?.field === key ? problem.message : null}
        onChange={(value) => {
          setTyped({ ...typed, [key]: value });
          setProblem(null);
        }}
      />
    </div>
  );
  return (
    <details className="text-sm" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="font-bold text-chalk hover:underline">Pre-cuts of your own</summary>
      <form
        className="mt-1 flex flex-wrap items-start gap-x-3 gap-y-1"
        onSubmit={(e) => {
          e.preventDefault();
          void keep();
        }}
      >
        {field('name', 'Name of the pre-cut', 'swap square')}
        {field('size', 'Length and width', system === 'in' ? '6 x 6' : '15 x 15')}
        <button type="submit" className="btn sm:mt-[22px]">
          Save
        </button>
      </form>
      <div aria-live="polite">
        {problem && !(problem.field in EMPTY) && <p className="font-bold text-madder">{problem.message}</p>}
        {kept.isError && <p className="text-madder">{kept.error.message}</p>}
        {kept.data?.length === 0 && (
          <p className="text-soft">
            None yet. Name a pre-cut and give its size; then Bofta understands “3 swap squares”.
          </p>
        )}
        <ul className="flex flex-wrap gap-x-5 gap-y-1">
          {kept.data?.map((cut) => (
            <li key={cut.name} className="flex items-baseline gap-2">
              <span>
                <strong>{cut.name}</strong>{' '}
                {cut.unreadable ? <span className="text-madder">{cut.unreadable}</span> : cut.size}
              </span>
              <button
                type="button"
                className="rounded-[2px] font-bold text-chalk hover:underline"
                aria-label={`Delete ${cut.name}`}
                onClick={() => forget(cut.name)}
              >
                forget
              </button>
            </li>
          ))}
        </ul>
      </div>
    </details>
  );
}
