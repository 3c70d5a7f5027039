// A piece placed on its print: the print is moved under the piece until it falls right, by dragging, with the arrow keys
// or by typed sizes.
import { useQuery } from '@tanstack/react-query';
import { type RefObject, useRef, useState } from 'react';
import { api, must, type PieceView, type PrintBoardView as Seen } from '../../api/client';
import { useChoices } from '../../api/useChoices';
import { TextField } from '../../fields/TextField';
import { LargeDialog } from '../../frame/LargeDialog';
import { type Outcome, whyNot } from '../../project/outcome';
import { useProject } from '../../project/ProjectContext';

export function PlaceOnPrint({ piece }: { piece: PieceView }) {
  const { view } = useProject();
  const [open, setOpen] = useState(false);
  if (!piece.may_place && !piece.placed) return null;
  if (view.steps_done > 0) return piece.placed ? <> · {piece.placed}</> : null;
  return (
    <>
      {' · '}
      <button
        type="button"
        className="rounded border border-dashed border-[#9a8f79] px-1.5 py-0.5 hover:border-indigo hover:bg-calico"
        onClick={() => setOpen(true)}
        aria-label={`Place ${piece.name} on its print: ${piece.placed ?? 'not placed yet'}`}
      >
        {piece.placed ?? 'anywhere on the print'}
      </button>
      {open && <Placing piece={piece} onClose={() => setOpen(false)} />}
    </>
  );
}

function Placing({ piece, onClose }: { piece: PieceView; onClose: () => void }) {
  const { view } = useProject();
  const letGo = useRef<(() => boolean) | null>(null);
  const board = useQuery({
    queryKey: ['print-board', view.id, view.revision, piece.id],
    queryFn: () =>
      must(
        api.GET('/api/projects/{id}/pieces/{piece}/print', {
          params: { path: { id: view.id, piece: piece.id } },
        }),
      ),
    placeholderData: (before) => before,
    retry: false,
  });
  return (
    <LargeDialog
      title={`${piece.name} on its print`}
      about="Move the print under the piece. Bofta cuts every copy at the same place of the print."
      closing="Close"
      onClose={onClose}
      onEscape={() => letGo.current?.() ?? false}
    >
      {board.isError && <p role="alert">{board.error.message}</p>}
      {board.isPending && <p className="text-soft">One moment …</p>}
      {board.data && (
        <Board piece={piece} board={board.data} waiting={board.isPlaceholderData} letGo={letGo} />
      )}
    </LargeDialog>
  );
}

/** The remainder of what was moved, less than one repeat either way. */
const within = (moved: number, repeat: number) => (repeat > 0 ? moved % repeat : 0);

type PrintBoardView = Omit<Seen, 'beyond' | 'face_middle'> & {
  beyond: number[];
  face_middle?: string[] | null;
};

interface BoardProps {
  piece: PieceView;
  board: PrintBoardView;
  waiting: boolean;
  /** Takes a drag back; tells whether there was one. */
  letGo: RefObject<(() => boolean) | null>;
}

