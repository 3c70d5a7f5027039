// Text or a file, shown as it will be read before anything is taken.
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiError, api, type FoundView, must, type RowView } from '../../api/client';
import { whyNot } from '../../project/outcome';
import { useProject } from '../../project/ProjectContext';
import { RowsRead } from './RowsRead';

const KINDS = '.csv,.tsv,.txt,.xlsx,.xls,.ods,.svg,.dxf';

export function ReadCutList({ first }: { first: boolean }) {
  const { view, edit } = useProject();
  const [text, setText] = useState('');
  const [found, setFound] = useState<FoundView | null>(null);
  const [asks, setAsks] = useState<File | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const failed = (error: unknown) => setProblem(error instanceof ApiError ? sentence(error) : String(error));
  const read = useMutation({
    mutationFn: () => must(api.POST('/api/cut-list/text', { body: { text, system: view.system } })),
    onSuccess: (data) => {
      setFound(data);
      setProblem(null);
    },
    onError: failed,
  });
  const readFile = async (file: File, unit?: string) => {
    setProblem(null);
    setAsks(null);
    // What a file before it gave is not this one's.
    setFound(null);
    const query = new URLSearchParams({ name: file.name, system: view.system, ...(unit ? { unit } : {}) });
    try {
      const headers = { 'content-type': 'application/octet-stream' };
      const answer = await fetch(`/api/cut-list/file?${query}`, { method: 'POST', body: file, headers });
      const body = await answer.json();
      if (answer.ok) setFound(body);
      else if (body.problems?.[0]?.field === 'unit') setAsks(file);
      else setProblem(body.problems?.[0]?.message ?? body.message);
    } catch {
      setProblem(
        `${file.name} could not be sent, because Bofta does not answer. Start the program again and send the file once more.`,
      );
    }
  };
  const take = async (keep: boolean) => {
    if (!found) return;
    const rows = found.rows.map((r) => r.row);
    const before = keep ? view.bag.rows.length : 0;
    const stated = found.stated;
    const outcome = await edit(
      {
        edit: 'rows',
        rows: keep ? [...kept(view.bag.rows), ...rows] : rows,
        bought: [...(keep ? view.bag.bought : []), ...found.bought].map((b) => b.bought),
      },
      ...(stated
        ? (['width', 'height', 'depth'] as const).map((field, i) => ({
            edit: 'bag' as const,
            field,
            value: stated[i] ?? '0',
          }))
        : []),
    );
    if (outcome.is !== 'ok') {
      // What was read stays, to be taken once it can be.
      setProblem(whyNot(outcome).join(' ') || null);
      return;
    }
    // What was not read stays, to be mended and read again.
    setText(found.unread.map((u) => u.text).join('\n'));
    setFound(null);
    if (before === 0) window.scrollTo({ top: 0 });
  };
  const nothing = !found || found.rows.length + found.bought.length === 0;
  const asking = found?.rows.filter((r) => r.asks).length ?? 0;
  return (
    <section className="sheet p-4" aria-label="Read a cut list">
      <h2 className="text-lg">{first ? 'Paste your cut list' : 'Read more rows'}</h2>
      <p className="text-soft">
        One piece on each line, as printed: <span className="font-bold">4x 9 1/2 x 12 lining</span>, or
        columns from a spreadsheet. Use inches or centimetres. You can write WOF for the width of the cloth.
      </p>
      <textarea
        className="field mt-2 h-36 font-sans"
        aria-label="Cut list"
        value={text}
        spellCheck={false}
        placeholder={'Outer: cut 2, 15 x 16 1/2\nLining: cut 2, 15 x 16 1/2\n2 straps 4 x 26'}
        onChange={(e) => {
          setText(e.target.value);
          setFound(null);
        }}
      />
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <button
          type="button"
          className="btn btn-act"
          disabled={text.trim() === '' || read.isPending}
          onClick={() => read.mutate()}
        >
          Read it
        </button>
        <label className="btn cursor-pointer focus-within:outline focus-within:outline-2">
          Read a file
          <input
            type="file"
            accept={KINDS}
            className="sr-only"
            onChange={(e) => {
              const file = e.target.files?.[0];
              e.target.value = '';
              if (file) readFile(file);
            }}
          />
        </label>
        <span className="text-sm text-soft">CSV, XLSX, ODS, XLS; outlines from SVG and DXF; up to 20 MB</span>
      </div>
      <p role="alert" className="mt-1 text-sm font-bold text-madder">
        {problem}
      </p>
      {asks && (
        <p className="mt-2 flex flex-wrap items-center gap-2">
          {asks.name} does not say which unit it is drawn in:
          {[
            ['in', 'inches'],
            ['cm', 'centimetres'],
            ['mm', 'millimetres'],
          ].map(([unit, name]) => (
            <button key={unit} type="button" className="btn" onClick={() => readFile(asks, unit)}>
              {name}
            </button>
          ))}
        </p>
      )}
      {found && (
        <div className="mt-3 border-t border-ruled pt-3">
          <h3 className="text-base">
            {found.rows.length} {found.rows.length === 1 ? 'row' : 'rows'} read
            {found.bought.length > 0 && `, ${found.bought.length} to buy`}
            {found.unread.length > 0 && `, ${found.unread.length} not`}
          </h3>
          <RowsRead rows={found.rows} onChange={(rows) => setFound({ ...found, rows })} />
          {found.bought.length > 0 && (
            <>
              <h4 className="mt-2 text-base">To buy, not cut</h4>
              <ul aria-label="To buy" className="columns-1 gap-6 sm:columns-2">
                {found.bought.map((b) => (
                  <li key={b.line} className="break-inside-avoid pb-1">
                    {b.text}
                    <span className="block text-sm text-soft">
                      line {b.line}: {b.said}
                    </span>
                  </li>
                ))}
              </ul>
            </>
          )}
          {found.unread.length > 0 && (
            <ul className="mt-2 flex flex-col gap-1">
              {found.unread.map((u) => (
                <li key={u.line} className="text-madder">
                  Line {u.line}, “{u.text}”: {u.why}.
                </li>
              ))}
            </ul>
          )}
          {found.notes.map((n) => (
            <p key={n} className="mt-1 text-soft">
              {n}
            </p>
          ))}
          {asking > 0 && (
            <p role="status" className="mt-2 font-bold text-madder">
              {asking === 1 ? 'One row needs an answer from you' : `${asking} rows need an answer from you`}{' '}
              before you can use them.
            </p>
          )}
          <div className="mt-3 flex flex-wrap gap-2">
            <button
              type="button"
              className="btn btn-act"
              disabled={nothing || asking > 0}
              onClick={() => take(!first)}
            >
              {first ? 'Use these rows' : 'Add them to the list'}
            </button>
            {!first && (
              <button
                type="button"
                className="btn"
                disabled={nothing || asking > 0}
                onClick={() => take(false)}
              >
                Replace the list with them
              </button>
            )}
          </div>
        </div>
      )}
    </section>
  );
}

const sentence = (error: ApiError) => error.body.problems.map((p) => p.message).join(' ') || error.message;

/** Rows as they stand, to be sent back with others. */
const kept = (rows: RowView[]) => rows.map((r) => r.row);
