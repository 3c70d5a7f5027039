// The patches of a panel: which cloth each is, arranged by hand, and how large one shows.
import { useId, useRef, useState } from 'react';
import type { Edit, PieceView } from '../../api/client';
import { ChoiceField } from '../../fields/ChoiceField';
import { TextField } from '../../fields/TextField';
import { OK, type Outcome, whyNot } from '../../project/outcome';
import { useProject } from '../../project/ProjectContext';
import { PiecePopover } from './PiecePopover';

type PatchesOf = NonNullable<PieceView['patches']>;

export function Patches({ piece, patches }: { piece: PieceView; patches: PatchesOf }) {
  const { columns, rows, width, height } = patches;
  return (
    <PiecePopover
      label={`The patches of ${piece.name}`}
      summary={`${columns} × ${rows} patches, each showing ${width.text} × ${height.text}`}
      wide
    >
      {patches.cloths.length > 0 && <Arrange piece={piece} patches={patches} />}
      <SizedByPatches piece={piece} patches={patches} />
    </PiecePopover>
  );
}

/** Cloths of the bag that a patch may be of. */
const CLOTHS = ['outer', 'contrast', 'lining', 'pocket', 'base', 'straps', 'binding'];

function Arrange({ piece, patches }: { piece: PieceView; patches: PatchesOf }) {
  const { view, edit } = useProject();
  const { columns, rows, cloths } = patches;
  const [brush, setBrush] = useState('move');
  const [held, setHeld] = useState<number | null>(null);
  const [over, setOver] = useState<number | null>(null);
  const [problem, setProblem] = useState('');
  const grid = useRef<HTMLFieldSetElement>(null);
  const dragged = useRef(false);

  const put = (next: string[]) => {
    setHeld(null);
    setOver(null);
    if (next.some((c, i) => c !== cloths[i])) send(next.join(', '));
  };
  const send = async (value: string) => {
    const change: Edit = patches.of_bag
      ? { edit: 'bag', field: 'patch_cloths', value }
      : { edit: 'make-up', piece: piece.id, field: 'patch_cloths', value };
    setProblem(whyNot(await edit(change)).join(' '));
  };
  const swap = (a: number, b: number) => {
    const next = [...cloths];
    [next[a], next[b]] = [cloths[b] ?? '', cloths[a] ?? ''];
    put(next);
  };
  const touch = (n: number) => {
    if (brush !== 'move') put(cloths.map((c, i) => (i === n ? brush : c)));
    else if (held === null) setHeld(n);
    else if (held === n) setHeld(null);
    else swap(held, n);
  };
  const at = (x: number, y: number) => {
    const cell = document.elementFromPoint(x, y)?.closest('[data-patch]');
    return cell && grid.current?.contains(cell) ? Number(cell.getAttribute('data-patch')) : null;
  };
  const walk = (n: number, key: string) => {
    const [row, column] = [Math.floor(n / columns), n % columns];
    const to = {
      ArrowLeft: column > 0 ? n - 1 : n,
      ArrowRight: column < columns - 1 ? n + 1 : n,
      ArrowUp: row > 0 ? n - columns : n,
      ArrowDown: row < rows - 1 ? n + columns : n,
    }[key];
    if (to === undefined) return false;
    grid.current?.querySelector<HTMLElement>(`[data-patch="${to}"]`)?.focus();
    return true;
  };
  const partOf = (key: string) => view.parts.find((p) => p.key === key);
  const clothOf = (key: string) => view.cloths.find((c) => c.id === partOf(key)?.cloth);
  const shared = (key: string) =>
    view.parts.some((p) => p.key !== key && CLOTHS.includes(p.key) && p.cloth === partOf(key)?.cloth);
  // Where two parts have one cloth, the part says which is meant.
  const named = (key: string) => {
    const [part, cloth] = [partOf(key)?.name ?? key, clothOf(key)?.name];
    return cloth ? (shared(key) ? `${cloth} (${part.toLowerCase()})` : cloth) : part;
  };
  const counts = CLOTHS.map((key) => ({ key, n: cloths.filter((c) => c === key).length })).filter(
    ({ n }) => n > 0,
  );

  return (
    <section aria-label="Cloth of each patch">
      <h3 className="text-base">Cloth of each patch</h3>
      <p className="text-sm text-soft">
        {brush === 'move'
          ? held === null
            ? 'Drag one patch onto another to swap them, or tap one and then the other.'
            : 'Now tap the patch to swap it with.'
          : 'Tap the patches to cut from this cloth.'}
      </p>
      <fieldset
        ref={grid}
        aria-label={`${columns} across, ${rows} up`}
        className="mt-2 grid touch-none gap-[2px] bg-indigo/25 p-[2px]"
        style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}
      >
        {cloths.map((key, n) => {
          const swatch = clothOf(key)?.swatch;
          return (
            <button
              // A patch is where it is, whatever its cloth.
              // biome-ignore lint/suspicious/noArrayIndexKey: places do not move
              key={n}
              type="button"
              data-patch={n}
              aria-pressed={held === n}
              data-held={held === n}
              aria-label={`row ${Math.floor(n / columns) + 1}, patch ${(n % columns) + 1}: ${named(key)}`}
              className={`relative aspect-square min-h-6 overflow-hidden bg-paper text-xs leading-none font-bold ${
                held === n || over === n ? 'z-10 outline-4 outline-chalk' : ''
              }`}
              onPointerDown={(e) => {
                if (brush !== 'move') return;
                dragged.current = false;
                e.currentTarget.setPointerCapture(e.pointerId);
              }}
              onPointerMove={(e) => {
                if (brush !== 'move' || !e.currentTarget.hasPointerCapture(e.pointerId)) return;
                const to = at(e.clientX, e.clientY);
                if (to !== null && to !== n) dragged.current = true;
                setOver(dragged.current ? to : null);
              }}
              onPointerUp={(e) => {
                if (!dragged.current) return;
                const to = at(e.clientX, e.clientY);
                setOver(null);
                if (to !== null && to !== n) swap(n, to);
              }}
              onPointerCancel={() => setOver(null)}
              onClick={() => {
                // What was dragged is put already.
                if (dragged.current) dragged.current = false;
                else touch(n);
              }}
              onKeyDown={(e) => {
                if (walk(n, e.key)) e.preventDefault();
                if (e.key === 'Escape' && held !== null) {
                  e.preventDefault();
                  setHeld(null);
                }
              }}
            >
              {swatch && (
                <svg
                  aria-hidden="true"
                  viewBox={`0 0 ${swatch.width} ${swatch.height}`}
                  preserveAspectRatio="xMidYMid slice"
                  className="pointer-events-none absolute inset-0 size-full"
                  dangerouslySetInnerHTML={{ __html: swatch.body }}
                />
              )}
              {columns * rows <= 64 && (
                <span className="relative rounded bg-paper px-1 py-0.5">{named(key).slice(0, 2)}</span>
              )}
            </button>
          );
        })}
      </fieldset>
      <p className="mt-1 flex flex-wrap items-center gap-x-3 text-sm text-soft">
        <span>{counts.map(({ key, n }) => `${n} ${named(key)}`).join(' · ')}</span>
        {patches.arranged && (
          <button type="button" className="min-h-6 underline" onClick={() => send('')}>
            alternate two cloths again
          </button>
        )}
      </p>
      <div className="mt-2">
        <ChoiceField
          label="A tap"
          inline
          value={brush}
          onChoose={(value) => {
            setBrush(value);
            setHeld(null);
          }}
          choices={[
            { value: 'move', name: 'swaps patches' },
            ...CLOTHS.filter((key) => view.parts.some((p) => p.key === key)).map((key) => ({
              value: key,
              name: named(key),
            })),
          ]}
        />
      </div>
      {problem && (
        <p role="alert" className="mt-1 text-sm font-bold text-madder">
          {problem}
        </p>
      )}
    </section>
  );
}

