// Make: the steps of sewing the bag in order, one in hand with its pieces and the widths of its seams; what is done is
// ticked off, and what the maker wants to remember is written down.
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Check, Printer, RotateCcw, Undo2 } from 'lucide-react';
import { useCallback, useEffect, useState } from 'react';
import { Link } from 'react-router';
import { api, type MakingView, must } from '../../api/client';
import { NotWhole } from '../../frame/NotWhole';
import { useProject } from '../../project/ProjectContext';
import { InHand } from './InHand';
import { StepList } from './StepList';
import { Written } from './Written';

export function MakeStage() {
  const { view } = useProject();
  const making = useQuery({
    queryKey: ['making', view.id, view.revision],
    queryFn: () => must(api.GET('/api/projects/{id}/making', { params: { path: { id: view.id } } })),
    // The step in hand stays on the screen while its tick is kept.
    placeholderData: keepPreviousData,
  });
  if (making.isError) {
    return (
      <div role="alert" className="sheet max-w-xl p-4">
        <p>{making.error.message}</p>
        <button type="button" className="btn mt-3" onClick={() => making.refetch()}>
          Try again
        </button>
      </div>
    );
  }
  if (!making.data) return <p className="text-soft">Working out the steps …</p>;
  return <Making making={making.data} />;
}

function Making({ making }: { making: MakingView }) {
  const { view, edit } = useProject();
  // A tick shows at once, until the program says how the step is after it.
  const [ticked, setTicked] = useState<Record<string, { done: boolean; kept: boolean }>>({});
  const steps = making.steps.map((s) => ({ ...s, done: ticked[s.key]?.done ?? s.done }));
  useEffect(() => {
    const said = new Map(making.steps.map((s) => [s.key, s.done]));
    setTicked((all) =>
      Object.fromEntries(Object.entries(all).filter(([key, t]) => !t.kept && said.get(key) !== t.done)),
    );
  }, [making]);
  const [shown, setShown] = useState<string | null>(null);
  const next = steps.findIndex((s) => !s.done);
  const at = shown === null ? -1 : steps.findIndex((s) => s.key === shown);
  // Where nothing is chosen, the first that is not done.
  const number = at >= 0 ? at : next >= 0 ? next : steps.length - 1;
  const step = steps[number];
  const over = steps.length > 0 && next < 0;

  const tick = useCallback(
    (key: string, done: boolean) => {
      setShown(null);
      setTicked((all) => ({ ...all, [key]: { done, kept: false } }));
      edit({ edit: 'made', step: key, done }).then((outcome) =>
        setTicked(({ [key]: mine, ...rest }) =>
          mine && outcome.is === 'ok' ? { ...rest, [key]: { ...mine, kept: true } } : rest,
        ),
      );
    },
    [edit],
  );
  const last = steps.filter((s) => s.done).at(-1)?.key;
  const takeBack = useCallback(() => {
    if (last) tick(last, false);
  }, [last, tick]);

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const target = e.target as HTMLElement;
      if (target.matches('input, textarea, select, button, a, [role=radio]') || e.ctrlKey || e.metaKey)
        return;
      const go = (by: number) => {
        const to = steps[number + by];
        if (to) setShown(to.key);
      };
      if (e.key === ' ' && step && !step.done && !e.repeat) tick(step.key, true);
      else if (e.key === 'Backspace' && !e.repeat) takeBack();
      else if (e.key === 'ArrowDown') go(1);
      else if (e.key === 'ArrowUp') go(-1);
      else return;
      e.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [steps, step, number, tick, takeBack]);

  return (
    <div>
      <div className="mb-2 flex flex-wrap items-center gap-3">
        <h1 className="text-xl" aria-live="polite">
          {steps.length === 0
            ? 'Make'
            : over
              ? 'Made'
              : `Step ${number + 1} of ${steps.length}${step?.done ? ', done' : ''}`}
        </h1>
        <p className="flex-1 text-soft max-sm:order-last max-sm:basis-full">
          {over && `You have ticked off every step of ${view.name}.`}
        </p>
        {over && (
          <button
            type="button"
            className="btn"
            onClick={() => edit(...steps.map((s) => ({ edit: 'made' as const, step: s.key, done: false })))}
          >
            <RotateCcw size={16} /> Sew another one
          </button>
        )}
        {last && (
          <button type="button" className="btn" onClick={takeBack}>
            <Undo2 size={16} /> Untick the last step
          </button>
        )}
        <a
          className="btn"
          href={`/api/projects/${view.id}/making-sheet.pdf`}
          target="_blank"
          rel="noreferrer"
        >
          <Printer size={16} /> Print the steps
        </a>
      </div>
      <NotWhole className="mb-2" />
      <NotCut />
      {steps.length === 0 ? (
        <p className="sheet max-w-xl p-5">
          Your own cut list says what to cut, not how to sew it. Its pieces are listed by bundle on{' '}
          <Link to={`/projects/${view.id}/pieces`} className="underline">
            Pieces
          </Link>
          . Write its steps below, a line each, and tick them off here.
        </p>
      ) : (
        <div className="flex flex-col gap-4 min-[900px]:flex-row">
          <StepList
            steps={steps}
            at={number}
            onShow={setShown}
            onTick={tick}
            className="order-last min-[900px]:order-none min-[900px]:w-[320px] min-[900px]:shrink-0"
          />
          {step && (
            <div className="min-w-0 flex-1">
              <InHand step={step} />
              {!step.done && (
                <button
                  type="button"
                  className="btn btn-act mt-3 min-h-12 px-6 text-lg"
                  onClick={() => tick(step.key, true)}
                >
                  <Check size={20} /> Done <kbd className="ml-1 font-sans text-sm font-normal">space</kbd>
                </button>
              )}
            </div>
          )}
        </div>
      )}
      <Written
        label="Steps of your own"
        hint="Write one step on each line. They follow the steps of the bag, and you tick them off the same way."
        kept={making.own_steps}
        change={(text) => ({ edit: 'own-steps', text })}
      />
      <Written
        label="Notes"
        hint="Threads, needles, what you would do differently. Notes print with the steps."
        kept={making.notes}
        change={(text) => ({ edit: 'notes', text })}
      />
    </div>
  );
}

/** What is not cut cannot be sewn; steps may be ticked all the same, for who cuts without the screen. */
function NotCut() {
  const { view } = useProject();
  if (view.steps === 0 || view.steps_done >= view.steps) return null;
  return (
    <p className="mb-3 text-soft">
      {view.steps_done === 0
        ? 'Nothing is ticked off yet'
        : `${view.steps_done} of ${view.steps} are ticked off`}{' '}
      on{' '}
      <Link to={`/projects/${view.id}/cut`} className="underline">
        Cut
      </Link>
      {view.steps_done === 0 && ' yet'}.
    </p>
  );
}
