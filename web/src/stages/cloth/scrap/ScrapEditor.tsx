// A scrap drawn by its corners and what is measured between them: from a shape it is like, or as it was drawn before.
import { useQuery } from '@tanstack/react-query';
import { Undo2, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { api, must, type ScrapDraft } from '../../../api/client';
import { useChoices } from '../../../api/useChoices';
import { SelectField } from '../../../fields/SelectField';
import { TextField } from '../../../fields/TextField';
import { LargeDialog } from '../../../frame/LargeDialog';
import { OK, type Outcome, whyNot } from '../../../project/outcome';
import { useProject } from '../../../project/ProjectContext';
import { Board } from './Board';
import { addFlaw, around, keepEdge, letters, measure, measuredAs, removeFlaw } from './change';
import { type Drawing, useScrapDraft } from './useScrapDraft';

/** Which scrap is drawn: a new one, or one that lies there. */
export interface Which {
  cloth: string;
  label: string | null;
  count: number;
  draft: ScrapDraft | null;
}

export function ScrapEditor({ which, onClose }: { which: Which; onClose: () => void }) {
  const { view } = useProject();
  const shapes = useQuery({
    queryKey: ['scrap-shapes', view.id, view.system],
    queryFn: () => must(api.GET('/api/projects/{id}/scrap-shapes', { params: { path: { id: view.id } } })),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const first = which.draft ?? shapes.data?.find((s) => s.key === 'odd')?.draft;
  const name = which.label ? `Scrap ${which.label}` : 'A scrap';
  return (
    <LargeDialog title={`${name}, corner by corner`} closing="Close without adding it" onClose={onClose}>
      {shapes.isError && <p role="alert">{shapes.error.message}</p>}
      {first ? (
        <Editing which={which} first={first} shapes={shapes.data ?? []} onClose={onClose} />
      ) : (
        !shapes.isError && <p>One moment …</p>
      )}
    </LargeDialog>
  );
}

interface EditingProps {
  which: Which;
  first: ScrapDraft;
  shapes: { key: string; name: string; draft: ScrapDraft }[];
  onClose: () => void;
}

function Editing({ which, first, shapes, onClose }: EditingProps) {
  const { view, edit } = useProject();
  const { flaws: kinds, edges, rulers, systems } = useChoices();
  const drawing = useScrapDraft(view.id, first);
  const { draft, drawn, problem, canUndo, change, undo, read } = drawing;
  const [cloth, setCloth] = useState(which.cloth);
  const [count, setCount] = useState(String(which.count));
  const [refused, setRefused] = useState<string | null>(null);
  const [threading, setThreading] = useState(false);
  const unit = systems.find((s) => s.key === view.system)?.unit ?? 1;
  const step = rulers.find((r) => r.key === view.ruler)?.step ?? 1;
  const of = view.cloths.find((c) => c.id === cloth) ?? view.cloths[0];
  const look = of?.look;
  // A print or a pile with one way up stands as the arrow points.
  const up = of && (of.print === 'one-way' || of.nap) ? 'threads, print up' : 'threads';
  const flawName = (kind: string) => kinds.find((k) => k.key === kind)?.name ?? kind;

  // The first answer tells the sides.
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, as it opens
  useEffect(() => {
    read();
  }, []);

  // In a field the keys undo what was typed there; the project behind is left alone.
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== 'z') return;
      e.stopPropagation();
      if (e.target instanceof HTMLInputElement) return;
      e.preventDefault();
      undo();
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, [undo]);

  const layDown = async () => {
    const number = Number(count.trim());
    if (!Number.isInteger(number) || number < 1) {
      setRefused('Enter how many alike: 1 or more.');
      return;
    }
    const outcome = await edit({ edit: 'draw-scrap', cloth, label: which.label, count: number, draft });
    const why = whyNot(outcome)[0];
    if (why) setRefused(why);
    else onClose();
  };
  if (!look) return null;
  return (
    <div className="mt-2 grid gap-4 md:grid-cols-[minmax(0,1fr)_330px]">
      <div>
        <Board
          draft={draft}
          drawn={drawn}
          look={look}
          unit={unit}
          step={step}
          up={up}
          flawName={flawName}
          threading={threading}
          onChange={(next) => void change(next)}
          onThreads={(foot, head) => {
            setThreading(false);
            const whole = (p: { x: number; y: number }) => ({ x: Math.round(p.x), y: Math.round(p.y) });
            void change({ ...draft, threads: { foot: whole(foot), head: whole(head) } });
          }}
        />
        <div className="mt-2 flex flex-wrap gap-2">
          <button type="button" className="btn" disabled={!canUndo} onClick={undo}>
            <Undo2 size={16} /> Undo a step
          </button>
          <button
            type="button"
            className="btn"
            aria-pressed={threading}
            onClick={() => setThreading(!threading)}
          >
            {threading ? 'Draw along the threads …' : 'The threads run another way'}
          </button>
        </div>
        {!which.label && (
          <fieldset className="mt-2">
            <legend className="text-sm text-soft">Begin with</legend>
            <div className="flex flex-wrap gap-1.5">
              {shapes.map((s) => (
                <button
                  key={s.key}
                  type="button"
                  className="btn px-2 py-1 text-sm"
                  onClick={() => void change(s.draft)}
                >
                  <ShapeSign draft={s.draft} /> {s.name}
                </button>
              ))}
            </div>
          </fieldset>
        )}
      </div>
      <div className="flex flex-col gap-3">
        {!which.label && view.cloths.length > 1 && (
          <SelectField
            label="It is of"
            value={cloth}
            choices={view.cloths.map((c) => ({ key: c.id, name: c.name }))}
            onChoose={setCloth}
          />
        )}
        <Measured drawing={drawing} unit={view.system} />
        <Flaws drawing={drawing} unit={unit} sign={view.system} kinds={kinds} flawName={flawName} />
        <KeptEdges drawing={drawing} kinds={edges} />
        <div className="mt-auto border-t border-ruled pt-2">
          <div aria-live="polite">
            {problem && <p className="font-bold text-madder">{problem.message}</p>}
            {!problem && drawn && (
              <p>
                <strong>{drawn.size}</strong> over all; it holds <strong>{drawn.holds}</strong> in one.
                {drawn.off && ` The measurements agree to ${drawn.off} ${view.system}.`}
              </p>
            )}
            {refused && <p className="font-bold text-madder">{refused}</p>}
          </div>
          <div className="mt-2 flex items-end gap-2">
            <label className="w-24 text-sm text-soft">
              How many alike
              <input
                className="field"
                inputMode="numeric"
                value={count}
                onChange={(e) => {
                  setCount(e.target.value);
                  setRefused(null);
                }}
              />
            </label>
            <button type="button" className="btn btn-act flex-1" onClick={layDown}>
              {which.label ? 'Save the scrap' : 'Add the scrap'}
            </button>
          </div>
        </div>
      </div>
    </div>
  );
}

/** A shape as small as a word. */
function ShapeSign({ draft }: { draft: ScrapDraft }) {
  const box = around(draft.corners);
  const per = 18 / Math.max(box.width, box.height, 1);
  const points = draft.corners.map((p) => `${(p.x - box.left) * per + 1},${19 - (p.y - box.low) * per}`);
  return (
    <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden="true">
      <polygon points={points.join(' ')} fill="#d8cdb8" stroke="#1f2a44" />
    </svg>
  );
}

/** Sides, and the distances that fix the shape. */
function Measured({ drawing, unit }: { drawing: Drawing; unit: string }) {
  const { draft, drawn, problem, change } = drawing;
  const n = draft.corners.length;
  const commit =
    (from: number, to: number) =>
    async (value: string): Promise<Outcome> => {
      await change(measure(draft, from, to, value));
      return OK;
    };
  const isSide = (from: number, to: number) => (from + 1) % n === to || (to + 1) % n === from;
  const across = (draft.measured ?? []).filter((m) => !isSide(m.from, m.to));
  const next = drawn?.next;
  const offered = next && !isSide(next.from, next.to) && measuredAs(draft, next.from, next.to) === '';
  const at = (from: number, to: number) =>
    (draft.measured ?? []).findIndex((m) => m.from === from && m.to === to);
  const wrong = (from: number, to: number) => problem?.field === `measured[${at(from, to)}]`;
  const field = (from: number, to: number, text: string | undefined) => (
    <TextField
      key={`${from}-${to}`}
      label={`${letters(Math.min(from, to))}–${letters(Math.max(from, to))}`}
      value={measuredAs(draft, from, to)}
      placeholder={text}
      unit={unit}
      onCommit={commit(from, to)}
      inputClassName={wrong(from, to) ? 'border-2 border-madder' : ''}
    />
  );
  return (
    <fieldset>
      <legend className="font-bold">Measured with the ruler</legend>
      <p className="text-sm text-soft">
        Measure from corner to corner. A side you leave empty stays as drawn.
        {next && (
          <>
            {' '}
            <strong className="text-indigo">Measure {next.name} too</strong>. Until then the shape can shift.
          </>
        )}
      </p>
      <div className="mt-1 grid max-h-64 grid-cols-3 gap-x-2 gap-y-1 overflow-y-auto pr-1 pb-1">
        {draft.corners.map((_, k) => field(k, (k + 1) % n, drawn?.sides[k]?.text))}
        {across.map((m) => field(m.from, m.to, undefined))}
        {offered && field(next.from, next.to, next.text)}
      </div>
    </fieldset>
  );
}

interface FlawsProps {
  drawing: Drawing;
  unit: number;
  sign: string;
  kinds: { key: string; name: string }[];
  flawName: (kind: string) => string;
}

/** Places that cannot be used. */
function Flaws({ drawing, unit, sign, kinds, flawName }: FlawsProps) {
  const { draft, drawn, change } = drawing;
  const size = async (flaw: number, size: string): Promise<Outcome> => {
    await change({ ...draft, flaw_size: { flaw, size } });
    return OK;
  };
  return (
    <fieldset>
      <legend className="font-bold">Nothing is cut from</legend>
      <div className="mt-1 flex flex-wrap gap-1.5">
        {kinds.map((kind) => (
          <button
            key={kind.key}
            type="button"
            className="btn px-2 py-0.5 text-sm"
            onClick={() => void change(addFlaw(draft, kind.key as never, unit))}
          >
            {kind.name}
          </button>
        ))}
      </div>
      <ul className="mt-1 flex flex-col gap-1">
        {(draft.flaws ?? []).map((flaw, k) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: they have no other name
          <li key={k} className="flex items-end gap-2">
            <TextField
              label={`${flawName(flaw.kind)}, along × across`}
              value={drawn?.flaws[k] ?? ''}
              unit={sign}
              className="flex-1"
              onCommit={(value) => size(k, value)}
            />
            <button
              type="button"
              className="btn px-2"
              aria-label={`Remove the ${flawName(flaw.kind)}`}
              onClick={() => void change(removeFlaw(draft, k))}
            >
              <X size={16} />
            </button>
          </li>
        ))}
      </ul>
    </fieldset>
  );
}

