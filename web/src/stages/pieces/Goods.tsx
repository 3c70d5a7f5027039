// What is cut from a length or bought by the piece, and what of the cupboard would do for it.
import { useQuery } from '@tanstack/react-query';
import { api, must } from '../../api/client';
import { DimensionButton } from '../../drawing/DimensionButton';
import { TextField } from '../../fields/TextField';
import { useProject } from '../../project/ProjectContext';
import { FromCupboard, Idle } from './FromCupboard';

export function Goods() {
  const { view, edit } = useProject();
  const { goods, hardware, reels } = view.bag;
  const cupboard = useQuery({
    queryKey: ['notions', 'of', view.id, view.revision],
    queryFn: () => must(api.GET('/api/projects/{id}/notions', { params: { path: { id: view.id } } })),
    placeholderData: (before) => before,
  });
  const idle = cupboard.data?.idle ?? [];
  if (goods.length + hardware.length + idle.length === 0) return null;
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
        {reels.map((r, n) => (
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
              label={`${r.kind} you have`}
              className="w-56"
              hint="lengths, separated by commas"
              value={r.at_hand}
              placeholder="none"
              unit={view.system}
              onCommit={(lengths) =>
                edit({ edit: 'lengths-at-hand', kind: r.key, width: r.width?.exact ?? null, lengths })
              }
            />
            <FromCupboard line={cupboard.data?.reels[n]} />
          </li>
        ))}
        {hardware.map((h, n) => (
          <li
            // One thing may be needed in two places, of one name and size.
            // biome-ignore lint/suspicious/noArrayIndexKey: lines stand in the order of the draft
            key={n}
            className="flex flex-wrap gap-x-3 border-t border-ruled py-1.5"
          >
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
              {h.taken > 0 && (
                <strong className="block text-woad">
                  {h.buy > 0 ? `${h.taken} of yours, ${h.buy} to buy` : 'you have'}
                </strong>
              )}
            </span>
            <TextField
              label={`${h.name} you have${h.size ? ` (${h.size.text} ${view.system})` : ''}`}
              className="w-56 print:hidden"
              value={h.at_hand > 0 ? String(h.at_hand) : ''}
              placeholder="none"
              onCommit={(count) =>
                edit({ edit: 'pieces-at-hand', name: h.name, size: h.size?.exact ?? null, count })
              }
            />
            <FromCupboard line={cupboard.data?.hardware[n]} />
          </li>
        ))}
        <Idle offers={idle} />
      </ul>
      {cupboard.isError && (
        <p role="alert" className="mt-2 text-madder">
          Bofta could not check what the cupboard has: {cupboard.error.message}
        </p>
      )}
    </section>
  );
}