function SizedByPatches({ piece, patches }: { piece: PieceView; patches: PatchesOf }) {
  const { edit } = useProject();
  const id = useId();
  const [wide, setWide] = useState<string | null>(null);
  const [tall, setTall] = useState<string | null>(null);
  const [problem, setProblem] = useState('');
  const typed = async (set: (v: string) => void, value: string): Promise<Outcome> => {
    set(value);
    setProblem('');
    return OK;
  };
  const make = async () => {
    const why = whyNot(
      await edit({
        edit: 'size-by-patches',
        piece: piece.id,
        width: wide ?? patches.width.text,
        height: tall ?? patches.height.text,
      }),
    );
    setProblem(why.join(' '));
    if (why.length === 0) {
      setWide(null);
      setTall(null);
    }
  };
  return (
    <section aria-labelledby={id} className="mt-4 border-t border-ruled pt-3">
      <h3 id={id} className="text-base">
        How big is a bag of these patches?
      </h3>
      <p className="text-sm text-soft">
        Type the size one patch shows. The bag becomes as big as {patches.columns} × {patches.rows} of them.
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-2">
        <TextField
          label="shows, wide"
          value={wide ?? patches.width.text}
          onCommit={(v) => typed(setWide, v)}
          className="w-24"
        />
        <TextField
          label="tall"
          value={tall ?? patches.height.text}
          onCommit={(v) => typed(setTall, v)}
          className="w-24"
        />
        <button type="button" className="btn" onClick={make}>
          Use this size
        </button>
      </div>
      {problem && (
        <p role="alert" className="mt-1 text-sm font-bold text-madder">
          {problem}
        </p>
      )}
    </section>
  );
}
