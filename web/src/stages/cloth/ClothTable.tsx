// The table: what there is of every cloth laid out at one scale, and the parts as tags that are put on it: dragged, or
// taken up with a tap or Enter and put down on another.
import { useEffect, useState } from 'react';
import type { ClothView, Edit, PartView } from '../../api/client';
import { Drawing } from '../../drawing/Drawing';
import { OwnCuts } from '../../fields/OwnCuts';
import { TextField } from '../../fields/TextField';
import { whyNot } from '../../project/outcome';
import { useProject } from '../../project/ProjectContext';
import { PartTag, PieceTag } from './PartTag';
import { PictureEditor } from './scrap/PictureEditor';
import { ScrapEditor, type Which } from './scrap/ScrapEditor';

/** What a dragged tag says of itself. */
export const TAG = 'text/bofta-part';

export function ClothTable() {
  const { view, edit, notify } = useProject();
  const [held, setHeld] = useState<string | null>(null);
  const [scrap, setScrap] = useState<Which | null>(null);
  const [picture, setPicture] = useState(false);
  const closed = view.steps_done > 0;
  const part = view.parts.find((p) => p.key === held);

  useEffect(() => {
    if (!held) return;
    const onKey = (e: KeyboardEvent) => e.key === 'Escape' && setHeld(null);
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [held]);

  const say = async (...edits: Edit[]) => {
    setHeld(null);
    const why = whyNot(await edit(...edits))[0];
    if (why) notify(why);
  };
  const put = async (change: 'assign' | 'assign-also' | 'unassign', part: string, cloth: string) => {
    setHeld(null);
    const why = whyNot(await edit({ edit: change, part, cloth }))[0];
    if (why) notify(why);
  };
  const first = view.cloths[0]?.id;
  const loose = view.parts.filter((p) => p.cloths.length === 0);
  return (
    <section
      aria-label="The table"
      className="mb-4 rounded border border-ruled bg-[#fbf7ec] p-3"
      style={{
        backgroundImage:
          'linear-gradient(#e9e0cc 1px, transparent 1px), linear-gradient(90deg, #e9e0cc 1px, transparent 1px)',
        backgroundSize: '110px 110px',
      }}
    >
      <div className="mb-2 flex min-h-8 flex-wrap items-center gap-2" aria-live="polite">
        {loose.length > 0 && <span className="font-bold text-madder">Parts without a cloth</span>}
        {loose.map((p) => (
          <PartTag
            key={p.key}
            part={p}
            state="loose"
            held={held === p.key}
            closed={closed}
            onTake={() => setHeld(held === p.key ? null : p.key)}
          />
        ))}
        {part ? (
          <>
            <span className="text-soft">
              {part.name} picked up. Put it on a cloth, or press Escape to leave it where it was.
            </span>
            {part.cloths.length > 1 && (
              <button
                type="button"
                className="btn px-2 py-1 text-sm"
                aria-pressed={part.any}
                onClick={() => say({ edit: 'any-cloth', part: part.key, any: !part.any })}
              >
                {part.any ? 'Use its cloths in this order' : 'Use whichever of its cloths needs least'}
              </button>
            )}
          </>
        ) : (
          loose.length === 0 && !closed && <span className="text-soft">all at one scale</span>
        )}
      </div>
      <ul aria-label="Cloths on the table" className="flex flex-wrap items-end gap-x-6 gap-y-5">
        {view.cloths.map((cloth) => (
          <OnTable
            key={cloth.id}
            cloth={cloth}
            parts={view.parts.filter((p) => p.cloths.includes(cloth.id))}
            inHand={part}
            closed={closed}
            onTake={(key) => setHeld(held === key ? null : key)}
            onPut={put}
            onSay={say}
            onScrap={setScrap}
          />
        ))}
      </ul>
      {!closed && (
        <LayDown
          onDraw={() => setScrap({ cloth: first ?? '', label: null, count: 1, draft: null })}
          onPicture={() => setPicture(true)}
        />
      )}
      {picture && <PictureEditor onClose={() => setPicture(false)} />}
      {scrap && <ScrapEditor which={scrap} onClose={() => setScrap(null)} />}
    </section>
  );
}

/** What there is, said of any of the cloths; it is laid beside what lies there already. */
function LayDown({ onDraw, onPicture }: { onDraw: () => void; onPicture: () => void }) {
  const { view, edit } = useProject();
  const first = view.cloths[0]?.name.toLowerCase() ?? 'canvas';
  return (
    <div className="mt-4 flex flex-wrap items-start gap-3">
      <TextField
        label="Cloth you have"
        value=""
        placeholder={`2 fat quarters of ${first}, half a ${view.system === 'in' ? 'yard' : 'metre'} of ${view.cloths[1]?.name.toLowerCase() ?? first}`}
        className="min-w-60 flex-1"
        hint="Type lengths, sizes and pre-cuts, separated by commas or “and”, then press Enter."
        onCommit={(text) => edit({ edit: 'lay-down', text })}
      />
      <button type="button" className="btn mt-[22px]" onClick={onDraw}>
        Draw a scrap
      </button>
      <button type="button" className="btn mt-[22px]" onClick={onPicture}>
        Scraps from a picture
      </button>
      <div className="basis-full">
        <OwnCuts system={view.system} />
      </div>
    </div>
  );
}

interface OnTableProps {
  cloth: ClothView;
  parts: PartView[];
  inHand: PartView | undefined;
  closed: boolean;
  onTake: (part: string) => void;
  onPut: (change: 'assign' | 'assign-also' | 'unassign', part: string, cloth: string) => void;
  onSay: (...edits: Edit[]) => void;
  onScrap: (which: Which) => void;
}

/** One cloth: its things, the tags on it, and where a tag in hand can be put. */
function OnTable({ cloth, parts, inHand, closed, onTake, onPut, onSay, onScrap }: OnTableProps) {
  const { view } = useProject();
  const [over, setOver] = useState(false);
  const name = inHand?.name.toLowerCase();
  const here = inHand?.cloths.includes(cloth.id) ?? false;
  const apart = view.parts.flatMap((p) => p.kinds.filter((k) => k.cloth === cloth.id));
  const never = view.parts.filter((p) => p.never.includes(cloth.id));
  return (
    <li
      aria-label={`${cloth.name} on the table`}
      className={`max-w-full rounded p-1 ${over ? 'outline outline-3 outline-chalk' : ''}`}
      onDragOver={(e) => {
        if (!closed && e.dataTransfer.types.includes(TAG)) {
          e.preventDefault();
          setOver(true);
        }
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        setOver(false);
        const dropped = e.dataTransfer.getData(TAG);
        if (dropped) onPut('assign', dropped, cloth.id);
      }}
    >
      <p className="font-bold leading-tight">{cloth.name}</p>
      <ul className="mt-1 flex flex-wrap items-end gap-3">
        {cloth.things.map((thing, n) => (
          // Things alike are told apart by where they stand in the list.
          // biome-ignore lint/suspicious/noArrayIndexKey: a list that is typed anew as a whole
          <li key={n} className="leading-tight">
            <Drawing drawing={thing.drawing} label="" className={thing.bought ? '' : 'drop-shadow-sm'} />
            <ThingSize cloth={cloth} n={n} closed={closed} />
            {thing.scrap && !closed && (
              <Scrap cloth={cloth.id} scrap={thing.scrap} count={thing.count} onScrap={onScrap} />
            )}
          </li>
        ))}
      </ul>
      <div className="mt-1.5 flex max-w-80 flex-wrap gap-1.5">
        {parts.map((p) => (
          <PartTag
            key={p.key}
            part={p}
            state={p.any && p.cloths.length > 1 ? 'any' : p.cloths[0] === cloth.id ? 'first' : 'later'}
            held={inHand?.key === p.key}
            closed={closed}
            onTake={() => onTake(p.key)}
          />
        ))}
        {apart.map((kind) => (
          <PieceTag
            key={kind.piece}
            kind={kind}
            closed={closed}
            onBack={() => onSay({ edit: 'assign-piece', piece: kind.piece })}
          />
        ))}
        {parts.length === 0 && apart.length === 0 && !inHand && (
          <span className="text-sm text-soft">not used</span>
        )}
      </div>
      {never.length > 0 && (
        <p className="max-w-72 text-sm text-soft">
          never {never.map((p) => p.name.toLowerCase()).join(', ')}
        </p>
      )}
      {inHand && (
        <div className="mt-1.5 flex max-w-72 flex-wrap gap-1.5">
          {!(here && inHand.cloths.length === 1) && (
            <button
              type="button"
              className="btn px-2 py-1 text-sm"
              onClick={() => onPut('assign', inHand.key, cloth.id)}
            >
              Cut {name} from {here ? 'this alone' : cloth.name}
            </button>
          )}
          {!here && inHand.cloths.length > 0 && (
            <button
              type="button"
              className="btn px-2 py-1 text-sm"
              onClick={() => onPut('assign-also', inHand.key, cloth.id)}
            >
              Also, if it runs short
            </button>
          )}
          {here && (
            <button
              type="button"
              className="btn px-2 py-1 text-sm"
              onClick={() => onPut('unassign', inHand.key, cloth.id)}
            >
              Take {name} off it
            </button>
          )}
          {inHand.kinds.length > 1 &&
            inHand.kinds
              .filter((k) => k.cloth !== cloth.id && !(here && inHand.cloths.length === 1 && !k.cloth))
              .map((k) => (
                <button
                  key={k.piece}
                  type="button"
                  className="btn px-2 py-1 text-sm"
                  onClick={() => onSay({ edit: 'assign-piece', piece: k.piece, cloth: cloth.id })}
                >
                  Only {k.name.toLowerCase()}
                </button>
              ))}
          {!here && (
            <button
              type="button"
              className="btn px-2 py-1 text-sm"
              onClick={() =>
                onSay({
                  edit: 'never-from',
                  part: inHand.key,
                  cloth: cloth.id,
                  never: !inHand.never.includes(cloth.id),
                })
              }
            >
              {inHand.never.includes(cloth.id) ? 'Allow it again' : `Never ${name} from this`}
            </button>
          )}
        </div>
      )}
    </li>
  );
}

/** What a thing is said to be, below its drawing: a press makes it a field, and what is typed takes its place. */
function ThingSize({ cloth, n, closed }: { cloth: ClothView; n: number; closed: boolean }) {
  const { edit } = useProject();
  const [open, setOpen] = useState(false);
  const thing = cloth.things[n];
  if (!thing) return null;
  const fixed = thing.bought || closed || thing.scrap;
  if (fixed) return <span className={`text-sm ${thing.bought ? 'text-soft' : ''}`}>{thing.label}</span>;
  if (!open) {
    return (
      <button
        type="button"
        className="cursor-text border-b border-dotted border-indigo text-sm hover:bg-[#efe6d2]"
        aria-label={`${thing.label} of ${cloth.name}: put it right`}
        onClick={() => setOpen(true)}
      >
        {thing.label}
      </button>
    );
  }
  // A refusal stays, with what was typed.
  return (
    <TextField
      label={`${thing.label} of ${cloth.name}`}
      hideLabel
      focusKey="open"
      value={thing.said}
      className="w-44"
      onLeave={() => setOpen(false)}
      onCommit={async (text) => {
        const outcome = await edit({ edit: 'put-right', cloth: cloth.id, thing: n, text });
        if (outcome.is === 'ok') setOpen(false);
        return outcome;
      }}
    />
  );
}

interface ScrapProps {
  cloth: string;
  scrap: NonNullable<ClothView['things'][number]['scrap']>;
  count: number;
  onScrap: (which: Which) => void;
}

/** What can be done with a scrap on the table. */
function Scrap({ cloth, scrap: { label, draft }, count, onScrap }: ScrapProps) {
  const { edit } = useProject();
  return (
    <span className="mt-1 flex gap-1.5">
      <button
        type="button"
        className="btn px-2 py-0.5 text-sm"
        aria-label={`Edit scrap ${label}`}
        onClick={() => onScrap({ cloth, label, count, draft })}
      >
        Change
      </button>
      <button
        type="button"
        className="btn px-2 py-0.5 text-sm"
        aria-label={`Remove scrap ${label}`}
        onClick={() => edit({ edit: 'remove-scrap', cloth, label })}
      >
        Remove
      </button>
    </span>
  );
}
