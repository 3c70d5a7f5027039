// The cut list as a table.
import { useProject } from '../../project/ProjectContext';
import { PieceSize } from './PieceSize';

export function PieceTable() {
  const { view } = useProject();
  return (
    <div className="sheet overflow-x-auto p-2">
      <table className="w-full text-left">
        <thead>
          <tr className="text-soft">
            {['bundle', 'piece', 'how many', 'wide × tall', 'shape', 'grain', 'from'].map((h) => (
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
                {p.when && <span className="block text-sm font-normal text-soft">{p.when}</span>}
              </th>
              <td className="px-2 py-2">{p.count}</td>
              <td className="px-2 py-2 whitespace-nowrap">
                <PieceSize piece={p} />
              </td>
              <td className="min-w-40 px-2 py-2">{p.figures ?? 'rectangle'}</td>
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
