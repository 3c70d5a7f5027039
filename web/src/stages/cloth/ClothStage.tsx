// Cloth: the table with what there is and the parts put on it; below it each cloth, what is measured and owned of it.
import { useQueryClient } from '@tanstack/react-query';
import { Plus } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { ApiError, api, must } from '../../api/client';
import { useChoices } from '../../api/useChoices';
import { useCupboard } from '../../cupboard/useCupboard';
import { Drawing } from '../../drawing/Drawing';
import { SelectField } from '../../fields/SelectField';
import { More } from '../../frame/More';
import { NotWhole } from '../../frame/NotWhole';
import { whyNot } from '../../project/outcome';
import { PlanFields } from '../../project/PlanFields';
import { useProject } from '../../project/ProjectContext';
import { ClothCard } from './ClothCard';
import { ClothTable } from './ClothTable';
import { HowLarge } from './HowLarge';
import { LeftByOthers } from './LeftByOthers';
import { Tries } from './Tries';

export function ClothStage() {
  const { view } = useProject();
  return (
    <div>
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <h1 className="text-xl">Cloth</h1>
        <p className="flex-1 text-soft max-sm:order-last max-sm:basis-full">
          {view.steps_done === 0 &&
            'Put each part on the cloth you cut it from. Bofta uses the cloth you have first.'}
        </p>
        <PlanFields>
          <FromCupboard />
        </PlanFields>
      </div>
      <NotWhole className="mb-3" />
      {view.cloths.length > 0 && <ClothTable />}
      <HowLarge />
      <Tries />
      <ul className="grid grid-cols-1 gap-4 lg:grid-cols-2">
        {view.cloths.map((cloth) => (
          <li key={cloth.id}>
            <ClothCard cloth={cloth} />
          </li>
        ))}
        {view.steps_done === 0 && (
          <li>
            <AddCloth first={view.cloths.length === 0} />
          </li>
        )}
      </ul>
    </div>
  );
}

/** What a part without a cloth is usually cut from, where that is no cloth that is seen. */
const WANTS: Record<string, string> = { backing: 'fleece', interfacing: 'interfacing' };

function AddCloth({ first }: { first: boolean }) {
  const { view, edit } = useProject();
  const [name, setName] = useState('');
  const { materials } = useChoices();
  const wanted = view.parts.find((p) => !p.cloth && WANTS[p.key]);
  const [chosen, setMaterial] = useState<string | null>(null);
  const material = chosen ?? (wanted ? WANTS[wanted.key] : null) ?? '';
  const [problem, setProblem] = useState<string | null>(null);
  const [unchosen, setUnchosen] = useState(false);
  return (
    <form
      className="flex h-full flex-col gap-3 rounded border-2 border-dashed border-[#b3a68d] p-4"
      onSubmit={async (e) => {
        e.preventDefault();
        if (material === '') {
          setUnchosen(true);
          return;
        }
        const outcome = await edit({ edit: 'add-cloth', name, material });
        setProblem(whyNot(outcome)[0] ?? null);
        if (outcome.is === 'ok') {
          setName('');
          setMaterial(null);
        }
      }}
    >
      <h2 className="text-lg">
        {first
          ? 'Start with the cloth for the outside'
          : wanted
            ? `The ${wanted.name.toLowerCase()}, or another cloth`
            : 'Another cloth'}
      </h2>
      {first && (
        <p className="text-soft">Parts without a cloth are cut from this one until you choose another.</p>
      )}
      <div className="flex flex-wrap gap-3">
        <div className="min-w-40 flex-1">
          <label htmlFor="cloth-name" className="text-sm text-soft">
            Name of the new cloth
          </label>
          <input
            id="cloth-name"
            className="field"
            value={name}
            placeholder="Moss canvas"
            autoComplete="off"
            aria-invalid={problem !== null}
            aria-describedby="cloth-problem"
            onChange={(e) => {
              setName(e.target.value);
              setProblem(null);
            }}
          />
          <p id="cloth-problem" aria-live="polite" className="text-sm font-bold text-madder">
            {problem}
          </p>
        </div>
        <SelectField
          label="Material"
          value={material}
          choices={materials}
          ask="Choose a material"
          problem={unchosen ? 'Choose what the cloth is made of.' : null}
          onChoose={(key) => {
            setMaterial(key);
            setUnchosen(false);
          }}
        />
      </div>
      <button type="submit" className="btn btn-act mt-auto self-start">
        <Plus size={17} /> Add cloth
      </button>
    </form>
  );
}

function FromCupboard() {
  const { view, put, notify } = useProject();
  const queries = useQueryClient();
  const [find, setFind] = useState('');
  const cupboard = useCupboard(find);
  const take = async (cloth: string) => {
    try {
      const path = { id: view.id };
      put(
        await must(
          api.POST('/api/projects/{id}/take', { params: { path }, body: { based_on: view.revision, cloth } }),
        ),
      );
      queries.invalidateQueries({ queryKey: ['project', view.id] });
    } catch (error) {
      if (error instanceof ApiError) notify(error.message);
    }
  };
  const there = cupboard.entries.filter(
    (c) => !c.unreadable && !view.cloths.some((mine) => mine.name === c.name),
  );
  return (
    <Popover.Root>
      <Popover.Trigger className="btn">From the cupboard</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label="From the cupboard, or what other bags leave"
          className="z-30 max-h-[70vh] w-80 overflow-auto rounded border border-indigo bg-paper p-3 shadow-lg"
          sideOffset={5}
        >
          <LeftByOthers />
          {(cupboard.total > 8 || find !== '') && (
            <input
              type="search"
              className="field mb-2"
              aria-label="Find a cloth by its name"
              placeholder="Find by name"
              value={find}
              onChange={(e) => setFind(e.target.value)}
            />
          )}
          {cupboard.problem && <p className="text-madder">{cupboard.problem}</p>}
          {cupboard.isDone && there.length === 0 && (
            <p>
              {find === ''
                ? 'Everything in the cupboard is here already.'
                : `No other cloth is called “${find}”.`}
            </p>
          )}
          <ul className="flex flex-col gap-2">
            {there.map((c) => (
              <li key={c.id}>
                <button
                  type="button"
                  className="flex w-full items-center gap-3 rounded border border-ruled p-1.5 text-left hover:border-indigo"
                  onClick={() => take(c.id)}
                >
                  {c.swatch && <Drawing drawing={c.swatch} label={`${c.name}, its print`} className="w-20" />}
                  <span className="leading-tight">
                    <span className="block font-bold">{c.name}</span>
                    <span className="block text-sm text-soft">
                      {c.material}, {c.width} wide
                    </span>
                    {c.owned && <span className="block text-sm text-woad">{c.owned} here</span>}
                  </span>
                </button>
              </li>
            ))}
          </ul>
          <More of={cupboard} />
          <Popover.Arrow className="fill-indigo" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
