// One's own cut list: pasted or read from a file, looked over before it is taken, then edited row by row.
import { useProject } from '../../project/ProjectContext';
import { AddRow } from './AddRow';
import { CutListRow } from './CutListRow';
import { ReadCutList } from './ReadCutList';

export function CutListRows() {
  const { view } = useProject();
  const empty = view.bag.rows.length === 0;
  return (
    <div className="mt-2 flex min-w-0 flex-col gap-4">
      <section aria-label="Rows of the cut list" className="sheet overflow-x-auto p-2">
        {empty ? (
          <p className="px-2 pt-1 text-soft">
            Type the first piece here, or paste or open a whole list below. Give cut sizes, seams included.
          </p>
        ) : (
          <Rows />
        )}
        <AddRow />
      </section>
      {view.bag.bought.length > 0 && <ToBuy />}
      <ReadCutList first={empty} />
    </div>
  );
}

/** What the list names that is bought: it stands on the shopping list with its sizes. */
function ToBuy() {
  const { view, edit } = useProject();
  const rows = view.bag.rows.map((r) => r.row);
  return (
    <section aria-label="To buy, not cut" className="sheet p-3">
      <h2 className="text-lg">To buy, not cut</h2>
      <ul className="mt-1">
        {view.bag.bought.map((b, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: it is known by its place
          <li key={at} className="flex flex-wrap items-center gap-3 border-t border-ruled py-1">
            <span className="flex-1">{b.text}</span>
            <button
              type="button"
              className="btn"
              aria-label={`Remove ${b.text}`}
              onClick={() =>
                edit({
                  edit: 'rows',
                  rows,
                  bought: view.bag.bought.filter((_, i) => i !== at).map((one) => one.bought),
                })
              }
            >
              Take out
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Rows() {
  const { view } = useProject();
  return (
    <table className="rows w-full text-left">
      <thead>
        <tr className="text-soft">
          {[
            'how many',
            'piece',
            'part',
            'wide',
            'turn',
            'tall',
            'shape',
            'seam to add',
            'any way',
            'take out',
          ].map((h) => (
            <th key={h} scope="col" className="px-1.5 py-1 font-normal">
              <span className={h === 'turn' || h === 'take out' ? 'sr-only' : ''}>{h}</span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {view.bag.rows.map((row, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a row is known by its place
          <CutListRow key={i} row={row} at={i} />
        ))}
      </tbody>
    </table>
  );
}
