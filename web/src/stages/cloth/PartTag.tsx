// A part as a tag tied to the cloth it is cut from; dashed where that cloth comes after another.
import { X } from 'lucide-react';
import type { PartView } from '../../api/client';
import { TAG } from './ClothTable';

interface Props {
  part: PartView;
  /** On the cloth it is cut from first, on one used when that runs short, on one of several in any order, or on none. */
  state: 'first' | 'later' | 'any' | 'loose';
  held: boolean;
  closed: boolean;
  onTake: () => void;
}

const EDGE = 'polygon(11px 0, 100% 0, 100% 100%, 11px 100%, 0 calc(100% - 11px), 0 11px)';

export function PartTag({ part, state, held, closed, onTake }: Props) {
  const count = part.kinds.reduce((sum, k) => sum + (k.cloth ? 0 : k.count), 0);
  const pieces = count === 0 ? 'cut from another cloth' : `${count} ${count === 1 ? 'piece' : 'pieces'}`;
  const told = { first: pieces, later: 'if it runs short', any: 'this or others', loose: pieces }[state];
  const line = held
    ? 'bg-chalk'
    : state === 'loose'
      ? 'bg-madder'
      : state === 'later'
        ? 'bg-ruled'
        : 'bg-indigo';
  return (
    <button
      type="button"
      aria-label={`${part.name}, ${told}`}
      aria-pressed={held}
      disabled={closed}
      draggable={!closed}
      onDragStart={(e) => {
        e.dataTransfer.setData(TAG, part.key);
        e.dataTransfer.effectAllowed = 'move';
      }}
      onClick={onTake}
      className={`p-[1.5px] text-left focus-visible:bg-chalk focus-visible:p-[3px] ${line} ${closed ? '' : 'cursor-grab'}`}
      style={{ clipPath: EDGE }}
    >
      <span
        className={`flex items-center gap-2 py-1 pr-3 pl-2.5 leading-tight ${held ? 'bg-[#e6eef5]' : 'bg-paper'}`}
        style={{ clipPath: EDGE }}
      >
        <span className="h-2 w-2 shrink-0 rounded-full border-[1.5px] border-indigo" aria-hidden="true" />
        <span>
          <span className="block font-bold">{part.name}</span>
          <span className="block text-sm text-soft">{told}</span>
        </span>
      </span>
    </button>
  );
}

/** One piece on a cloth of its own; it goes back to the cloths of its part. */
export function PieceTag({
  kind,
  closed,
  onBack,
}: {
  kind: PartView['kinds'][number];
  closed: boolean;
  onBack: () => void;
}) {
  return (
    <span className="flex items-center gap-1.5 rounded-sm border border-dashed border-indigo bg-paper py-1 pr-1 pl-2 leading-tight">
      <span>
        <span className="block font-bold">{kind.name}</span>
        <span className="block text-sm text-soft">only this piece</span>
      </span>
      {!closed && (
        <button
          type="button"
          className="btn px-1 py-1"
          aria-label={`${kind.name} as its part again`}
          onClick={onBack}
        >
          <X size={14} />
        </button>
      )}
    </span>
  );
}
