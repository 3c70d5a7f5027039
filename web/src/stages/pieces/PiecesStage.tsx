// Pieces: the cut list as a sheet of drawn pieces to one scale, by bundle, and as a table.
import { Download } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { PartView } from '../../api/client';
import { ChoiceField } from '../../fields/ChoiceField';
import { useProject } from '../../project/ProjectContext';
import { Goods } from './Goods';
import { PieceCard } from './PieceCard';
import { PieceTable } from './PieceTable';
import { Seams } from './Seams';

export function PiecesStage() {
  const { view } = useProject();
  const [shown, setShown] = useState(() =>
    localStorage.getItem('bofta-pieces') === 'table' ? 'table' : 'sheet',
  );
  const choose = (value: string) => {
    localStorage.setItem('bofta-pieces', value);
    setShown(value);
  };
  const bundles = view.parts.filter((part) => view.pieces.some((p) => p.part === part.key));
  return (
    <div>
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <h1 className="text-xl">Pieces</h1>
        <p className="flex-1 text-soft max-sm:order-last max-sm:basis-full">
          wide × tall as the piece stands on the bag, in {view.system === 'in' ? 'inches' : 'centimetres'},
          seams and hems included
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
          <Download size={16} /> CSV
        </a>
        <a className="btn" href={`/api/projects/${view.id}/cut-list.xlsx`} download="cut-list.xlsx">
          <Download size={16} /> XLSX
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
        <div className="flex flex-wrap items-start gap-x-8 gap-y-5">
          {bundles.map((part) => (
            <Bundle key={part.key} part={part} />
          ))}
        </div>
      ) : (
        <PieceTable />
      )}
      <Seams />
      <Goods />
    </div>
  );
}

/** The pieces of one part, pinned together once they are cut. */
function Bundle({ part }: { part: PartView }) {
  const { view } = useProject();
  const cloth = view.cloths.find((c) => c.id === part.cloth);
  return (
    <section aria-label={part.name} className="max-w-full">
      <p className="mb-1 border-b border-dashed border-[#9a8f79] text-soft">
        <span className="font-bold text-indigo">{part.name}</span> · {cloth ? cloth.name : 'no cloth yet'}
      </p>
      <ul className="flex flex-wrap items-start gap-4">
        {view.pieces
          .filter((p) => p.part === part.key)
          .map((piece) => (
            <PieceCard key={piece.id} piece={piece} />
          ))}
      </ul>
    </section>
  );
}
