// The parts put on the bag, each a card that opens its sheet, and the way to add one.
import type { AddedView, Edit } from '../../../api/client';
import type { Outcome } from '../../../project/outcome';
import { AddPart } from './AddPart';
import { PartIcon } from './PartIcon';

interface Props {
  parts: AddedView[];
  open: number | null;
  wall: string | null;
  onOpen: (id: number | null) => void;
  onAdd: (what: Edit) => Promise<Outcome>;
}

export function PartCards({ parts, open, wall, onOpen, onAdd }: Props) {
  return (
    <section aria-label="Parts" className="mt-3">
      <h2 className="mb-1 flex flex-wrap items-baseline gap-x-2 text-base">
        Parts
        <span className="font-sans text-sm font-normal text-soft">
          {parts.length > 0
            ? 'Drag each part on its wall.'
            : 'Pockets, straps, loops and anything else on this bag.'}
        </span>
      </h2>
      <ul className="grid grid-cols-2 gap-2 sm:grid-cols-3 lg:grid-cols-4 xl:grid-cols-5">
        {parts.map((part) => (
          <li key={part.id}>
            <button
              type="button"
              aria-expanded={part.id === open}
              className={`sheet flex h-full w-full items-center gap-2.5 px-2.5 py-1.5 text-left enabled:hover:border-indigo disabled:opacity-60 aria-expanded:border-chalk aria-expanded:outline-2 aria-expanded:outline-chalk ${part.aside ? 'border-dashed border-madder' : ''}`}
              onClick={() => onOpen(part.id === open ? null : part.id)}
            >
              <PartIcon kind={part.kind} />
              <span className="min-w-0 leading-tight">
                <span className="block font-bold">{part.name}</span>
                <span
                  className={`block text-sm leading-tight ${part.aside ? 'font-bold text-madder' : 'text-soft'}`}
                >
                  {part.aside ? 'set aside, not cut' : part.summary}
                </span>
              </span>
            </button>
          </li>
        ))}
        <li>
          <AddPart wall={wall} onAdd={onAdd} />
        </li>
      </ul>
    </section>
  );
}
