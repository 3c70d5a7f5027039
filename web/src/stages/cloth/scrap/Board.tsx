// The board a scrap is drawn on: corners and flaws are dragged, or moved with the arrow keys; threads run up.
import { useEffect, useRef, useState } from 'react';
import type { Look, Point, ScrapDraft, ScrapDrawn } from '../../../api/client';
import {
  addCorner,
  around,
  letters,
  measuredAs,
  moveCorner,
  moveFlaw,
  removeCorner,
  removeFlaw,
} from './change';

interface Props {
  draft: ScrapDraft;
  drawn: ScrapDrawn | null;
  look: Look;
  /** One inch or centimetre, and a line of the ruler, in exact units. */
  unit: number;
  step: number;
  /** What points up: the threads, or the print with them. */
  up: string;
  /** What a flaw is called. */
  flawName: (kind: string) => string;
  /** A line along the threads is being drawn. */
  threading: boolean;
  onChange: (draft: ScrapDraft) => void;
  onThreads: (foot: Point, head: Point) => void;
}

/** Pixels round the scrap for its letters and lengths. */
const ROOM = 46;

interface Size {
  wide: number;
  tall: number;
}

/** From exact units to the board and back. */
interface Scale {
  per: number;
  left: number;
  low: number;
}

function scaleOf(corners: Point[], { wide, tall }: Size): Scale {
  const box = around(corners);
  const per = Math.min(
    (wide - 2 * ROOM) / Math.max(box.width, 1),
    (tall - 2 * ROOM) / Math.max(box.height, 1),
  );
  return {
    per,
    left: (wide - box.width * per) / 2 - box.left * per,
    low: (tall + box.height * per) / 2 + box.low * per,
  };
}

type Held = { what: 'corner' | 'flaw'; k: number; from: Point } | { what: 'threads'; from: Point; to: Point };

