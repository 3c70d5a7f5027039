// What of the cupboard would do for a line of what is bought, what of it lies with this bag, and the ways between.
import { useState } from 'react';
import { api, type ForLine, type LayWith, must, type Offer } from '../../api/client';
import { TextField } from '../../fields/TextField';
import { type Outcome, outcomeOf, whyNot } from '../../project/outcome';
import { useProject } from '../../project/ProjectContext';

export function FromCupboard({ line }: { line: ForLine | undefined }) {
  if (!line || line.offers.length === 0) return null;
  return (
    <ul className="w-full">
      {line.offers.map((offer) => (
        <One key={offer.notion} offer={offer} need={line.need} />
      ))}
    </ul>
  );
}

/** Lies with this bag, which needs it no more. */
export function Idle({ offers }: { offers: Offer[] }) {
  if (offers.length === 0) return null;
  return (
    <li className="border-t border-ruled py-1.5">
      <p className="font-bold text-madder">Set aside for this bag, which no longer needs it:</p>
      <ul>
        {offers.map((offer) => (
          <One key={offer.notion} offer={offer} need={null} />
        ))}
      </ul>
    </li>
  );
}

function One({ offer: o, need }: { offer: Offer; need: ForLine['need'] | null }) {
  const { view, put } = useProject();
  const [problem, setProblem] = useState<string | null>(null);
  const send = async (body: LayWith): Promise<Outcome> => {
    const path = { id: view.id, notion: o.notion };
    const outcome = await outcomeOf(async () => {
      put(await must(api.POST('/api/projects/{id}/notions/{notion}', { params: { path }, body })));
    });
    const why = whyNot(outcome);
    setProblem(why.length > 0 ? why.join(' ') : null);
    return outcome;
  };
  const place = o.place && `, ${o.place}`;
  return (
    <li className="flex flex-wrap items-end gap-x-3 gap-y-1 py-0.5 text-woad print:py-0">
      {o.with_bag ? (
        <>
          <span>
            <strong>
              {o.with_bag} of {o.label}
            </strong>{' '}
            {o.with_bag === '1' ? 'lies' : 'lie'} with this bag
            {o.fits && `, ${o.fits}`}
          </span>
          <button
            type="button"
            className="btn px-2 py-0 print:hidden"
            onClick={() => send({ what: 'put-back', amount: '' })}
          >
            Put back
          </button>
          {o.left === '' ? (
            <button
              type="button"
              className="btn px-2 py-0 print:hidden"
              onClick={() => send({ what: 'used', amount: '' })}
            >
              Sewn in
            </button>
          ) : (
            <TextField
              label={`Length of ${o.label} left after cutting`}
              value=""
              placeholder={o.left}
              className="w-64 text-left print:hidden"
              onCommit={(amount) => send({ what: 'used', amount })}
            />
          )}
        </>
      ) : (
        <>
          <span>
            In the cupboard{place}:{' '}
            <strong>
              {o.there} of {o.label}
            </strong>
            {o.fits && `, ${o.fits}`}
          </span>
          {o.take.map(({ text, amount }) => (
            <button
              key={amount}
              type="button"
              className="btn px-2 py-0 print:hidden"
              onClick={() => send({ what: 'take', amount, need })}
            >
              Take {text}
            </button>
          ))}
        </>
      )}
      {problem && (
        <span role="alert" className="w-full font-bold text-madder">
          {problem}
        </span>
      )}
    </li>
  );
}
