// What became of all the cloth that was cut up: bag, kept, waste; looked up when it is asked for.
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, must } from '../api/client';

export function Waste() {
  const [open, setOpen] = useState(false);
  const waste = useQuery({
    queryKey: ['cupboard', 'waste'],
    queryFn: () => must(api.GET('/api/waste')),
    enabled: open,
  });
  return (
    <details className="mb-8" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="text-lg font-bold text-chalk hover:underline">Where the cloth went</summary>
      <div className="mt-2 max-w-3xl" aria-live="polite">
        {waste.isPending && open && <p className="text-soft">Reading your bags …</p>}
        {waste.isError && (
          <p role="alert" className="text-madder">
            {waste.error.message}
          </p>
        )}
        {waste.data && waste.data.bags.length === 0 && (
          <p className="text-soft">You have not finished cutting any bag yet.</p>
        )}
        {waste.data?.together && <p className="font-bold">{waste.data.together}</p>}
        <ul className="mt-1">
          {waste.data?.bags.map((bag) => (
            <li key={bag.id} className="flex flex-wrap gap-x-4 border-t border-ruled py-1">
              <Link to={`/projects/${bag.id}/cut`} className="w-52 font-bold underline">
                {bag.name}
              </Link>
              <time className="w-24 text-soft" dateTime={new Date(bag.changed_at).toISOString()}>
                {new Date(bag.changed_at).toLocaleDateString(undefined, {
                  day: 'numeric',
                  month: 'short',
                  year: 'numeric',
                })}
              </time>
              <span className="min-w-60 flex-1">{bag.became}</span>
            </li>
          ))}
        </ul>
        {waste.data && waste.data.unread.length > 0 && (
          <p className="mt-2 text-madder">
            Left out, because Bofta could not read them: {waste.data.unread.join(', ')}.
          </p>
        )}
      </div>
    </details>
  );
}
