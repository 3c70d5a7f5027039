// A zip, rings, webbing into the cupboard; the form stays open for the next.
import { Plus } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useId, useState } from 'react';
import type { ProblemView } from '../../api/client';
import { useChoices } from '../../api/useChoices';
import { SelectField } from '../../fields/SelectField';
import { Field } from '../Field';
import { useNotionChanges } from './useNotions';

const KINDS = [
  { key: 'piece', name: 'By the piece' },
  { key: 'webbing', name: 'Webbing' },
  { key: 'cord', name: 'Cord' },
  { key: 'tape', name: 'Ribbon or tape' },
  { key: 'zip', name: 'Zip by the length' },
];
/** What the drafts of bags call what they need. */
const NAMES = ['Zip', 'Zip with two sliders', 'D-ring', 'Swivel hook', 'Slider', 'Magnetic snap'];
const EMPTY = { name: '', size: '', amount: '', place: '' };

export function PutNotionIn() {
  const { systems } = useChoices();
  const { putIn } = useNotionChanges();
  const [kind, setKind] = useState('piece');
  const [system, setSystem] = useState('in');
  const [typed, setTyped] = useState(EMPTY);
  const [problem, setProblem] = useState<Pick<ProblemView, 'field' | 'message'> | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const names = useId();
  const byPiece = kind === 'piece';
  const send = async () => {
    setSaid(null);
    const outcome = await putIn({ ...typed, kind, system });
    if (outcome.is === 'problems') return setProblem(outcome.problems[0] ?? null);
    if (outcome.is === 'unreached') return setProblem({ field: '', message: outcome.message });
    setProblem(null);
    setSaid(`${typed.name.trim() || KINDS.find((k) => k.key === kind)?.name} is in the cupboard.`);
    // The next is most likely kept in the same place.
    setTyped({ ...EMPTY, place: typed.place });
  };
  const field = (key: keyof typeof EMPTY, label: string, placeholder: string) => (
    <Field
      label={label}
      placeholder={placeholder}
      list={key === 'name' && byPiece ? names : undefined}
      value={typed[key]}
      problem={problem?.field === key ? problem.message : null}
      onChange={(value) => {
        setTyped({ ...typed, [key]: value });
        setProblem(null);
      }}
    />
  );
  return (
    <Popover.Root>
      <Popover.Trigger className="btn">
        <Plus size={17} /> Add a zip, rings or webbing
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label="Add a zip, rings or webbing"
          className="z-30 max-h-(--radix-popover-content-available-height) w-80 max-w-[94vw] overflow-auto rounded border border-indigo bg-paper p-3 shadow-lg"
          sideOffset={5}
          collisionPadding={8}
        >
          <form
            className="flex flex-col gap-2"
            onSubmit={(e) => {
              e.preventDefault();
              void send();
            }}
          >
            <datalist id={names}>
              {NAMES.map((name) => (
                <option key={name} value={name} />
              ))}
            </datalist>
            <div className="grid grid-cols-2 gap-2">
              <SelectField label="Material" value={kind} choices={KINDS} onChoose={setKind} />
              <SelectField
                label="Sizes in"
                value={system}
                choices={systems.map((s) => ({ key: s.key, name: s.name }))}
                onChoose={setSystem}
              />
            </div>
            {field('name', byPiece ? 'Name' : 'Name, if it has one', byPiece ? 'D-ring' : 'black webbing')}
            {field('size', byPiece ? 'Size (opening or teeth), optional' : 'Width, optional', '1')}
            {field('amount', byPiece ? 'How many' : 'How long', byPiece ? '12' : '3 yd, 40 in')}
            {field('place', 'Place', 'button tin')}
            <div aria-live="polite">
              {problem && !(problem.field in EMPTY) && (
                <p className="font-bold text-madder">{problem.message}</p>
              )}
              {said && <p className="text-woad">{said}</p>}
            </div>
            <button type="submit" className="btn btn-act">
              Add to the cupboard
            </button>
          </form>
          <Popover.Arrow className="fill-indigo" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
