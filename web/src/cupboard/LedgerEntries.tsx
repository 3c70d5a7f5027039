// What came and went of one thing in the cupboard, the latest first; what can be taken back has the way to do it.
import type { EntryView } from '../api/client';

interface Props {
  entries: EntryView[];
  onTakeBack: (entry: EntryView) => void;
}

/** Its day; one that was kept before there were ledgers has none. */
const dayOf = ({ at }: EntryView) =>
  at ? new Date(at).toLocaleDateString(undefined, { day: 'numeric', month: 'short' }) : 'before';

export function LedgerEntries({ entries, onTakeBack }: Props) {
  return (
    <ol className="text-sm">
      {entries.map((e) => (
        <li key={e.number} className="flex items-baseline gap-2 border-t border-ruled py-1">
          <time
            className="whitespace-nowrap text-soft"
            dateTime={e.at ? new Date(e.at).toISOString() : undefined}
          >
            {dayOf(e)}
          </time>
          <span className={`flex-1 ${e.taken_back ? 'text-soft line-through' : ''}`}>{e.text}</span>
          {e.can_be_taken_back && (
            <button
              type="button"
              className="rounded-[2px] font-bold text-chalk hover:underline"
              aria-label={`Undo: ${e.text}, ${dayOf(e)}, entry ${e.number}`}
              onClick={() => onTakeBack(e)}
            >
              undo
            </button>
          )}
        </li>
      ))}
    </ol>
  );
}
