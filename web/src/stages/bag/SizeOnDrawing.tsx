// A size typed and dragged on the drawing of the bag itself.
import { useRef } from 'react';
import type { BagView, Measure, ProblemView } from '../../api/client';
import { TextField } from '../../fields/TextField';
import type { Outcome } from '../../project/outcome';

type Anchor = BagView['anchors'][number];

interface Props {
  anchor: Anchor;
  /** Its place among the sizes. */
  at: number;
  name: string;
  value: Measure;
  unit: string;
  /** Exact length of one inch or centimetre, and of the ruler's step, in the server's unit. */
  exactUnit: number;
  exactStep: number;
  frame: { width: number; height: number };
  focusKey: string | null;
  /** Shows the bag with a size, or as it is; tells whether it stands. */
  onPreview: (value: string | null) => Promise<ProblemView[]>;
  onCommit: (field: string, value: string) => Promise<Outcome>;
  /** Takes what cannot stand: it is listed below the drawing, never across it. */
  onProblem: (field: string, problem: string | null) => void;
}

/** What the field takes on the drawing, in its own units. */
const ROOM = 160;

const vars = (all: Record<string, string | number>) => all as React.CSSProperties;

export function SizeOnDrawing(props: Props) {
  const {
    anchor,
    at,
    name,
    value,
    unit,
    exactUnit,
    exactStep,
    frame,
    focusKey,
    onPreview,
    onCommit,
    onProblem,
  } = props;
  const field = anchor.field;
  const drag = useRef<{
    x: number;
    y: number;
    per: [number, number];
    scale: number;
    from: number;
    /** In steps of the ruler. */
    last: number | null;
  } | null>(null);
  const setStop = (why: string | null) => onProblem(field, why && `Stops here. ${why}`);
  const percent = (n: number, of: number) => `${(n / of) * 100}%`;
  const sized = (steps: number) => `${(steps * exactStep) / exactUnit} ${unit}`;
  const begin = (e: React.PointerEvent<HTMLButtonElement>) => {
    const box = e.currentTarget.closest('[data-drawing]')?.getBoundingClientRect();
    if (!box) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    drag.current = {
      x: e.clientX,
      y: e.clientY,
      per: anchor.per_unit as [number, number],
      scale: box.width / frame.width,
      from: value.exact,
      last: null,
    };
  };
  const move = (e: React.PointerEvent) => {
    const d = drag.current;
    if (!d) return;
    const [ax, ay] = d.per;
    const [dx, dy] = [(e.clientX - d.x) / d.scale, (e.clientY - d.y) / d.scale];
    // Along the line the size is drawn on. The drawing is re-fitted as it grows, so the pull is read at its first scale.
    const units = (dx * ax + dy * ay) / (ax * ax + ay * ay);
    const wanted = Math.max(1, Math.round((d.from + units * exactUnit) / exactStep));
    if (wanted !== d.last) {
      d.last = wanted;
      onPreview(sized(wanted)).then((problems) => {
        if (drag.current === d) setStop(problems[0]?.message ?? null);
      });
    }
  };
  const end = async () => {
    const d = drag.current;
    drag.current = null;
    setStop(null);
    if (!d || d.last === null) return;
    const stands = async (steps: number) => (await onPreview(sized(steps))).length === 0;
    const [from, last] = [Math.round(d.from / exactStep), d.last];
    // Let go beyond what stands, it stops at the last line of the ruler that does.
    let [good, beyond] = [from, last];
    if (await stands(last)) good = last;
    while (Math.abs(beyond - good) > 1 && good !== last) {
      const middle = Math.trunc((good + beyond) / 2);
      if (await stands(middle)) good = middle;
      else beyond = middle;
    }
    if (good !== from) await onCommit(field, sized(good));
    onPreview(null);
  };
  const leave = () => {
    drag.current = null;
    setStop(null);
    onPreview(null);
  };
  const nudge = (e: React.KeyboardEvent) => {
    if (e.key === 'Escape' && drag.current) {
      e.stopPropagation();
      leave();
      return;
    }
    const up = e.key === 'ArrowUp' || e.key === 'ArrowRight';
    const down = e.key === 'ArrowDown' || e.key === 'ArrowLeft';
    if (!up && !down) return;
    e.preventDefault();
    const by = exactStep * (e.shiftKey ? 8 : 1) * (up ? 1 : -1);
    onCommit(field, sized(Math.max(1, Math.round((value.exact + by) / exactStep))));
  };
  const middle = (anchor.x1 + anchor.x2) / 2;
  const flat = Math.abs(anchor.y2 - anchor.y1) < 4;
  // Beside the line where the line is too short to hold it.
  const beside = flat && Math.abs(anchor.x2 - anchor.x1) < ROOM;
  const aside = field === 'depth' ? 86 : beside ? -(ROOM + anchor.x2 - anchor.x1) / 2 : 0;
  return (
    <>
      <div
        className="absolute top-(--top) left-(--left) w-[124px] -translate-x-1/2 -translate-y-1/2 max-sm:top-full max-sm:left-[calc(var(--at)*34%)] max-sm:w-[32%] max-sm:translate-x-0 max-sm:translate-y-1"
        // On a narrow screen the fields stand in a row below the drawing.
        style={vars({
          '--at': at,
          '--left': percent(middle + aside, frame.width),
          '--top': percent((anchor.y1 + anchor.y2) / 2 + (field === 'depth' ? 14 : 0), frame.height),
        })}
      >
        <TextField
          label={`${name}, finished`}
          hideLabel
          value={value.text}
          words={value.words}
          unit={name}
          onCommit={(v) => onCommit(field, v)}
          onProblem={(problem) => onProblem(field, problem)}
          focusKey={focusKey}
          inputClassName="border-[1.5px] border-indigo pr-12 text-lg font-bold"
        />
      </div>
      <button
        type="button"
        role="slider"
        aria-label={`Drag the ${field}`}
        aria-valuenow={value.exact / exactUnit}
        aria-valuetext={value.words}
        className="absolute h-6 w-6 disabled:hidden -translate-x-1/2 -translate-y-1/2 touch-none rounded-full border-2 border-madder bg-paper hover:bg-madder active:bg-madder"
        style={{ left: percent(anchor.x2, frame.width), top: percent(anchor.y2, frame.height) }}
        onPointerDown={begin}
        onPointerMove={move}
        onPointerUp={end}
        onPointerCancel={leave}
        onKeyDown={nudge}
      />
    </>
  );
}
