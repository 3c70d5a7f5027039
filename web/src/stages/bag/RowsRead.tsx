// Rows as they were read, each with the line it comes from; what can be meant otherwise is asked and put right here.
import type { FoundView } from '../../api/client';

type ReadRow = FoundView['rows'][number];

export function RowsRead({ rows, onChange }: { rows: ReadRow[]; onChange: (rows: ReadRow[]) => void }) {
  const put = (at: number, row: ReadRow | null) =>
    onChange(rows.flatMap((r, i) => (i !== at ? [r] : row ? [row] : [])));
  return (
    <ol className="mt-1 columns-1 gap-6 sm:columns-2" aria-label="Rows read">
      {rows.map((r, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: rows have no key of their own
        <li key={i} className="break-inside-avoid pb-1">
          <span className={r.asks ? 'font-bold' : undefined}>{r.text}</span>
          {r.said && (
            <span className="block text-sm text-soft">
              line {r.line}: {r.said}
            </span>
          )}
          {r.asks && (
            <div className="mb-2 border-l-4 border-madder pl-2">
              <p>{r.asks}</p>
              <div className="mt-1 flex flex-wrap gap-2">
                <button
                  type="button"
                  className="btn"
                  onClick={() => put(i, { ...r, asks: null, others: [] })}
                >
                  {r.text}
                </button>
                {r.others.map((other) => (
                  <button
                    key={other.text}
                    type="button"
                    className="btn"
                    onClick={() => put(i, { ...r, row: other.row, text: other.text, asks: null, others: [] })}
                  >
                    {other.text}
                  </button>
                ))}
                <button type="button" className="btn" onClick={() => put(i, null)}>
                  Skip this row
                </button>
              </div>
            </div>
          )}
        </li>
      ))}
    </ol>
  );
}