export function Board(props: Props) {
  const { draft, drawn, look, unit, step, up, flawName, threading, onChange, onThreads } = props;
  const svg = useRef<SVGSVGElement>(null);
  const size = useSize(svg);
  const [held, setHeld] = useState<Held | null>(null);
  const [pulled, setPulled] = useState<ScrapDraft | null>(null);
  // While something is dragged the board keeps its scale.
  const fixed = useRef<Scale | null>(null);
  const scale = fixed.current ?? scaleOf(draft.corners, size);
  const now = pulled ?? draft;
  const x = (p: Point) => scale.left + p.x * scale.per;
  const y = (p: Point) => scale.low - p.y * scale.per;
  const place = (e: React.PointerEvent): Point => {
    const box = svg.current?.getBoundingClientRect();
    if (!box) return { x: 0, y: 0 };
    const [px, py] = [
      ((e.clientX - box.left) / box.width) * size.wide,
      ((e.clientY - box.top) / box.height) * size.tall,
    ];
    return { x: (px - scale.left) / scale.per, y: (scale.low - py) / scale.per };
  };
  const onLines = (p: Point): Point => ({
    x: Math.round(p.x / step) * step,
    y: Math.round(p.y / step) * step,
  });

  const hold = (e: React.PointerEvent, what: 'corner' | 'flaw', k: number) => {
    if (threading) return;
    fixed.current = scaleOf(draft.corners, size);
    svg.current?.setPointerCapture(e.pointerId);
    setHeld({ what, k, from: place(e) });
  };
  const move = (e: React.PointerEvent) => {
    if (!held) return;
    const at = place(e);
    if (held.what === 'threads') setHeld({ ...held, to: at });
    else if (held.what === 'corner') setPulled(moveCorner(draft, held.k, onLines(at)));
    else setPulled(moveFlaw(draft, held.k, at.x - held.from.x, at.y - held.from.y));
  };
  const release = () => {
    if (held?.what === 'threads') onThreads(held.from, held.to);
    else if (pulled) onChange(pulled);
    letGo();
  };
  const letGo = () => {
    fixed.current = null;
    setHeld(null);
    setPulled(null);
  };
  /** Arrow keys by a line of the ruler, with Shift by a whole unit. */
  const byKey = (e: React.KeyboardEvent, move: (dx: number, dy: number) => void, remove: () => void) => {
    const by = e.shiftKey ? unit : step;
    const [dx, dy] =
      { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, by], ArrowDown: [0, -by] }[e.key] ?? [];
    if (dx !== undefined && dy !== undefined) {
      e.preventDefault();
      move(dx, dy);
    } else if (e.key === 'Delete' || e.key === 'Backspace') {
      e.preventDefault();
      remove();
    }
  };

  const corners = now.corners;
  const n = corners.length;
  const points = (all: Point[]) => all.map((p) => `${x(p)},${y(p)}`).join(' ');
  const grid = unit * scale.per * (unit * scale.per < 14 ? 5 : 1);
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${size.wide} ${size.tall}`}
      className={`block w-full touch-none rounded border border-ruled bg-[#fbf7ec] ${threading ? 'cursor-crosshair' : ''}`}
      onPointerDown={(e) => {
        if (!threading) return;
        fixed.current = scaleOf(draft.corners, size);
        svg.current?.setPointerCapture(e.pointerId);
        setHeld({ what: 'threads', from: place(e), to: place(e) });
      }}
      onPointerMove={move}
      onPointerUp={release}
      onPointerCancel={letGo}
    >
      <title>The scrap, seen right side up; its threads run up</title>
      <defs>
        <pattern
          id="scrap-grid"
          width={grid}
          height={grid}
          patternUnits="userSpaceOnUse"
          x={scale.left % grid}
          y={scale.low % grid}
        >
          <path d={`M${grid} 0H0V${grid}`} fill="none" stroke="#e9e0cc" />
        </pattern>
      </defs>
      <rect width={size.wide} height={size.tall} fill="url(#scrap-grid)" />
      <polygon
        points={points(corners)}
        fill={look.ground}
        fillOpacity="0.75"
        stroke="#1f2a44"
        strokeWidth="1.6"
      />
      <Threads held={held} foot={size.tall} name={up} at={(p) => [x(p), y(p)]} />
      {now.flaws?.map((flaw, k) => (
        // Flaws alike are told apart by where they stand in the list.
        // biome-ignore lint/suspicious/noArrayIndexKey: they have no other name
        <g key={k}>
          {/* biome-ignore lint/a11y/useSemanticElements: a shape of a drawing is no button of the page */}
          <polygon
            points={points(flaw.corners)}
            fill="#fffdf8"
            fillOpacity="0.7"
            stroke="#a9412a"
            strokeWidth="1.6"
            strokeDasharray="4 3"
            role="button"
            tabIndex={0}
            aria-label={`${flawName(flaw.kind)}: move it with the arrow keys, Delete removes it`}
            className="cursor-move focus-visible:stroke-chalk"
            onPointerDown={(e) => hold(e, 'flaw', k)}
            onKeyDown={(e) =>
              byKey(
                e,
                (dx, dy) => onChange(moveFlaw(draft, k, dx, dy)),
                () => onChange(removeFlaw(draft, k)),
              )
            }
          />
          <text
            x={x({ x: around(flaw.corners).right, y: 0 }) + 5}
            y={y({ x: 0, y: around(flaw.corners).high }) + 10}
            className="pointer-events-none fill-madder"
            fontSize="15"
          >
            {flawName(flaw.kind)}
          </text>
        </g>
      ))}
      {(now.kept ?? []).map(({ side }) => {
        const [a, b] = [corners[side], corners[(side + 1) % n]];
        if (!a || !b) return null;
        return (
          <g key={`kept-${side}`} className="pointer-events-none">
            <line x1={x(a)} y1={y(a)} x2={x(b)} y2={y(b)} stroke="#e9c95b" strokeWidth="7" />
            <line x1={x(a)} y1={y(a)} x2={x(b)} y2={y(b)} stroke="#1f2a44" strokeWidth="1.6" />
          </g>
        );
      })}
      {corners.map((corner, k) => {
        const next = corners[(k + 1) % n] ?? corner;
        const middle = { x: (corner.x + next.x) / 2, y: (corner.y + next.y) / 2 };
        const long = Math.hypot(x(next) - x(corner), y(next) - y(corner));
        const out = long > 0 ? [(y(next) - y(corner)) / long, -(x(next) - x(corner)) / long] : [0, 0];
        const known = measuredAs(now, k, (k + 1) % n) !== '';
        const side = pulled ? '' : drawn?.sides[k]?.text;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a corner is its place in the way round
          <g key={`side-${k}`}>
            <text
              x={x(middle) - (out[0] ?? 0) * 28}
              y={y(middle) - (out[1] ?? 0) * 20 + 5}
              textAnchor="middle"
              fontSize="16"
              className={`pointer-events-none ${known ? 'fill-chalk font-bold' : 'fill-soft'}`}
            >
              {side}
            </text>
            {!threading && long > 50 && (
              /* biome-ignore lint/a11y/useSemanticElements: a shape of a drawing is no button of the page */
              <circle
                cx={x(middle)}
                cy={y(middle)}
                r="5"
                fill="#fffdf8"
                stroke="#5c5648"
                role="button"
                tabIndex={0}
                aria-label={`One more corner between ${letters(k)} and ${letters((k + 1) % n)}`}
                className="cursor-copy hover:fill-tape"
                onClick={() => onChange(addCorner(draft, k, middle))}
                onKeyDown={(e) => {
                  if (e.key !== 'Enter' && e.key !== ' ') return;
                  e.preventDefault();
                  onChange(addCorner(draft, k, middle));
                }}
              />
            )}
          </g>
        );
      })}
      {corners.map((corner, k) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a corner is its place in the way round
        <g key={`corner-${k}`}>
          {/* As large as a finger. */}
          <circle
            cx={x(corner)}
            cy={y(corner)}
            r="22"
            fill="transparent"
            onPointerDown={(e) => hold(e, 'corner', k)}
          />
          {/* biome-ignore lint/a11y/useSemanticElements: a shape of a drawing is no button of the page */}
          <circle
            cx={x(corner)}
            cy={y(corner)}
            r="11"
            fill="#1f2a44"
            role="button"
            tabIndex={0}
            aria-label={`Corner ${letters(k)}: move it with the arrow keys, Delete removes it`}
            className="cursor-move focus-visible:fill-chalk"
            onPointerDown={(e) => hold(e, 'corner', k)}
            onKeyDown={(e) =>
              byKey(
                e,
                (dx, dy) => onChange(moveCorner(draft, k, { x: corner.x + dx, y: corner.y + dy })),
                () => n > 3 && onChange(removeCorner(draft, k)),
              )
            }
          />
          <text
            x={x(corner)}
            y={y(corner) + 5}
            textAnchor="middle"
            fontSize="13"
            className="pointer-events-none fill-paper font-bold"
          >
            {letters(k)}
          </text>
        </g>
      ))}
    </svg>
  );
}

