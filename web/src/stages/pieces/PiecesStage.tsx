// Pieces: the cut list as a sheet of drawn pieces to one scale, by bundle, and as a table.
import { Download } from 'lucide-react';
import { useState } from 'react';
import type { PieceView } from '../../api/client';
import { DimensionButton } from '../../drawing/DimensionButton';
import { Drawing } from '../../drawing/Drawing';
import { ChoiceField } from '../../fields/ChoiceField';
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
      </div>
      {shown === 'sheet' ? <DrawnSheet /> : <Table />}
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
            {p.note && <p className="max-w-72 text-sm">{p.note}</p>}
          </li>
        );
      })}
    </ul>
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
