// The tally: what this project needs, costs and wastes now, and what is to look at.
import { useSyncExternalStore } from 'react';
import { Link } from 'react-router';
import type { ProjectView } from '../api/client';
import { useProject } from '../project/ProjectContext';

const wide = window.matchMedia('(min-width: 900px)');
const onChange = (changed: () => void) => {
  wide.addEventListener('change', changed);
  return () => wide.removeEventListener('change', changed);
};

/** Whether both edges of every seam are equally long; nothing where no seam is known. */
function seamsMeet({ seams }: ProjectView): string | null {
  const apart = seams.find((s) => !s.meets);
  if (apart) return `no: ${apart.name}`;
  return seams.length > 0 ? `yes, ${seams.length}` : null;
}

export function Tally() {
  const { view } = useProject();
  // Beside the stage it is always open; below it, it folds into a bar.
  const isWide = useSyncExternalStore(onChange, () => wide.matches);
  const { tally } = view;
  const rows: [string, string | null | undefined][] = [
    ['cost', tally.cost],
    ['pieces', String(tally.pieces)],
    [
      'used',
      tally.used_percent === null || tally.used_percent === undefined ? null : `${tally.used_percent} %`,
    ],
    ['strap drop', tally.strap_drop ? `${tally.strap_drop.text} ${view.system}` : null],
    ['holds', tally.holds],
    ['every seam meets', seamsMeet(view)],
  ];
  const notices = [...view.notices].sort((a, b) => Number(b.attention) - Number(a.attention));
  return (
    <aside
      aria-label="Tally"
      className="sheet fixed inset-x-0 bottom-0 z-20 max-h-[45vh] overflow-auto rounded-none p-3 min-[900px]:sticky min-[900px]:top-3 min-[900px]:max-h-[calc(100dvh-6rem)] min-[900px]:min-h-[calc(100dvh-6rem)] min-[900px]:self-start min-[900px]:w-[236px] min-[900px]:shrink-0 min-[900px]:rounded min-[900px]:p-4 print:hidden"
    >
      <details key={String(isWide)} open={isWide}>
        <summary className="list-none min-[900px]:pointer-events-none" tabIndex={isWide ? -1 : 0}>
          <span className="font-heading text-sm">This bag</span>
          <span className="flex flex-wrap items-baseline gap-x-2">
            <span className="font-heading text-[27px] leading-9" data-testid="tally-cloth">
              {tally.cloth ?? 'no layout yet'}
            </span>
            {tally.buys && <span className="text-sm">cloth in all</span>}
            {tally.missing && (
              <span className="w-full text-sm font-bold text-madder" data-testid="tally-missing">
                {tally.missing}
              </span>
            )}
            {tally.change && (
              <span className="text-sm font-bold text-madder" aria-live="polite" data-testid="tally-change">
                {tally.change} since the last change
              </span>
            )}
          </span>
        </summary>
        <dl className="mt-2">
          {rows
            .filter(([, value]) => value)
            .map(([name, value]) => (
              <div key={name} className="flex justify-between gap-2 border-t border-ruled py-1.5">
                <dt>{name}</dt>
                <dd className="text-right font-bold">{value}</dd>
              </div>
            ))}
        </dl>
        {notices.length > 0 && (
          <>
            <h2 className="mt-3 text-sm">Check these</h2>
            <ul className="mt-1 flex flex-col gap-2">
              {notices.map((n) => (
                <li key={n.text} className="flex gap-2 leading-snug">
                  <span
                    className={`mt-1.5 h-2.5 w-2.5 shrink-0 rounded-full ${n.attention ? 'bg-madder' : 'bg-weld'}`}
                    aria-hidden="true"
                  />
                  <Link
                    to={`/projects/${view.id}/${n.stage}${n.field ? `?field=${n.field}` : ''}`}
                    className="text-[15px] hover:underline"
                  >
                    {n.text}
                  </Link>
                </li>
              ))}
            </ul>
          </>
        )}
      </details>
    </aside>
  );
}
