// A new cloth into the cupboard.
import { useQueryClient } from '@tanstack/react-query';
import { Plus } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { api, must } from '../api/client';
import { useChoices } from '../api/useChoices';
import { OwnCuts } from '../fields/OwnCuts';
import { SelectField } from '../fields/SelectField';
import { type Answer, outcomeOf } from '../project/outcome';
import { Field } from './Field';

const EMPTY = { name: '', at_hand: '', place: '' };

export function PutIn() {
  const queries = useQueryClient();
  const { materials, systems } = useChoices();
  const [typed, setTyped] = useState(EMPTY);
  const [material, setMaterial] = useState('');
  const [system, setSystem] = useState('in');
  const [problem, setProblem] = useState<{ field: string; message: string; answers: Answer[] } | null>(null);
  const [done, setDone] = useState<string | null>(null);
  const send = async (body: typeof EMPTY) => {
    setDone(null);
    if (material === '') {
      setProblem({ field: 'material', message: 'Choose what the cloth is made of.', answers: [] });
      return;
    }
    const outcome = await outcomeOf(() =>
      must(api.POST('/api/cupboard', { body: { ...body, material, system } })),
    );
    if (outcome.is === 'problems') return setProblem(outcome.problems[0] ?? null);
    if (outcome.is === 'unreached') return setProblem({ field: '', message: outcome.message, answers: [] });
    setProblem(null);
    setDone(`${body.name.trim()} is in the cupboard.`);
    // The next one is most likely kept in the same place.
    setTyped({ ...EMPTY, place: body.place });
    queries.invalidateQueries({ queryKey: ['cupboard'] });
  };
  const field = (key: keyof typeof EMPTY, label: string, placeholder: string) => (
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
  );
  return (
    <Popover.Root>
      <Popover.Trigger className="btn btn-act">
        <Plus size={17} /> Add a cloth
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label="Add a cloth"
          className="z-30 max-h-(--radix-popover-content-available-height) w-80 max-w-[94vw] overflow-auto rounded border border-indigo bg-paper p-3 shadow-lg"
          sideOffset={5}
          collisionPadding={8}
        >
          <form
            className="flex flex-col gap-2"
            onSubmit={(e) => {
              e.preventDefault();
              void send(typed);
            }}
          >
            {field('name', 'Name of the cloth', 'Marrow check')}
            <div className="grid grid-cols-2 gap-2">
              <SelectField
                label="Material"
                value={material}
                choices={materials}
                ask="Choose a material"
                problem={problem?.field === 'material' ? problem.message : null}
                onChoose={(key) => {
                  setMaterial(key);
                  setProblem(null);
                }}
              />
              <SelectField
                label="Sizes in"
                value={system}
                choices={systems.map((s) => ({ key: s.key, name: s.name }))}
                onChoose={setSystem}
              />
            </div>
            {field('at_hand', 'Cloth you have', '2 fat quarters, 18 x 22')}
            {problem?.answers.map((a) => (
              <button
                key={a.text}
                type="button"
                className="btn px-2 py-0.5 text-sm"
                onClick={() => {
                  setTyped({ ...typed, at_hand: a.text });
                  void send({ ...typed, at_hand: a.text });
                }}
              >
                {a.label}
              </button>
            ))}
            {field('place', 'Place', 'blue crate')}
            <div aria-live="polite">
              {problem && problem.field !== 'material' && !(problem.field in EMPTY) && (
                <p className="font-bold text-madder">{problem.message}</p>
              )}
              {done && <p className="text-woad">{done}</p>}
            </div>
            <button type="submit" className="btn btn-act">
              Add to the cupboard
            </button>
          </form>
          <div className="mt-3 border-t border-ruled pt-2">
            <OwnCuts system={system} />
          </div>
          <Popover.Arrow className="fill-indigo" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