function Board({ piece, board, waiting, letGo }: BoardProps) {
  const { view, edit } = useProject();
  const { rulers, systems } = useChoices();
  const [moved, setMoved] = useState<[number, number]>([0, 0]);
  const [why, setWhy] = useState<string | null>(null);
  const drag = useRef<{ x: number; y: number; scale: number } | null>(null);
  const unit = systems.find((s) => s.key === view.system)?.unit ?? 1;
  const sign = view.system;
  const step = rulers.find((r) => r.key === view.ruler)?.step ?? 1;
  const [across, up] = board.beyond as [number, number];
  const { width, height } = board.over;

  const typed = (x: string, y: string): Promise<Outcome> =>
    edit({ edit: 'place-on-print', piece: piece.id, across: x, up: y });
  const place = async (x: string, y: string) => setWhy(whyNot(await typed(x, y))[0] ?? null);
  /** Moved by so many lines of the ruler; along an axis on which the print is the same everywhere it stays. */
  const by = (right: number, above: number) => {
    const text = (from: From, steps: number, period: number) => {
      if (steps === 0 || period === 0) return asTyped(from, unit, sign);
      const to = (Math.round(from.size.exact / step + steps) * step) / unit;
      // Beside the piece it is the same place a repeat further.
      const repeat = period / board.per_unit;
      return `${to < 0 ? to + Math.ceil(-to / repeat) * repeat : to} ${sign}`;
    };
    return place(text(board.across, right, across), text(board.up, above, up));
  };
  const begin = (e: React.PointerEvent<SVGGElement>) => {
    const box = e.currentTarget.closest('svg')?.getBoundingClientRect();
    if (!box) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    drag.current = { x: e.clientX, y: e.clientY, scale: box.width / width };
  };
  const move = (e: React.PointerEvent) => {
    const d = drag.current;
    if (!d) return;
    setMoved([across && (e.clientX - d.x) / d.scale, up && (e.clientY - d.y) / d.scale]);
  };
  const end = async () => {
    if (!drag.current) return;
    drag.current = null;
    const steps = (pixels: number) => Math.round(((pixels / board.per_unit) * unit) / step);
    const [right, above] = [steps(moved[0]), steps(-moved[1])];
    if (right !== 0 || above !== 0) await by(right, above);
    setMoved([0, 0]);
  };
  const leave = () => {
    drag.current = null;
    setMoved([0, 0]);
  };
  letGo.current = () => {
    const held = drag.current !== null;
    leave();
    return held;
  };
  const nudge = (e: React.KeyboardEvent) => {
    const far = e.shiftKey ? 8 : 1;
    const ways: Record<string, [number, number]> = {
      ArrowLeft: [-far, 0],
      ArrowRight: [far, 0],
      ArrowUp: [0, far],
      ArrowDown: [0, -far],
    };
    const way = ways[e.key];
    if (!way) return;
    e.preventDefault();
    by(...way);
  };
  const dx = within(moved[0], across);
  const dy = within(moved[1], up);
  return (
    <div className="mt-3 grid gap-4 lg:grid-cols-[minmax(0,620px)_1fr]">
      <svg
        viewBox={`0 0 ${width} ${height}`}
        className="h-auto w-full touch-none rounded border border-ruled bg-paper"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: moved with the arrow keys
        tabIndex={0}
        role="img"
        aria-label={`The print under ${piece.name}: arrow keys move it`}
        onKeyDown={nudge}
      >
        <g
          className="cursor-grab active:cursor-grabbing"
          onPointerDown={begin}
          onPointerMove={move}
          onPointerUp={end}
          onPointerCancel={leave}
        >
          <g
            transform={`translate(${dx - across} ${dy - up})`}
            dangerouslySetInnerHTML={{ __html: board.print.body }}
          />
          <g pointerEvents="none" dangerouslySetInnerHTML={{ __html: board.over.body }} />
        </g>
      </svg>
      <div className="flex flex-col gap-3">
        <p>
          {board.placed ? `Cut from ${board.cloth} ` : `Not placed on ${board.cloth} yet. `}
          {board.placed && 'Middle of a motif'}
        </p>
        {across > 0 && (
          <TextField
            label="from the left edge"
            value={board.across.middle ? 'middle' : board.across.size.text}
            unit={sign}
            onCommit={(value) => typed(value || 'middle', asTyped(board.up, unit, sign))}
          />
        )}
        {up > 0 && (
          <TextField
            label="from the lower edge"
            value={board.up.middle ? 'middle' : board.up.size.text}
            unit={sign}
            onCommit={(value) => typed(asTyped(board.across, unit, sign), value || 'middle')}
          />
        )}
        <div className="flex flex-wrap gap-2">
          {board.face_middle && (
            <button
              type="button"
              className="btn"
              onClick={() => place(board.face_middle?.[0] ?? 'middle', board.face_middle?.[1] ?? 'middle')}
            >
              In the middle of its face
            </button>
          )}
          <button type="button" className="btn" onClick={() => place('middle', 'middle')}>
            In the middle of the piece
          </button>
          {board.placed && (
            <button type="button" className="btn" onClick={() => place('', '')}>
              Remove the placement
            </button>
          )}
        </div>
        {why && (
          <p role="alert" className="text-madder">
            {why}
          </p>
        )}
        <p aria-live="polite" className={waiting ? 'text-soft' : ''}>
          {board.costs && (
            <>
              {board.placed ? 'Cost of this placement: ' : 'With the motif in the middle: '}
              <strong>{board.costs}</strong>.{' '}
            </>
          )}
          {board.holds}
        </p>
        <p className="text-sm text-soft">
          {board.face_middle
            ? 'Dashed: the part that shows on the bag. The rest is seams, hems and base.'
            : 'Seams are part of the piece.'}
        </p>
      </div>
    </div>
  );
}

type From = { size: { exact: number }; middle: boolean };

/** What stands there, exactly, as it would be typed. */
const asTyped = (from: From, unit: number, sign: string) =>
  from.middle ? 'middle' : `${from.size.exact / unit} ${sign}`;
