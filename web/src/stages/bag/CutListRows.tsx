// One's own cut list: pasted or read from a file, looked over before it is taken, then edited row by row.
import { useMutation } from '@tanstack/react-query';
import { Trash2, Undo2 } from 'lucide-react';
import { Fragment, useState } from 'react';
import {
  api,
  type FoundView,
  type Measure,
  must,
  Refused,
  type RowField,
  type RowView,
} from '../../api/client';
import { TextField } from '../../fields/TextField';
import { useProject } from '../../project/ProjectContext';

const PARTS = [
  ['outer', 'Outer'],
  ['contrast', 'Contrast'],
  ['base', 'Base'],
  ['lining', 'Lining'],
  ['pocket', 'Pocket'],
  ['straps', 'Straps'],
  ['binding', 'Binding'],
  ['backing', 'Fleece'],
  ['interfacing', 'Interfacing'],
] as const;
const SHAPES = [
  ['rectangle', 'rectangle'],
  ['notched', 'corners out'],
  ['rounded', 'rounded'],
  ['tapered', 'tapered'],
  ['circle', 'circle'],
  ['half-round', 'half-round'],
] as const;
const KINDS = '.csv,.tsv,.txt,.xlsx,.xls,.ods,.svg,.dxf';

export function CutListRows() {
  const { view } = useProject();
  const empty = view.bag.rows.length === 0;
  return (
    <div className="mt-2 flex flex-col gap-4">
      {!empty && <Rows />}
      <Reader first={empty} />
    </div>
  );
}

/** Text or a file, shown as it will be read before anything is taken. */
function Reader({ first }: { first: boolean }) {
  const { view, edit } = useProject();
  const [text, setText] = useState('');
  const [found, setFound] = useState<FoundView | null>(null);
  const [asks, setAsks] = useState<File | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const failed = (error: unknown) => setProblem(error instanceof Refused ? sentence(error) : String(error));
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
    const query = new URLSearchParams({ name: file.name, system: view.system, ...(unit ? { unit } : {}) });
    try {
      const answer = await fetch(`/api/cut-list/file?${query}`, { method: 'POST', body: file });
      const body = await answer.json();
      if (answer.ok) setFound(body);
      else if (body.problems?.[0]?.field === 'unit') setAsks(file);
      else setProblem(body.problems?.[0]?.message ?? body.message);
    } catch (error) {
      failed(error);
    }
  };
  const take = async (keep: boolean) => {
    if (!found) return;
    const rows = found.rows.map((r) => r.row);
    const before = keep ? view.bag.rows.length : 0;
    const stated = found.stated;
    const problems = await edit(
      { edit: 'rows', rows: keep ? [...kept(view.bag.rows), ...rows] : rows },
      ...(stated
        ? (['width', 'height', 'depth'] as const).map((field, i) => ({
            edit: 'bag' as const,
            field,
            value: stated[i] ?? '0',
          }))
        : []),
    );
    if (problems.length > 0) {
      setProblem(problems.map((p) => p.message).join(' '));
      return;
    }
    // What was not read stays, to be mended and read again.
    setText(found.unread.map((u) => u.text).join('\n'));
    setFound(null);
    if (before === 0) window.scrollTo({ top: 0 });
  };
  return (
    <section className="sheet p-4" aria-label="Read a cut list">
      <h2 className="text-lg">{first ? 'Paste your cut list' : 'Read more rows'}</h2>
      <p className="text-soft">
        One piece a line, as it is printed: <span className="font-bold">4x 9 1/2 x 12 lining</span>, or
        columns from a spreadsheet. Inches or centimetres; width of cloth may stand as WOF.
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
        <span className="text-sm text-soft">CSV, XLSX, ODS; outlines from SVG and DXF</span>
      </div>
      <p role="alert" className="mt-1 text-sm font-bold text-madder">
        {problem}
      </p>
      {asks && (
        <p className="mt-2 flex flex-wrap items-center gap-2">
          {asks.name} does not say what it is drawn in:
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
            {found.unread.length > 0 && `, ${found.unread.length} not`}
          </h3>
          <ol className="mt-1 columns-1 gap-6 sm:columns-2">
            {found.rows.map((r, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: rows have no key of their own and never move
              <li key={i} className="break-inside-avoid">
                {r.text}
              </li>
            ))}
          </ol>
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
          <div className="mt-3 flex flex-wrap gap-2">
            <button
              type="button"
              className="btn btn-act"
              disabled={found.rows.length === 0}
              onClick={() => take(!first)}
            >
              {first ? 'Take these rows' : 'Add them to the list'}
            </button>
            {!first && (
              <button
                type="button"
                className="btn"
                disabled={found.rows.length === 0}
                onClick={() => take(false)}
              >
                Take them instead
              </button>
            )}
          </div>
        </div>
      )}
    </section>
  );
}

