// Pieces: the cut list as a sheet of drawn pieces to one scale, by bundle, and as a table.
import { Download } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { PieceView } from '../../api/client';
import { DimensionButton } from '../../drawing/DimensionButton';
import { Drawing } from '../../drawing/Drawing';
import { ChoiceField } from '../../fields/ChoiceField';
import { TextField } from '../../fields/TextField';
import { useProject } from '../../project/ProjectContext';

export function PiecesStage() {
  const { view } = useProject();
  const [shown, setShown] = useState(() =>
    localStorage.getItem('bofta-pieces') === 'table' ? 'table' : 'sheet',
  );
  const choose = (value: string) => {
    localStorage.setItem('bofta-pieces', value);
    setShown(value);
  };
  return (
    <div>
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <h1 className="text-xl">Pieces</h1>
        <p className="flex-1 text-soft">
          wide × tall as each stands on the bag, in {view.system === 'in' ? 'inches' : 'centimetres'}, seams
          and hems included
        </p>
        <ChoiceField
          label=""
          inline
          value={shown}
          onChoose={choose}
          choices={[
            { value: 'sheet', name: 'Drawn' },
            { value: 'table', name: 'As a table' },
          ]}
        />
        <a className="btn" href={`/api/projects/${view.id}/cut-list.csv`} download="cut-list.csv">
          <Download size={16} /> Spreadsheet
        </a>
        <a className="btn" href={`/api/projects/${view.id}/outlines.svg`} download="outlines.svg">
          <Download size={16} /> SVG
        </a>
        <a className="btn" href={`/api/projects/${view.id}/outlines.dxf`} download="outlines.dxf">
          <Download size={16} /> DXF
        </a>
      </div>
      {view.pieces.length === 0 && (
        <p className="sheet max-w-xl p-6">
          No pieces yet: <Link to={`/projects/${view.id}/bag`}>paste a cut list</Link> or choose a kind of
          bag.
        </p>
      )}
      {shown === 'sheet' ? <DrawnSheet /> : <Table />}
      <Goods />
    </div>
  );
}

const size = (p: PieceView) => (
  <>
    <DimensionButton dimension={p.width} name={`${p.name}, wide`} /> ×{' '}
    <DimensionButton dimension={p.height} name={`${p.name}, tall`} />
  </>
);

function DrawnSheet() {
  const { view } = useProject();
  return (
    <ul className="flex flex-wrap items-start gap-4">
      {view.pieces.map((p) => {
        const cloth = view.cloths.find((c) => c.id === p.cloth);
        return (
          <li key={p.id} className="sheet p-3">
            <p className="text-sm text-soft">{p.bundle}</p>
            <h2 className="flex items-baseline gap-2 text-lg leading-tight">
              {p.name} <span className="font-sans text-base text-soft">× {p.count}</span>
            </h2>
            <Drawing
              drawing={p.drawing}
              label={`${p.name}, ${p.width.size.words} wide, ${p.height.size.words} tall`}
              className="my-2"
            />
            <p>{size(p)}</p>
            {p.corner_across && p.corner_up && (
              <p className="text-sm">
                corners <DimensionButton dimension={p.corner_across} name="corner, in from the side" /> ×{' '}
                <DimensionButton dimension={p.corner_up} name="corner, up from the base" /> cut out
              </p>
            )}
            <p className="max-w-72 text-sm text-soft">
              {cloth ? cloth.name : 'no cloth yet'} · {p.grain} · {p.print}
            </p>
            {p.marks.length > 0 && (
              <ul className="mt-1 max-w-72 border-t border-ruled pt-1 text-sm">
                {p.marks.map((m) => (
                  <li key={m} className="text-chalk">
                    {m}
                  </li>
                ))}
              </ul>
            )}
            {p.when && <p className="max-w-72 text-sm font-bold">{p.when}</p>}
            {p.measured !== null && p.measured !== undefined && <Measured piece={p} measured={p.measured} />}
            {p.note && <p className="max-w-72 text-sm">{p.note}</p>}
          </li>
        );
      })}
    </ul>
  );
}

