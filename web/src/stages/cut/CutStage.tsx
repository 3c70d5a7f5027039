// Cut: one cut at a time, large; the reading to set, what falls off and its label.
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Check, Printer, Undo2 } from 'lucide-react';
import { useCallback, useEffect } from 'react';
import { Link } from 'react-router';
import { api, must } from '../../api/client';
import { Drawing } from '../../drawing/Drawing';
import { NotWhole } from '../../frame/NotWhole';
import { useProject } from '../../project/ProjectContext';
import { LeftOver } from './LeftOver';

export function CutStage() {
  const { view, edit } = useProject();
  const { id, steps, steps_done: done } = view;
  const over = steps > 0 && done >= steps;
  const number = Math.min(done + 1, steps);
  const queries = useQueryClient();
  const fetchStep = useCallback(
    (n: number) => ({
      queryKey: ['step', id, view.lay?.iterations, n],
      queryFn: () =>
        must(api.GET('/api/projects/{id}/steps/{number}', { params: { path: { id, number: n } } })),
    }),
    [id, view.lay?.iterations],
  );
  const step = useQuery({ ...fetchStep(number), enabled: steps > 0, placeholderData: (before) => before });

  // The next step is there before it is asked for.
  useEffect(() => {
    if (number < steps) queries.prefetchQuery(fetchStep(number + 1));
  }, [number, steps, queries, fetchStep]);

  const go = useCallback(
    (count: number) => {
      if (count >= 0 && count <= steps) edit({ edit: 'steps-done', count });
    },
    [edit, steps],
  );

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const target = e.target as HTMLElement;
      if (target.matches('input, textarea, select, button, [role=radio]')) return;
      if (e.key === ' ') {
        e.preventDefault();
        // Held down, it is still one cut.
        if (!e.repeat) go(done + 1);
      } else if (e.key === 'Backspace') {
        e.preventDefault();
        if (!e.repeat) go(done - 1);
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [go, done]);

  if (steps === 0) {
    return (
      <div className="sheet max-w-xl p-6">
        <h1 className="text-xl">Nothing to cut yet</h1>
        <p className="mt-2">The cuts follow from the layout.</p>
        <Link to={`/projects/${id}/cloth`} className="btn btn-act mt-4">
          Choose the cloth
        </Link>
      </div>
    );
  }
  const s = step.data;
  return (
    <div className="flex h-full flex-col">
      <div className="mb-2 flex flex-wrap items-center gap-3">
        <h1 className="text-xl" aria-live="polite">
          {over ? (view.lay?.missing ? 'Cut as far as planned' : 'All cut') : `Cut ${number} of ${steps}`}
        </h1>
        <p className="flex-1 text-soft max-sm:order-last max-sm:basis-full">
          {s && !over ? (
            <>
              <strong className="font-heading text-indigo">{s.title}.</strong> {s.how}
            </>
          ) : (
            ''
          )}
        </p>
        <a className="btn" href={`/api/projects/${id}/cut-sheet.pdf`} target="_blank" rel="noreferrer">
          <Printer size={16} /> Print the sheets
        </a>
      </div>
      <NotWhole className="mb-2" />
      {over ? (
        <div className="sheet max-w-xl p-6">
          {view.lay?.missing ? (
            <p className="text-lg">
              You have made every cut of this plan. {view.name} is not complete: the pieces that did not fit
              still have to be cut.
            </p>
          ) : (
            <p className="text-lg">
              Every piece of {view.name} is cut: {view.tally.pieces} pieces in {view.parts.length} bundles.
            </p>
          )}
          <div className="mt-4 flex gap-2">
            <button type="button" className="btn" onClick={() => go(done - 1)}>
              <Undo2 size={16} /> Undo the last cut
            </button>
            <button type="button" className="btn" onClick={() => go(0)}>
              Begin again
            </button>
          </div>
          <LeftOver />
        </div>
      ) : step.isError ? (
        <div role="alert" className="sheet p-4">
          {step.error.message}
        </div>
      ) : !s ? (
        <p className="text-soft">Drawing the next cut …</p>
      ) : (
        <div className="flex flex-1 flex-col gap-3 xl:flex-row">
          <div className="min-w-0 flex-1">
            {s.drawing && (
              <Drawing
                drawing={s.drawing}
                label={`${s.title}. ${s.how}`}
                // However long the cloth, the ruler's reading stays on the screen.
                className="max-h-[max(200px,calc(100dvh-500px))] w-full xl:max-h-[max(240px,calc(100dvh-330px))]"
              />
            )}
            {s.ruler && s.reading && (
              <Drawing
                drawing={s.ruler}
                label={`Set the ruler to ${s.reading.words}. ${s.from}`}
                className="mt-2 w-full"
              />
            )}
          </div>
          <div className="contents xl:sticky xl:top-3 xl:flex xl:h-[calc(100dvh-9.5rem)] xl:w-[215px] xl:flex-col xl:gap-3">
            <div className="order-last flex flex-col gap-3 xl:order-none xl:min-h-0 xl:flex-1 xl:overflow-auto">
              <section aria-label="Comes off">
                <h2 className="text-sm">Comes off</h2>
                {s.frees.length === 0 && s.kept.length === 0 && (
                  <p className="mt-1 text-soft">No piece yet</p>
                )}
                {s.frees.map((f) => (
                  <div
                    key={`${f.name} ${f.copy}`}
                    className="mt-1 rounded border-[1.5px] border-indigo bg-white px-3 py-1.5 leading-tight"
                  >
                    <p className="font-heading text-lg">{f.name}</p>
                    <p className="text-soft">
                      {f.size} · {f.copy} · {f.bundle}
                    </p>
                  </div>
                ))}
                {s.kept.map((part) => (
                  <p
                    key={part}
                    className="mt-1 rounded border-[1.5px] border-dashed border-chalk px-3 py-1.5 leading-tight text-chalk"
                  >
                    Keep <span className="font-heading">{part}</span>
                  </p>
                ))}
              </section>
              {s.then.length > 0 && (
                <section aria-label="On the table afterwards">
                  <h2 className="text-sm">On the table afterwards</h2>
                  <ul className="mt-1 flex flex-col gap-0.5">
                    {s.then.map((line) => (
                      <li key={line} className="text-[15px] leading-snug first-letter:uppercase">
                        {line}
                      </li>
                    ))}
                  </ul>
                </section>
              )}
              <section aria-label="Before you cut">
                <h2 className="text-sm">Before you cut</h2>
                <ul className="mt-1 flex flex-col gap-1">
                  {s.before.map((b) => (
                    <li key={b} className="flex gap-2 text-[15px] leading-snug">
                      <span aria-hidden="true" className="mt-1.5 h-2 w-2 shrink-0 rounded-full bg-weld" />
                      {b}
                    </li>
                  ))}
                </ul>
              </section>
              <section aria-label="Bundles">
                <h2 className="text-sm">Bundles</h2>
                {s.bundles.map((b) => (
                  <p key={b.name} className="flex justify-between border-t border-ruled py-0.5">
                    <span>{b.name}</span>
                    <strong className={b.cut === b.of ? 'text-woad' : ''}>
                      {b.cut} of {b.of}
                    </strong>
                  </p>
                ))}
              </section>
            </div>
            <div className="sticky bottom-[5.75rem] z-10 flex flex-row-reverse gap-2 bg-calico py-1 min-[900px]:bottom-0 xl:static xl:flex-col">
              <button
                type="button"
                className="btn btn-act flex-1 py-3 text-lg xl:flex-none"
                onClick={() => go(done + 1)}
              >
                <Check size={20} /> Done, next cut
              </button>
              <button type="button" className="btn" disabled={done === 0} onClick={() => go(done - 1)}>
                <Undo2 size={16} /> Undo
              </button>
              <p className="hidden text-center text-sm text-soft xl:block">
                space bar: done · backspace: undo
              </p>
            </div>
          </div>
        </div>
      )}
    </div>
  );
}
