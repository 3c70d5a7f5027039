// A row to type into, at the end of a cut list or where there is none yet.
import { Plus } from 'lucide-react';
import { useRef, useState } from 'react';
import { useChoices } from '../../api/useChoices';
import { SelectField } from '../../fields/SelectField';
import { useProject } from '../../project/ProjectContext';

const FIELDS = [
  ['count', 'How many'],
  ['name', 'Piece'],
  ['width', 'Wide'],
  ['height', 'Tall'],
] as const;
const EMPTY = { count: '1', name: '', width: '', height: '' };

export function AddRow() {
  const { view, edit } = useProject();
  const { parts } = useChoices();
  const [typed, setTyped] = useState(EMPTY);
  const [part, setPart] = useState('outer');
  const [problems, setProblems] = useState<Record<string, string>>({});
  const first = useRef<HTMLInputElement>(null);
  const add = async () => {
    const outcome = await edit({ edit: 'add-row', part, ...typed });
    const found = outcome.is === 'problems' ? outcome.problems.map((p) => [p.field, p.message]) : [];
    setProblems(Object.fromEntries(outcome.is === 'unreached' ? [['row', outcome.message]] : found));
    if (outcome.is !== 'ok') return;
    setTyped(EMPTY);
    first.current?.focus();
  };
  const others = Object.entries(problems).filter(([field]) => !(field in EMPTY));
  return (
    <form
      aria-label="Add a row"
      className="flex flex-wrap items-start gap-x-3 gap-y-2 p-2"
      onSubmit={(e) => {
        e.preventDefault();
        add();
      }}
    >
      {FIELDS.map(([field, label]) => (
        <div key={field} className={field === 'name' ? 'min-w-40 flex-1' : 'w-24'}>
          <label htmlFor={`new-row-${field}`} className="block text-sm text-soft">
            {label}
          </label>
          <div className="relative">
            <input
              id={`new-row-${field}`}
              ref={field === 'count' ? first : undefined}
              className={`field ${field === 'width' || field === 'height' ? 'pr-8' : ''}`}
              autoComplete="off"
              value={typed[field]}
              aria-invalid={field in problems}
              aria-describedby={`new-row-${field}-note`}
              onFocus={(e) => e.target.select()}
              onChange={(e) => {
                setTyped({ ...typed, [field]: e.target.value });
                setProblems({});
              }}
            />
            {(field === 'width' || field === 'height') && (
              <span className="pointer-events-none absolute top-1/2 right-2 -translate-y-1/2 text-sm text-soft">
                {view.system}
              </span>
            )}
          </div>
          <p id={`new-row-${field}-note`} aria-live="polite" className="text-sm font-bold text-madder">
            {problems[field]}
          </p>
        </div>
      ))}
      <SelectField label="Part" value={part} choices={parts} onChoose={setPart} />
      <button type="submit" className="btn mt-[22px]">
        <Plus size={17} /> Add the row
      </button>
      {others.map(([field, message]) => (
        <p key={field} role="alert" className="w-full text-sm font-bold text-madder">
          {message}
        </p>
      ))}
    </form>
  );
}