/** A piece that is cut to what is made: its size once that has been measured, seams included. */
function Measured({ piece, measured }: { piece: PieceView; measured: boolean }) {
  const { view, edit } = useProject();
  const [width, height] = [piece.width.size.text, piece.height.size.text];
  const send = (width: string, height: string) => edit({ edit: 'measured', piece: piece.id, width, height });
  return (
    <fieldset className="mt-2 max-w-72 rounded border border-ruled p-2">
      <legend className="px-1 text-sm text-soft">
        {measured ? 'as measured, seams included' : 'once it can be measured'}
      </legend>
      <div className="flex items-end gap-2">
        <TextField
          label="Wide"
          className="w-24"
          value={measured ? width : ''}
          placeholder={width}
          unit={view.system}
          onCommit={(v) => send(v, v.trim() === '' ? '' : height)}
        />
        <TextField
          label="Tall"
          className="w-24"
          value={measured ? height : ''}
          placeholder={height}
          unit={view.system}
          onCommit={(v) => send(v.trim() === '' ? '' : width, v)}
        />
        {measured && (
          <button type="button" className="btn" onClick={() => send('', '')}>
            Forget it
          </button>
        )}
      </div>
    </fieldset>
  );
}

/** What is cut from a length or bought by the piece. */
export function Goods() {
  const { view, edit } = useProject();
  const { goods, hardware, reels } = view.bag;
  if (goods.length + hardware.length === 0) return null;
  return (
    <section className="sheet mt-4 p-3" aria-label="By the length and by the piece">
      <h2 className="text-lg">By the length and by the piece</h2>
      <ul className="mt-1">
        {goods.map((g) => (
          <li key={g.name} className="flex flex-wrap gap-x-3 border-t border-ruled py-1.5">
            <span className="w-44 font-bold">{g.kind}</span>
            <span className="w-40">
              {g.count} × <DimensionButton dimension={g.length} name={g.name} /> {view.system}
            </span>
            <span className="text-soft">
              {g.name}
              {g.width && `, ${g.width.text} wide`}
            </span>
          </li>
        ))}
        {reels.map((r) => (
          <li
            key={`${r.kind} ${r.width?.text}`}
            className="flex flex-wrap gap-x-3 border-t border-ruled py-1.5"
          >
            <span className="w-44">
              {r.length ? 'buy' : 'enough'} {r.kind.toLowerCase()}
              {r.width && `, ${r.width.text} wide`}
            </span>
            <span className="w-40 font-bold">{r.length ?? 'nothing to buy'}</span>
            <span className="flex-1 text-soft">
              {r.cuts > 0 && `${r.cuts} ${r.cuts === 1 ? 'length' : 'lengths'} from it`}
              {r.from_hand.map((f) => (
                <span key={f} className="block">
                  {f}
                </span>
              ))}
            </span>
            <TextField
              label={`At hand, ${r.kind.toLowerCase()}`}
              className="w-56"
              hint="lengths, commas between them"
              value={r.at_hand}
              placeholder="none"
              unit={view.system}
              onCommit={(lengths) =>
                edit({ edit: 'lengths-at-hand', kind: r.key, width: r.width?.exact ?? null, lengths })
              }
            />
          </li>
        ))}
        {hardware.map((h) => (
          <li key={h.name} className="flex flex-wrap gap-x-3 border-t border-ruled py-1.5">
            <span className="w-44 font-bold">{h.name}</span>
            <span className="w-40">
              {h.count}
              {h.size && ` × ${h.size.text} ${view.system}`}
            </span>
            <span className="min-w-0 flex-1 basis-72 text-soft">
              {h.note.split('; ').map((line) => (
                <span key={line} className="block">
                  {line}
                </span>
              ))}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Table() {
  const { view } = useProject();
  return (
    <div className="sheet overflow-x-auto p-2">
      <table className="w-full text-left">
        <thead>
          <tr className="text-soft">
            {['bundle', 'piece', 'how many', 'wide × tall', 'corners', 'grain', 'from'].map((h) => (
              <th key={h} scope="col" className="px-2 py-1.5 font-normal">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {view.pieces.map((p) => (
            <tr key={p.id} className="border-t border-ruled">
              <td className="px-2 py-2">{p.bundle}</td>
              <th scope="row" className="px-2 py-2">
                {p.name}
              </th>
              <td className="px-2 py-2">{p.count}</td>
              <td className="px-2 py-2 whitespace-nowrap">{size(p)}</td>
              <td className="px-2 py-2 whitespace-nowrap">
                {p.corner_across && p.corner_up
                  ? `${p.corner_across.size.text} × ${p.corner_up.size.text}`
                  : 'whole'}
              </td>
              <td className="px-2 py-2">{p.grain}</td>
              <td className="px-2 py-2">
                {view.cloths.find((c) => c.id === p.cloth)?.name ?? 'no cloth yet'}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
