// Finished sizes from a thing that goes in, or all of them larger or smaller.
import { useQuery } from '@tanstack/react-query';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { api, type Edit, must } from '../../api/client';
import { sizes } from '../../frame/stages';
import { whyNot } from '../../project/outcome';
import { useProject } from '../../project/ProjectContext';

interface Entry {
  key: string;
  label: string;
  usual: { in: string; cm: string };
}

const THING: Entry[] = [
  { key: 'width', label: 'Width of the thing', usual: { in: '', cm: '' } },
  { key: 'height', label: 'tall', usual: { in: '', cm: '' } },
  { key: 'thick', label: 'thick', usual: { in: '', cm: '' } },
  { key: 'ease', label: 'Ease on each side', usual: { in: '1/2', cm: '1' } },
  { key: 'above', label: 'Ease above', usual: { in: '1', cm: '2' } },
];

export function FitAndScale() {
  const { view, edit } = useProject();
  const system = view.system as 'in' | 'cm';
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [percent, setPercent] = useState('65');
  const [problem, setProblem] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  const make = async (change: Edit) => {
    const why = whyNot(await edit(change));
    setProblem(why.join(' ') || null);
    if (why.length === 0) setOpen(false);
  };
  const value = (e: Entry) => typed[e.key] ?? e.usual[system];
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <button type="button" className="btn">
          Fit or scale
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="z-30 max-h-[86vh] w-80 max-w-[94vw] overflow-auto rounded border border-indigo bg-paper p-4 shadow-lg"
          sideOffset={6}
          collisionPadding={12}
          aria-label="Fit or scale"
        >
          {view.bag.family !== 'cut-list' && (
            <form
              className="flex flex-col gap-2"
              onSubmit={(e) => {
                e.preventDefault();
                const [width, height, thick, ease, above] = THING.map((t) => value(t) || '0');
                if (width && height && thick && ease && above)
                  make({ edit: 'fit', width, height, thick, ease, above });
              }}
            >
              <h2 className="text-base">Fit the bag to something</h2>
              {THING.map((t) => (
                <label key={t.key} className="flex items-center gap-2 text-sm text-soft">
                  <span className="flex-1">{t.label}</span>
                  <input
                    className="field w-28"
                    value={value(t)}
                    placeholder={view.system}
                    onChange={(e) => setTyped({ ...typed, [t.key]: e.target.value })}
                  />
                </label>
              ))}
              <button type="submit" className="btn btn-act self-start">
                Fit the bag
              </button>
            </form>
          )}
          <form
            className="mt-3 flex flex-col gap-2 border-t border-ruled pt-3"
            onSubmit={(e) => {
              e.preventDefault();
              make({ edit: 'scale', percent: Number.parseInt(percent, 10) || 0 });
            }}
          >
            <h2 className="text-base">Scale it</h2>
            <label className="flex items-center gap-2 text-sm text-soft">
              <span className="flex-1">
                {view.bag.family === 'cut-list'
                  ? 'Every size of the list, rounded to the ruler'
                  : 'Finished sizes, rounded to the ruler. Seams and straps stay as they are.'}
              </span>
              <input className="field w-20" value={percent} onChange={(e) => setPercent(e.target.value)} /> %
            </label>
            <button type="submit" className="btn self-start">
              Scale
            </button>
          </form>
          <p aria-live="polite" className="mt-1 text-sm font-bold text-madder">
            {problem}
          </p>
          <InARow />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const ROW = [80, 100, 125] as const;

/** The same bag small, as it is and large: what each measures and takes. */
function InARow() {
  const { view } = useProject();
  const row = useQuery({
    queryKey: ['in-a-row', view.id, view.revision],
    queryFn: () =>
      Promise.all(
        ROW.map((percent) =>
          must(
            api.POST('/api/projects/{id}/preview', {
              params: { path: { id: view.id } },
              body: { based_on: view.revision, edits: [{ edit: 'scale', percent }] },
            }),
          ),
        ),
      ),
    enabled: false,
    retry: false,
  });
  return (
    <div className="mt-2 border-t border-ruled pt-3">
      <h2 className="text-base">Sizes in a row</h2>
      <button type="button" className="btn mt-1" disabled={row.isFetching} onClick={() => row.refetch()}>
        {row.isFetching ? 'Working out the layouts …' : 'Compare 80, 100 and 125 %'}
      </button>
      {row.isError && (
        <p role="alert" className="mt-1 text-sm text-madder">
          {row.error.message}
        </p>
      )}
      {row.data && (
        <table className="mt-2 w-full text-left text-sm">
          <thead>
            <tr className="text-soft">
              <th scope="col" className="font-normal">
                %
              </th>
              <th scope="col" className="font-normal">
                finished
              </th>
              <th scope="col" className="font-normal">
                cloth
              </th>
              <th scope="col" className="font-normal">
                cost
              </th>
            </tr>
          </thead>
          <tbody>
            {row.data.map((v, i) => (
              <tr key={ROW[i]} className="border-t border-ruled">
                <th scope="row">{ROW[i]}</th>
                <td>{sizes(v)}</td>
                <td>{v.tally.cloth ?? '–'}</td>
                <td>{v.tally.cost ?? '–'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
