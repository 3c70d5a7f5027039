// The cupboard: what is owned, drawn at one scale on shelves; below it every cloth with what is said of it.
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Search } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { ApiError, api, type ClaimsView, type CupboardCloth, done, must } from '../api/client';
import { Drawing } from '../drawing/Drawing';
import { More } from '../frame/More';
import { ClothDetails } from './ClothDetails';
import { ClothLedger } from './ClothLedger';
import { Makes } from './Makes';
import { Notions } from './notions/Notions';
import { PutIn } from './PutIn';
import { Shelves } from './Shelves';
import { useCupboard } from './useCupboard';
import { Waste } from './Waste';

export function Cupboard() {
  const queries = useQueryClient();
  const [find, setFind] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [putAway, setPutAway] = useState<CupboardCloth | null>(null);
  const cupboard = useCupboard(find);
  // Who plans with what comes after the cloths themselves: it looks through every bag.
  const claims = useQuery({
    queryKey: ['cupboard', 'claims'],
    queryFn: () => must(api.GET('/api/cupboard/claims')),
  });
  useEffect(() => {
    document.title = 'The cupboard · Bofta';
  }, []);
  const send = async (call: Promise<{ error?: unknown; response: Response }>, away: CupboardCloth | null) => {
    try {
      await done(call);
      setProblem(null);
      setPutAway(away);
    } catch (error) {
      setProblem(error instanceof ApiError ? error.message : String(error));
    }
    queries.invalidateQueries({ queryKey: ['cupboard'] });
    queries.invalidateQueries({ queryKey: ['drawer'] });
  };
  const drop = (cloth: CupboardCloth) =>
    send(api.DELETE('/api/cupboard/{id}', { params: { path: { id: cloth.id } } }), cloth);
  const restore = (cloth: CupboardCloth) =>
    send(api.POST('/api/cupboard/{id}/restore', { params: { path: { id: cloth.id } } }), null);
  const unknown = claims.isError
    ? `Bofta could not check which bags use this cloth: ${claims.error.message}`
    : null;
  const said = problem ?? cupboard.problem ?? unknown;
  return (
    <main className="mx-auto max-w-[1280px] px-5 pb-10">
      <header className="flex flex-wrap items-end gap-4 pt-5 pb-4">
        <h1 className="text-[34px] leading-none">The cupboard</h1>
        <p className="flex-1 text-soft max-[900px]:order-last max-[900px]:basis-full">
          Everything you own, drawn to one scale. Use it in any bag.
        </p>
        <PutIn />
        <Link to="/drawer" className="btn">
          The drawer
        </Link>
        <Link to="/" className="btn">
          To the shelf
        </Link>
      </header>
      <div aria-hidden="true" className="ticks mb-6 h-5 rounded border border-tape-edge bg-tape" />
      {(cupboard.total > 0 || find !== '') && (
        <div className="mb-5 flex flex-wrap items-center gap-x-3 gap-y-2" aria-live="polite">
          <label className="flex min-w-60 flex-1 items-center gap-2 sm:max-w-md">
            <Search size={17} aria-hidden="true" />
            <input
              type="search"
              className="field min-w-0 flex-1"
              aria-label="Search the cupboard"
              placeholder="holds 12 x 9 in, green, lawn, blue crate"
              value={find}
              onChange={(e) => setFind(e.target.value)}
            />
          </label>
          {cupboard.answers.length > 0 ? (
            <>
              <span className="font-bold text-madder">{cupboard.problem}</span>
              {cupboard.answers.map((a) => (
                <button
                  key={a.text}
                  type="button"
                  className="btn px-2 py-0.5"
                  onClick={() => setFind(a.text)}
                >
                  {a.label}
                </button>
              ))}
            </>
          ) : (
            find !== '' &&
            cupboard.isDone &&
            !cupboard.problem && (
              <span>
                <strong>{cupboard.found}</strong> of {cupboard.total} cloths
              </span>
            )
          )}
        </div>
      )}
      {cupboard.isDone && cupboard.found > 0 && <Makes find={find} />}
      {putAway && (
        <p role="status" className="sheet mb-4 flex flex-wrap items-center gap-3 px-3 py-2">
          <span>“{putAway.name}” is in the drawer.</span>
          <button type="button" className="btn" onClick={() => restore(putAway)}>
            Restore
          </button>
        </p>
      )}
      {!cupboard.isDone && !said && <p className="text-soft">Opening the cupboard …</p>}
      {said && cupboard.answers.length === 0 && (
        <div role="alert" className="sheet mb-4 p-4">
          <p>{said}</p>
          <button type="button" className="btn mt-3" onClick={cupboard.again}>
            Try again
          </button>
        </div>
      )}
      {cupboard.isDone && cupboard.total === 0 && (
        <p className="sheet max-w-xl p-5">
          The cupboard is empty. Press “Add a cloth”, or press “Keep in the cupboard” on a cloth in any
          project.
        </p>
      )}
      {cupboard.isDone && cupboard.total > 0 && cupboard.found === 0 && (
        <p className="sheet max-w-xl p-5">Nothing here is “{find}”.</p>
      )}
      {cupboard.hasMore && (
        <p className="mb-2 text-soft">
          These are the first {cupboard.entries.length} of {cupboard.found} cloths. Scroll down for more.
        </p>
      )}
      <Shelves cloths={cupboard.entries} />
      <Notions find={find} />
      <Waste />
      {cupboard.entries.length > 0 && <h2 className="mt-8 mb-3 text-lg">Cloth by cloth</h2>}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(230px,1fr))] gap-4">
        {cupboard.entries.map((c) => (
          <li key={c.id} id={`cloth-${c.id}`} className="sheet flex scroll-mt-4 flex-col overflow-hidden">
            {c.unreadable ? (
              <Unreadable cloth={c} />
            ) : (
              <Readable cloth={c} claims={claims.data?.find((one) => one.cloth === c.id)} />
            )}
            <div className="p-3 pt-0">
              <button
                type="button"
                className="btn self-start"
                onClick={() => drop(c)}
                aria-label={`Put ${c.name} away`}
              >
                Put away
              </button>
            </div>
          </li>
        ))}
      </ul>
      <More of={cupboard} />
    </main>
  );
}