/** How large the board is on the page; one unit of the drawing is one pixel. */
function useSize(svg: React.RefObject<SVGSVGElement | null>): Size {
  const [wide, setWide] = useState(620);
  useEffect(() => {
    const board = svg.current;
    if (!board) return;
    const watch = new ResizeObserver(() => setWide(Math.max(240, board.clientWidth)));
    watch.observe(board);
    return () => watch.disconnect();
  }, [svg]);
  return { wide, tall: Math.round(wide * 0.8) };
}

/** The arrow along the threads: up, or as it is being drawn. */
function Threads({
  held,
  foot,
  name,
  at,
}: {
  held: Held | null;
  foot: number;
  name: string;
  at: (p: Point) => [number, number];
}) {
  const drawn = held?.what === 'threads' ? [at(held.from), at(held.to)] : null;
  const [x1, y1] = drawn?.[0] ?? [22, foot - 24];
  const [x2, y2] = drawn?.[1] ?? [22, foot - 84];
  const turn = (Math.atan2(y2 - y1, x2 - x1) * 180) / Math.PI + 90;
  return (
    <g stroke="#1f2a44" strokeWidth="2" fill="none" className="pointer-events-none">
      <path d={`M${x1} ${y1}L${x2} ${y2}`} />
      <path d="M-5 8L0 0L5 8" transform={`translate(${x2} ${y2}) rotate(${turn})`} />
      {!drawn && (
        <text x="6" y={foot - 92} fontSize="15" stroke="none" className="fill-soft">
          {name}
        </text>
      )}
    </g>
  );
}
