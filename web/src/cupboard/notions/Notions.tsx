// Zips, rings, snaps, webbing and cord: what is there of each, drawn at the scale of the cloths, and its ledger.
import { More } from '../../frame/More';
import { NotionCard } from './NotionCard';
import { PutNotionIn } from './PutNotionIn';
import { useNotions } from './useNotions';

export function Notions({ find }: { find: string }) {
  const notions = useNotions(find);
  return (
    <section aria-label="Zips, rings, webbing" className="mb-8">
      <div className="mb-2 flex flex-wrap items-baseline gap-x-4 gap-y-2">
        <h2 className="flex-1 text-lg">
          Zips, rings, webbing
          <span className="ml-3 font-sans text-sm font-normal text-soft">
            Lengths are drawn to the scale of the cloths, small things five times as large.
          </span>
          {notions.isDone && find !== '' && notions.total > 0 && (
            <span className="ml-3 font-sans text-sm font-normal text-soft">
              {notions.found} of {notions.total}
            </span>
          )}
        </h2>
        <PutNotionIn />
      </div>
      {notions.problem && (
        <div role="alert" className="sheet p-4">
          <p>{notions.problem}</p>
          <button type="button" className="btn mt-3" onClick={notions.again}>
            Try again
          </button>
        </div>
      )}
      {notions.isDone && notions.total === 0 && (
        <p className="text-soft">
          Nothing here yet. What you add here is offered on the shopping list of every bag that needs it.
        </p>
      )}
      <ul className="flex flex-wrap items-end gap-x-6 gap-y-4 border-b-[9px] border-[#b8965f] pb-2 empty:hidden">
        {notions.entries.map((one) => (
          <li key={one.id} className="max-w-full">
            <NotionCard notion={one} />
          </li>
        ))}
      </ul>
      <More of={notions} />
    </section>
  );
}
