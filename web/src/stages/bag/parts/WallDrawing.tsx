// One wall straight on. Its parts are taken hold of and moved, by pointer or by the arrow keys; the sizes of the one in
// hand are typed beside it.
import { useRef, useState } from 'react';
import type { AddedView, BagView, Edit } from '../../../api/client';
import { useChoices } from '../../../api/useChoices';
import { Drawing } from '../../../drawing/Drawing';
import { TextField } from '../../../fields/TextField';
import { useProject } from '../../../project/ProjectContext';

type Face = BagView['faces'][number];
type Place = Face['places'][number];

interface Props {
  face: Face;
  parts: AddedView[];
  open: number | null;
  onOpen: (id: number) => void;
}

interface Grasp {
  place: Place;
  x: number;
  y: number;
  /** Pixels of the screen for one of the drawing. */
  scale: number;
  moved: boolean;
  last: string;
  good: Edit[];
  /** Whether the last place stands is being asked. */
  asked: Promise<void>;
}

export function WallDrawing({ face, parts, open, onOpen }: Props) {
  const { view, edit, preview } = useProject();
  const { systems, rulers } = useChoices();
  const unit = systems.find((s) => s.key === view.system)?.unit ?? 1;
  const step = rulers.find((r) => r.key === view.ruler)?.step ?? 1;
  const grasp = useRef<Grasp | null>(null);
  const [stop, setStop] = useState<string | null>(null);
  const percent = (n: number, of: number) => `${(n / of) * 100}%`;
  const { width, height } = face.drawing;

  /** The edits that move a part by so many steps of the ruler; nothing when it stays. */
  const moved = (place: Place, across: number, down: number): Edit[] => {
    const id = place.part;
    const typed = (exact: number, by: number) =>
      `${((Math.round(exact / step) + by) * step) / unit} ${view.system}`;
    const edits: Edit[] = [];
    if (across !== 0 && place.across) {
      if (place.freely)
        edits.push({ edit: 'part', id, field: place.freely.field, value: place.freely.value });
      edits.push({
        edit: 'part',
        id,
        field: place.across.field,
        value: typed(place.across.is.exact, across),
      });
    }
    if (down !== 0 && place.down)
      edits.push({ edit: 'part', id, field: place.down.field, value: typed(place.down.is.exact, down) });
    return edits;
  };
  const begin = (e: React.PointerEvent<HTMLButtonElement>, place: Place) => {
    const box = e.currentTarget.closest('[data-wall]')?.getBoundingClientRect();
    if (!box) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    grasp.current = {
      place,
      x: e.clientX,
      y: e.clientY,
      scale: box.width / width,
      moved: false,
      last: '',
      good: [],
      asked: Promise.resolve(),
    };
  };
  const move = (e: React.PointerEvent) => {
    const g = grasp.current;
    if (!g) return;
    const [dx, dy] = [(e.clientX - g.x) / g.scale, (e.clientY - g.y) / g.scale];
    if (!g.moved && Math.hypot(dx, dy) < 4) return;
    g.moved = true;
    const steps = (pixels: number) => Math.round(((pixels / face.per_unit) * unit) / step);
    const edits = moved(g.place, steps(dx), steps(dy));
    const now = JSON.stringify(edits);
    if (now === g.last) return;
    g.last = now;
    g.asked = preview(edits.length > 0 ? edits : null).then((problems) => {
      if (problems.length === 0) g.good = edits;
      if (grasp.current === g) setStop(problems[0]?.message ?? null);
    });
  };
  const end = async () => {
    const g = grasp.current;
    grasp.current = null;
    setStop(null);
    if (!g) return;
    // Let go before the answer came, it is put where it was let go all the same.
    await g.asked;
    if (g.moved && g.good.length > 0) await edit(...g.good);
    preview(null);
    if (!g.moved) onOpen(g.place.part);
  };
  const leave = () => {
    grasp.current = null;
    setStop(null);
    preview(null);
  };
  const nudge = async (e: React.KeyboardEvent, place: Place) => {
    if (e.key === 'Escape' && grasp.current) {
      e.stopPropagation();
      leave();
      return;
    }
    const by = e.shiftKey ? 8 : 1;
    const way: Record<string, [number, number]> = {
      ArrowLeft: [-by, 0],
      ArrowRight: [by, 0],
      ArrowUp: [0, -by],
      ArrowDown: [0, by],
    };
    const to = way[e.key];
    if (!to) return;
    e.preventDefault();
    const edits = moved(place, ...to);
    if (edits.length === 0) return;
    const outcome = await edit(...edits);
    setStop(outcome.is === 'problems' ? (outcome.problems[0]?.message ?? null) : null);
  };
  const inHand = parts.find((p) => p.id === open);
  const at = face.places.find((p) => p.part === open);
  const size = (key: string) => inHand?.fields.find((f) => f.key === key && !f.idle && f.length);
  const [wide, tall] = [size('width'), size('height')];
  return (
    <div>
      <div className="relative mx-auto max-w-[620px] max-lg:max-w-[440px]" data-wall>
        <Drawing drawing={face.drawing} label={`${face.name} of the bag`} className="w-full" />
        {face.places.map((place) => {
          const part = parts.find((p) => p.id === place.part);
          if (!part) return null;
          return (
            <button
              key={place.part}
              type="button"
              aria-label={`${part.name}: open it, or move it with the arrow keys`}
              aria-pressed={place.part === open}
              className={`absolute touch-none rounded-[3px] border-2 ${place.part === open ? 'border-chalk' : 'border-transparent hover:border-chalk'} ${place.down || place.across ? 'cursor-grab active:cursor-grabbing' : ''}`}
              style={{
                left: percent(place.x, width),
                top: percent(place.y, height),
                width: percent(Math.max(place.width, 16), width),
                height: percent(Math.max(place.height, 16), height),
              }}
              onPointerDown={(e) => begin(e, place)}
              onPointerMove={move}
              onPointerUp={end}
              onPointerCancel={leave}
              onKeyDown={(e) => nudge(e, place)}
              onClick={(e) => {
                // The keyboard's click; a pointer's is told apart where it is let go.
                if (e.detail === 0) onOpen(place.part);
              }}
            />
          );
        })}
        {inHand &&
          at &&
          [
            {
              size: wide,
              unit: 'wide',
              x: at.x + at.width / 2,
              y: at.y + at.height,
              place: 'w-[118px] -translate-x-1/2 translate-y-1',
            },
            {
              size: tall,
              unit: 'tall',
              x: Math.min(at.x + at.width, width * 0.82),
              y: at.y + at.height / 2,
              place: 'w-[104px] translate-x-1 -translate-y-1/2',
            },
          ].map(
            ({ size: field, unit: word, x, y, place }) =>
              field && (
                <div
                  key={field.key}
                  className={`absolute ${place}`}
                  style={{ left: percent(x, width), top: percent(y, height) }}
                >
                  <TextField
                    label={`${inHand.name}, ${field.label}`}
                    hideLabel
                    value={field.length?.text ?? ''}
                    words={field.length?.words}
                    unit={word}
                    onCommit={(value) => edit({ edit: 'part', id: inHand.id, field: field.key, value })}
                    onProblem={setStop}
                    inputClassName="border-[1.5px] border-chalk pr-11 font-bold"
                  />
                </div>
              ),
          )}
      </div>
      {stop && (
        <p
          role="alert"
          className="mt-2 rounded border-2 border-madder bg-paper px-3 py-1 font-bold text-madder"
        >
          {stop}
        </p>
      )}
      {face.places.length === 0 && (
        <p className="mt-2 text-center text-soft">Nothing is put on this wall yet: add a part below.</p>
      )}
    </div>
  );
}
