// One wall straight on. Its parts, and the body's own straps and pocket, are taken hold of and moved, by pointer or by the
// arrow keys; the sizes of the part in hand are typed beside it.
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
  /** What the body has itself is opened as the group of its fields. */
  groups: BagView['groups'];
  open: number | null;
  onOpen: (id: number) => void;
  onOpenGroup: (key: string) => void;
}

interface Grasp {
  place: Place;
  /** Which way its end is moved outward; a strap is taken hold of nearer to one of its ends. */
  outward: 1 | -1;
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

export function WallDrawing({ face, parts, groups, open, onOpen, onOpenGroup }: Props) {
  const { view, edit, preview } = useProject();
  const { systems, rulers } = useChoices();
  const unit = systems.find((s) => s.key === view.system)?.unit ?? 1;
  const step = rulers.find((r) => r.key === view.ruler)?.step ?? 1;
  const grasp = useRef<Grasp | null>(null);
  const [stop, setStop] = useState<string | null>(null);
  const percent = (n: number, of: number) => `${(n / of) * 100}%`;
  const { width, height } = face.drawing;

  /** The edits that move a part by so many steps of the ruler; nothing when it stays. */
  const moved = (place: Place, across: number, down: number, outward: number): Edit[] => {
    const set = (field: string, value: string): Edit =>
      place.part == null ? { edit: 'bag', field, value } : { edit: 'part', id: place.part, field, value };
    const typed = (exact: number, by: number) =>
      `${((Math.round(exact / step) + by) * step) / unit} ${view.system}`;
    const edits: Edit[] = [];
    if (across !== 0 && place.across) {
      if (place.freely) edits.push(set(place.freely.field, place.freely.value));
      edits.push(set(place.across.field, typed(place.across.is.exact, across)));
    }
    if (across !== 0 && place.ends) {
      const { field, is } = place.ends;
      edits.push(set(field, typed(is.exact, across * outward * place.ends.outward)));
    }
    if (down !== 0 && place.down) edits.push(set(place.down.field, typed(place.down.is.exact, down)));
    return edits;
  };
  const opens = (place: Place) => {
    if (place.part != null) onOpen(place.part);
    else if (place.own) onOpenGroup(place.own);
  };
  const begin = (e: React.PointerEvent<HTMLButtonElement>, place: Place) => {
    const box = e.currentTarget.closest('[data-wall]')?.getBoundingClientRect();
    if (!box) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    const middle = box.left + ((place.x + place.width / 2) / width) * box.width;
    grasp.current = {
      place,
      outward: e.clientX < middle ? -1 : 1,
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
    const edits = moved(g.place, steps(dx), steps(dy), g.outward);
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
    if (!g.moved) opens(g.place);
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
    const edits = moved(place, ...to, 1);
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
          const group = groups.find((g) => g.key === place.own);
          const name = part?.name ?? (group && `The bag’s own ${group.name.toLowerCase()}`);
          if (!name) return null;
          const moves = place.down || place.across || place.ends;
          const how = place.ends
            ? 'move its ends apart with the right arrow key, together with the left'
            : 'move it with the arrow keys';
          return (
            <button
              key={place.part ?? place.own}
              type="button"
              aria-label={moves ? `${name}: open it, or ${how}` : `${name}: open it`}
              aria-pressed={part ? part.id === open : undefined}
              className={`absolute touch-none rounded-[3px] border-2 ${part && part.id === open ? 'border-chalk' : 'border-transparent hover:border-chalk'} ${moves ? 'cursor-grab active:cursor-grabbing' : ''}`}
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
                if (e.detail === 0) opens(place);
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
      {!face.places.some((place) => place.part != null) && (
        <p className="mt-2 text-center text-soft">This wall has no parts yet. Add one below.</p>
      )}
    </div>
  );
}
