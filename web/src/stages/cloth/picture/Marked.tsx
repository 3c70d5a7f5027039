// A picture with four marks on it, dragged or moved with the arrow keys, and the outlines that were seen.
import { useRef, useState } from 'react';

export interface Mark {
  x: number;
  y: number;
}

interface Props {
  url: string;
  wide: number;
  tall: number;
  marks: Mark[];
  outlines: Mark[][];
  /** Outlines that are not taken. */
  left: number[];
  onMarks: (marks: Mark[]) => void;
}

const NAMES = ['upper left', 'upper right', 'lower right', 'lower left'];

/** The loupe shows so many pixels of the picture. */
const LOUPE = 60;

export function Marked({ url, wide, tall, marks, outlines, left, onMarks }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const [held, setHeld] = useState<number | null>(null);
  const [focused, setFocused] = useState<number | null>(null);
  const size = wide / 100;
  const within = (v: number, most: number) => Math.min(Math.max(Math.round(v * 10) / 10, 0), most);
  const put = (k: number, x: number, y: number) =>
    onMarks(marks.map((m, i) => (i === k ? { x: within(x, wide), y: within(y, tall) } : m)));
  const move = (e: React.PointerEvent) => {
    const box = svg.current?.getBoundingClientRect();
    if (held === null || !box) return;
    put(held, ((e.clientX - box.left) / box.width) * wide, ((e.clientY - box.top) / box.height) * tall);
  };
  const shown = held ?? focused;
  const near = shown === null ? null : marks[shown];
  // Away from the mark, so that it is never under the hand.
  const loupe = wide / 4;
  const [lx, ly] = near && near.x < wide / 2 ? [wide - loupe, 0] : [0, 0];
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${wide} ${tall}`}
      className="block w-full touch-none rounded border border-ruled"
      onPointerMove={move}
      onPointerUp={() => setHeld(null)}
      onPointerCancel={() => setHeld(null)}
    >
      <title>The picture with its four marks and what Bofta found on it</title>
      <image href={url} width={wide} height={tall} />
      <polygon
        points={marks.map((m) => `${m.x},${m.y}`).join(' ')}
        fill="none"
        stroke="#fffdf8"
        strokeWidth={size / 3}
        strokeDasharray={`${size} ${size}`}
      />
      {outlines.map((outline, k) => {
        const off = left.includes(k);
        const middle = outline.reduce((s, p) => ({ x: s.x + p.x, y: s.y + p.y }), { x: 0, y: 0 });
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: they have no other name
          <g key={k} opacity={off ? 0.4 : 1}>
            <polygon
              points={outline.map((p) => `${p.x},${p.y}`).join(' ')}
              fill="#fffdf8"
              fillOpacity={off ? 0 : 0.18}
              stroke="#1f2a44"
              strokeWidth={size / 2.2}
              strokeLinejoin="round"
            />
            {outline.map((p) => (
              <circle
                key={`${p.x},${p.y}`}
                cx={p.x}
                cy={p.y}
                r={size * 0.6}
                fill="#e9c95b"
                stroke="#1f2a44"
                strokeWidth={size / 6}
              />
            ))}
            <text
              x={middle.x / outline.length}
              y={middle.y / outline.length}
              fontSize={size * 4}
              textAnchor="middle"
              dominantBaseline="middle"
              fill="#1f2a44"
              stroke="#fffdf8"
              strokeWidth={size / 2}
              paintOrder="stroke"
              fontWeight="bold"
            >
              {k + 1}
            </text>
          </g>
        );
      })}
      {marks.map((mark, k) => (
        <g key={NAMES[k]} transform={`translate(${mark.x} ${mark.y})`}>
          <path
            d={`M${-2 * size} 0H${2 * size}M0 ${-2 * size}V${2 * size}`}
            stroke="#fffdf8"
            strokeWidth={size / 3}
            className="pointer-events-none"
          />
          {/* biome-ignore lint/a11y/useSemanticElements: a shape of a drawing is no button of the page */}
          <circle
            r={2 * size}
            fill="#a9412a"
            fillOpacity="0.25"
            stroke="#a9412a"
            strokeWidth={size / 2}
            role="button"
            tabIndex={0}
            aria-label={`Mark ${NAMES[k]}: move it with the arrow keys, with Shift ten at a time`}
            className="cursor-move focus-visible:stroke-chalk"
            onFocus={() => setFocused(k)}
            onBlur={() => setFocused(null)}
            onPointerDown={(e) => {
              svg.current?.setPointerCapture(e.pointerId);
              setHeld(k);
            }}
            onKeyDown={(e) => {
              const by = e.shiftKey ? 10 : 1;
              const [dx, dy] =
                { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[e.key] ??
                [];
              if (dx === undefined || dy === undefined) return;
              e.preventDefault();
              put(k, mark.x + dx, mark.y + dy);
            }}
          />
        </g>
      ))}
      {near && (
        <g className="pointer-events-none">
          <svg
            aria-hidden="true"
            x={lx}
            y={ly}
            width={loupe}
            height={loupe}
            viewBox={`${near.x - LOUPE / 2} ${near.y - LOUPE / 2} ${LOUPE} ${LOUPE}`}
          >
            <rect x={near.x - LOUPE} y={near.y - LOUPE} width={2 * LOUPE} height={2 * LOUPE} fill="#5c5648" />
            <image href={url} width={wide} height={tall} />
            <path
              d={`M${near.x - LOUPE} ${near.y}H${near.x + LOUPE}M${near.x} ${near.y - LOUPE}V${near.y + LOUPE}`}
              stroke="#a9412a"
              strokeWidth="0.5"
            />
          </svg>
          <rect
            x={lx}
            y={ly}
            width={loupe}
            height={loupe}
            fill="none"
            stroke="#1f2a44"
            strokeWidth={size / 3}
          />
        </g>
      )}
    </svg>
  );
}
