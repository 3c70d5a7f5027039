// The ledger of a cloth: looked up when it is opened.
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, type CupboardCloth, must } from '../api/client';
import { whyNot } from '../project/outcome';
import { LedgerEntries } from './LedgerEntries';
import { useClothChange } from './useClothChange';

export function ClothLedger({ cloth: c }: { cloth: CupboardCloth }) {
  const [open, setOpen] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const change = useClothChange(c.id);
  const ledger = useQuery({
    queryKey: ['cupboard', 'ledger', c.id],
    queryFn: () => must(api.GET('/api/cupboard/{id}/ledger', { params: { path: { id: c.id } } })),
    enabled: open,
  });
  return (
    <details className="mt-1" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="text-sm font-bold text-chalk hover:underline">
        History<span className="sr-only"> of {c.name}</span>
        <span className="font-normal text-soft"> · {c.entries}</span>
      </summary>
      <div className="mt-1" aria-live="polite">
        {ledger.isPending && open && <p className="text-sm text-soft">Opening the history …</p>}
        {ledger.isError && (
          <p role="alert" className="text-madder">
            {ledger.error.message}
          </p>
        )}
        {problem && (
          <p role="alert" className="text-sm font-bold text-madder">
            {problem}
          </p>
        )}
        {ledger.data && (
          <LedgerEntries
            entries={ledger.data}
            onTakeBack={async (e) => {
              const why = whyNot(await change('take-back', String(e.number)));
              setProblem(why.length > 0 ? why.join(' ') : null);
            }}
          />
        )}
      </div>
    </details>
  );
}