function Readable({ cloth: c, claims }: { cloth: CupboardCloth; claims: ClaimsView | undefined }) {
  return (
    <>
      {c.swatch && (
        <Drawing drawing={c.swatch} label={`${c.name}, its print`} className="h-24 w-full object-cover" />
      )}
      <div className="flex flex-1 flex-col p-3">
        <h3 className="text-lg leading-tight">{c.name}</h3>
        <p className="text-soft">
          {c.material}, {c.width} wide{c.price ? `, ${c.price}` : ''}
        </p>
        {c.owned && (
          <p className="font-bold text-woad">
            {c.owned} here{c.place && `, ${c.place}`}
          </p>
        )}
        {c.with_bags.map((line) => (
          <p key={line} className="text-sm font-bold">
            {line}
          </p>
        ))}
        {claims?.planned.map((line) => (
          <p key={line} className="text-sm text-soft">
            {line}
          </p>
        ))}
        {claims?.over.map((line) => (
          <p key={line} className="text-sm font-bold text-madder">
            {line}
          </p>
        ))}
        <ClothDetails cloth={c} />
        {c.entries > 0 && <ClothLedger cloth={c} />}
      </div>
    </>
  );
}

function Unreadable({ cloth: c }: { cloth: CupboardCloth }) {
  return (
    <div className="flex flex-1 flex-col border-l-4 border-madder p-3">
      <h3 className="text-lg leading-tight">{c.name}</h3>
      <p className="text-madder">{c.unreadable}</p>
      <a className="btn mt-2 self-start" href={`/api/cupboard/${c.id}/document.json`} download>
        Save its text
      </a>
    </div>
  );
}