/** Edges that pieces may be laid along, so that they stay. */
function KeptEdges({ drawing, kinds }: { drawing: Drawing; kinds: { key: string; name: string }[] }) {
  const { draft, change } = drawing;
  const kept = draft.kept ?? [];
  const n = draft.corners.length;
  const name = (side: number) =>
    `${letters(Math.min(side, (side + 1) % n))}–${letters(Math.max(side, (side + 1) % n))}`;
  return (
    <fieldset>
      <legend className="font-bold">Edges to keep</legend>
      <div className="mt-1 flex flex-wrap gap-1.5">
        {kinds.map((kind) => (
          <button
            key={kind.key}
            type="button"
            className="btn px-2 py-0.5 text-sm"
            disabled={kept.length >= n}
            onClick={() => void change(keepEdge(draft, kind.key as never))}
          >
            {kind.name}
          </button>
        ))}
      </div>
      <ul className="mt-1 flex flex-col gap-1">
        {kept.map((edge) => {
          const what = kinds.find((k) => k.key === edge.kind)?.name ?? edge.kind;
          const others = kept.filter((e) => e !== edge);
          return (
            <li key={edge.side} className="flex items-end gap-2">
              <SelectField
                label={`The ${what} is side`}
                value={String(edge.side)}
                choices={draft.corners
                  .map((_, k) => k)
                  .filter((k) => !others.some((e) => e.side === k))
                  .map((k) => ({ key: String(k), name: name(k) }))}
                onChoose={(side) =>
                  void change({ ...draft, kept: [...others, { ...edge, side: Number(side) }] })
                }
              />
              <button
                type="button"
                className="btn px-2"
                aria-label={`The ${what} ${name(edge.side)} need not be kept`}
                onClick={() => void change({ ...draft, kept: others })}
              >
                <X size={16} />
              </button>
            </li>
          );
        })}
      </ul>
    </fieldset>
  );
}