const sentence = (error: Refused) => error.body.problems.map((p) => p.message).join(' ') || error.message;

/** Rows as they stand, to be sent back with others. */
const kept = (rows: RowView[]) => rows.map((r) => r.row);

function Rows() {
  const { view, edit } = useProject();
  const change = (row: number, field: RowField, value: string) => edit({ edit: 'row', row, field, value });
  const typed = (row: number, field: RowField, name: string, value: string) => (
    <TextField
      label={`${name} row ${row + 1}`}
      hideLabel
      value={value}
      onCommit={(v) => change(row, field, v)}
    />
  );
  const size = (row: number, field: RowField, name: string, of: Measure | null) => (
    <TextField
      label={`${name} row ${row + 1}`}
      hideLabel
      value={of?.text ?? 'WOF'}
      words={of?.words ?? 'width of cloth'}
      unit={view.system}
      onCommit={(v) => change(row, field, v)}
    />
  );
  return (
    <section aria-label="Rows of the cut list" className="sheet overflow-x-auto p-2">
      <table className="w-full text-left">
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
            <Fragment key={i}>
              <tr className="border-t border-ruled align-top">
                <td className="w-20 min-w-16 px-1.5 py-1">
                  {typed(i, 'count', 'How many of', String(row.count))}
                </td>
                <td className="min-w-40 px-1.5 py-1">{typed(i, 'name', 'Name of', row.name)}</td>
                <td className="px-1.5 py-1">
                  <select
                    className="field min-w-28"
                    aria-label={`Part of row ${i + 1}`}
                    value={row.part}
                    onChange={(e) => change(i, 'part', e.target.value)}
                  >
                    {PARTS.map(([key, name]) => (
                      <option key={key} value={key}>
                        {name}
                      </option>
                    ))}
                  </select>
                </td>
                <td className="w-28 min-w-24 px-1.5 py-1">
                  {size(i, 'width', 'Width of', row.width ?? null)}
                </td>
                <td className="py-1">
                  <button
                    type="button"
                    className="rounded p-1.5 text-soft hover:bg-calico"
                    aria-label={`Change width and height of row ${i + 1} about`}
                    title="Change width and height about"
                    onClick={() => change(i, 'turn', '')}
                  >
                    <Undo2 size={16} />
                  </button>
                </td>
                <td className="w-28 min-w-24 px-1.5 py-1">{size(i, 'height', 'Height of', row.height)}</td>
                <td className="px-1.5 py-1">
                  <div className="flex gap-1">
                    <select
                      className="field min-w-28"
                      aria-label={`Shape of row ${i + 1}`}
                      value={row.shape}
                      onChange={(e) => change(i, 'shape', e.target.value)}
                    >
                      <option value="free">by its corners</option>
                      {SHAPES.map(([key, name]) => (
                        <option key={key} value={key}>
                          {name}
                        </option>
                      ))}
                    </select>
                    {row.corner && <div className="w-24">{size(i, 'corner', 'Corner of', row.corner)}</div>}
                  </div>
                </td>
                <td className="w-24 min-w-20 px-1.5 py-1">{size(i, 'seam', 'Seam to add to', row.seam)}</td>
                <td className="px-1.5 py-2 text-center">
                  <input
                    type="checkbox"
                    aria-label={`Row ${i + 1} may lie any way`}
                    checked={row.any_way}
                    onChange={(e) => change(i, 'any_way', e.target.checked ? 'yes' : 'no')}
                  />
                </td>
                <td className="py-1">
                  <button
                    type="button"
                    className="rounded p-1.5 text-soft hover:bg-calico hover:text-madder"
                    aria-label={`Take row ${i + 1} out`}
                    title="Take it out"
                    onClick={() => change(i, 'remove', '')}
                  >
                    <Trash2 size={16} />
                  </button>
                </td>
              </tr>
              {row.corners && (
                <tr>
                  <td />
                  <td colSpan={9} className="px-1.5 pb-2">
                    <TextField
                      label={`Corners of row ${i + 1}: across × up, one after the other round the outline`}
                      value={row.corners}
                      unit={view.system}
                      onCommit={(v) => change(i, 'corners', v)}
                    />
                  </td>
                </tr>
              )}
            </Fragment>
          ))}
        </tbody>
      </table>
    </section>
  );
}
