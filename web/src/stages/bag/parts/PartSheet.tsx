// One part's sheet, beside the drawing it changes: its choices and sizes, and what is cut for it.
import type { AddedView, Edit } from '../../../api/client';
import { type Outcome, whyNot } from '../../../project/outcome';
import { useProject } from '../../../project/ProjectContext';
import { OptionFields } from '../options';

interface Props {
  part: AddedView;
  focus: string | null;
  onClose: () => void;
  onAdd: (what: Edit) => Promise<Outcome>;
}

export function PartSheet({ part, focus, onClose, onAdd }: Props) {
  const { edit, notify } = useProject();
  const told = (outcome: Outcome) => {
    const why = whyNot(outcome);
    if (why.length > 0) notify(why.join(' '));
    return why.length === 0;
  };
  const link = 'rounded-[2px] font-bold text-chalk hover:underline';
  return (
    <section
      aria-label={part.name}
      className="sheet flex max-h-[560px] min-h-0 flex-col border-chalk max-lg:max-h-none"
    >
      <header className="flex flex-wrap items-baseline gap-x-3 border-b border-ruled px-4 py-2">
        <h2 className="flex-1 text-lg">{part.name}</h2>
        <button
          type="button"
          className={link}
          onClick={async () => told(await onAdd({ edit: 'copy-part', id: part.id }))}
        >
          one more
        </button>
        <button
          type="button"
          className={link}
          onClick={async () => told(await edit({ edit: 'take-part-off', id: part.id })) && onClose()}
        >
          remove
        </button>
        <button type="button" className={link} onClick={onClose} aria-label={`Close ${part.name}`}>
          close
        </button>
      </header>
      <div className="min-h-0 flex-1 overflow-auto px-4 py-3">
        {part.aside && (
          <div role="status" className="mb-3 rounded border-2 border-madder px-3 py-2">
            <p className="font-bold text-madder">
              Set aside: Bofta does not cut it, because this bag has no place for it.
            </p>
            {part.can_be_put_back ? (
              <button
                type="button"
                className="btn mt-1.5"
                onClick={async () => told(await edit({ edit: 'put-part-back', id: part.id }))}
              >
                Restore
              </button>
            ) : (
              <p>Choose another wall below, or remove it.</p>
            )}
          </div>
        )}
        <OptionFields
          fields={part.fields}
          focus={focus}
          inline
          onSet={(field, value) => edit({ edit: 'part', id: part.id, field, value })}
        />
        {part.pieces.length > 0 && (
          <p className="mt-3 border-t border-ruled pt-2">
            Cut{' '}
            {part.pieces.map((piece, at) => (
              <span key={piece.name}>
                {at > 0 && ', '}
                {piece.count} × {piece.name}{' '}
                <strong className="whitespace-nowrap">
                  {piece.width.size.text} × {piece.height.size.text}
                </strong>
              </span>
            ))}
          </p>
        )}
      </div>
    </section>
  );
}
