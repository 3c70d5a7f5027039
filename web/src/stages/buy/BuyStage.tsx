// Buy: the list as one would carry it to a shop, what is owned, and what other widths would take.
import { useQuery } from '@tanstack/react-query';
import { Copy, Printer } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, must, type PurchaseView } from '../../api/client';
import { Drawing } from '../../drawing/Drawing';
import { TextField } from '../../fields/TextField';
import { Least } from '../../frame/Least';
import { NotWhole } from '../../frame/NotWhole';
import { PlanFields } from '../../project/PlanFields';
import { useProject } from '../../project/ProjectContext';
import { Goods } from '../pieces/Goods';

export function BuyStage() {
  const { view, edit } = useProject();
  const [copied, setCopied] = useState(false);
  const widths = useQuery({
    queryKey: ['widths', view.id, view.revision],
    queryFn: () => must(api.GET('/api/projects/{id}/other-widths', { params: { path: { id: view.id } } })),
    enabled: view.purchases.length > 0,
    placeholderData: (before) => before,
  });
  if (!view.lay || view.purchases.length === 0) {
    return (
      <div className="sheet max-w-xl p-6">
        <h1 className="text-xl">Nothing to buy yet</h1>
        <p className="mt-2">The list follows from the layout, and the layout follows from the cloth.</p>
        <Link to={`/projects/${view.id}/cloth`} className="btn btn-act mt-4">
          Choose the cloth
        </Link>
      </div>
    );
  }
  const unit = view.system;
  const bought = view.purchases.filter((p) => !p.owned);
  const taken = view.purchases.filter((p) => p.owned);
  const copy = async () => {
    await navigator.clipboard.writeText(view.shopping_list ?? '');
    setCopied(true);
  };
  return (
    <div>
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <h1 className="text-xl">
          <span className="hidden print:inline">{view.name}: </span>Buy
        </h1>
        <p className="flex-1 text-soft max-sm:order-last max-sm:basis-full">
          Rounded up to the lengths a shop cuts
        </p>
        <button type="button" className="btn print:hidden" onClick={copy}>
          <Copy size={16} /> {copied ? 'Copied' : 'Copy the list'}
        </button>
        <button type="button" className="btn print:hidden" onClick={() => window.print()}>
          <Printer size={16} /> Print the list
        </button>
      </div>
      <NotWhole className="mb-3" />
      <ul className="flex flex-col gap-3">
        {bought.map((p) => {
          const others = widths.data?.find((w) => w.cloth === p.cloth)?.widths ?? [];
          return (
            <li key={p.cloth} className="sheet flex flex-wrap items-start gap-x-4 gap-y-2 p-3">
              <Drawing
                drawing={p.swatch}
                label={`${p.name}, its print`}
                className="rounded-sm border border-ruled"
              />
              <div className="min-w-52 flex-1">
                <h2 className="text-lg leading-tight">{p.name}</h2>
                <p className="text-soft">
                  {p.width.text} {unit} wide
                </p>
                <p className="mt-1">
                  the layout takes{' '}
                  <strong>
                    {p.needed.text} {unit}
                  </strong>
                  {p.spare.exact > 0 && (
                    <>
                      ,{' '}
                      <strong>
                        {p.spare.text} {unit}
                      </strong>{' '}
                      over
                    </>
                  )}
                </p>
                {p.washed && <p className="text-soft">{p.washed}</p>}
                {!view.lay?.missing && (
                  <p className="text-soft">
                    {p.proven ? (
                      <Least text="no shorter length is possible" reason={p.reason} under={p.under} />
                    ) : (
                      'a shorter length may be possible'
                    )}
                  </p>
                )}
              </div>
              <div className="w-44 text-right">
                <p className="font-heading text-[28px] leading-8">{p.length}</p>
                <p className="text-soft">{p.steps ? p.steps : 'cut to length'}</p>
                {p.cost ? (
                  <p>
                    <span className="text-soft">
                      {p.price} {unit === 'in' ? 'a yard' : 'a metre'}
                    </span>{' '}
                    <strong className="ml-1 text-lg">{p.cost}</strong>
                  </p>
                ) : (
                  <TextField
                    label={unit === 'in' ? 'Price a yard' : 'Price a metre'}
                    value=""
                    placeholder="not known"
                    className="mt-1 text-left print:hidden"
                    onCommit={(value) => edit({ edit: 'cloth', cloth: p.cloth, field: 'price', value })}
                  />
                )}
              </div>
              <div className="w-full border-t border-ruled pt-2 min-[1180px]:w-56 min-[1180px]:border-t-0 min-[1180px]:border-l min-[1180px]:pt-0 min-[1180px]:pl-3">
                {(widths.isPending || others.length > 0) && (
                  <h3 className="font-sans text-sm font-normal text-soft">in another width</h3>
                )}
                {widths.isPending && <p className="text-sm text-soft">working it out …</p>}
                <ul>
                  {others.map((w) => (
                    <li key={w.width} className="flex justify-between">
                      <span>{w.width}</span>
                      <span className="font-bold">{w.length ?? 'does not fit'}</span>
                    </li>
                  ))}
                </ul>
              </div>
            </li>
          );
        })}
      </ul>
      <Taken purchases={taken} />
      <Goods />
      {view.lay.cost && (
        <p className="mt-3 flex items-baseline justify-end gap-3 text-lg">
          together{' '}
          <strong className="font-heading text-[28px]" data-testid="buy-total">
            {view.lay.cost}
          </strong>
        </p>
      )}
    </div>
  );
}

/** What the bag takes of what is there already, each piece of cloth by itself. */
function Taken({ purchases }: { purchases: PurchaseView[] }) {
  const { edit } = useProject();
  if (purchases.length === 0) return null;
  const cloths = [...new Set(purchases.map((p) => p.of))];
  return (
    <section aria-label="From what you have" className="sheet mt-3 p-3">
      <h2 className="text-lg">From what you have</h2>
      {cloths.map((of) => {
        const pieces = purchases.filter((p) => p.of === of);
        return (
          <div
            key={of}
            className="mt-2 flex flex-wrap items-start gap-x-4 gap-y-1 border-t border-ruled pt-2"
          >
            {pieces[0] && (
              <Drawing drawing={pieces[0].swatch} label="" className="rounded-sm border border-ruled" />
            )}
            <ul className="min-w-52 flex-1">
              {pieces.map((p) => (
                <li key={p.cloth} className="flex flex-wrap gap-x-3">
                  <span className="flex-1">{p.name}</span>
                  <strong>{p.whole ? p.length : `${p.length} of it`}</strong>
                  {p.washed && <span className="w-full text-soft">{p.washed}</span>}
                </li>
              ))}
            </ul>
            <PlanFields>
              <button
                type="button"
                className="btn print:hidden"
                onClick={() => edit({ edit: 'cloth', cloth: of, field: 'at_hand', value: '' })}
              >
                Buy it instead
              </button>
            </PlanFields>
          </div>
        );
      })}
    </section>
  );
}
