// Pieces: the cut list as a sheet of drawn pieces to one scale, by bundle, and as a table.
import { Download } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { ChoiceField } from '../../fields/ChoiceField';
import { useProject } from '../../project/ProjectContext';
import { Goods } from './Goods';
import { PieceCard } from './PieceCard';
import { PieceTable } from './PieceTable';

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
      {shown === 'sheet' ? (
        <ul className="flex flex-wrap items-start gap-4">
          {view.pieces.map((piece) => (
            <PieceCard key={piece.id} piece={piece} />
          ))}
        </ul>
      ) : (
        <PieceTable />
      )}
      <Goods />
    </div>
  );
}
