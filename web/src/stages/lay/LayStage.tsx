// Lay: the cloths to scale with the pieces on them, the search live, other ways side by side.
import { useQuery } from '@tanstack/react-query';
import { Play, Square } from 'lucide-react';
import { Tabs } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { api, type ClothLayView, must } from '../../api/client';
import { Drawing } from '../../drawing/Drawing';
import { Least } from '../../frame/Least';
import { NotWhole } from '../../frame/NotWhole';
import { useProject } from '../../project/ProjectContext';
import { type Search, useSearch } from './useSearch';

export function LayStage() {
  const { view, refetch } = useProject();
  const search = useSearch(view.id, view.revision, refetch);
  const { lay } = view;
  const [params, setParams] = useSearchParams();
  const failed = view.lay_failed ?? null;
  const canSearch = (Boolean(view.lay) || failed !== null) && view.steps_done === 0;

  // A lay that is not proven is searched on its own when the stage is opened or the plan changes.
  const { start } = search;
  const proven = view.lay?.proven ?? true;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each revision
  useEffect(() => {
    if (canSearch && !proven) start();
  }, [view.id, view.revision]);

  if (!lay && failed !== null) return <NotLaid why={failed} search={search} />;
  if (!lay) return <NothingToLay />;
  const shown = lay.cloths.find((c) => c.cloth === params.get('cloth')) ?? lay.cloths[0];
  return (
    <div>
      <h1 className="sr-only">Lay</h1>
      <NotWhole className="mb-2" />
      <Tabs.Root
        value={shown?.cloth ?? ''}
        onValueChange={(cloth) => setParams({ cloth }, { replace: true })}
      >
        <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
          <Tabs.List aria-label="Cloths" className="flex flex-1 flex-wrap gap-1">
            {lay.cloths.map((c) => (
              <Tabs.Trigger
                key={c.cloth}
                value={c.cloth}
                className="flex items-center gap-2 border-b-[3px] border-transparent px-2 py-1 data-[state=active]:border-indigo data-[state=active]:font-bold hover:bg-paper"
              >
                {c.name} {!c.whole && <span className="text-soft">{c.length}</span>}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          <SearchLine search={search} can={canSearch} proven={lay.proven} />
        </div>
        {lay.cloths.map((c) => (
          <Tabs.Content key={c.cloth} value={c.cloth} className="mt-1">
            <OneCloth cloth={c} />
          </Tabs.Content>
        ))}
      </Tabs.Root>
      <OtherWays running={search.running} />
    </div>
  );
}

function NothingToLay() {
  const { view } = useProject();
  const missing = view.parts.filter((p) => !p.cloth);
  if (view.pieces.length === 0) {
    return (
      <div className="sheet max-w-xl p-6">
        <h1 className="text-xl">No layout yet</h1>
        <p className="mt-2">The cut list has no rows.</p>
        <Link to={`/projects/${view.id}/bag`} className="btn btn-act mt-4">
          Type or open the rows
        </Link>
      </div>
    );
  }
  return (
    <div className="sheet max-w-xl p-6">
      <h1 className="text-xl">No layout yet</h1>
      {missing.length > 0 ? (
        <p className="mt-2">
          {missing.map((p) => p.name).join(', ')} {missing.length === 1 ? 'has' : 'have'} no cloth.
        </p>
      ) : (
        view.problems.map((p) => (
          <p key={p.field} className="mt-2 text-madder">
            {p.message}
          </p>
        ))
      )}
      <Link to={`/projects/${view.id}/cloth`} className="btn btn-act mt-4">
        Choose the cloth
      </Link>
    </div>
  );
}

/** Every part has a cloth, and yet a look found no lay: longer may. */
function NotLaid({ why, search }: { why: string; search: Search }) {
  const { view } = useProject();
  return (
    <div className="sheet max-w-2xl border-2 border-madder p-6" role="alert">
      <h1 className="text-xl">Bofta found no layout</h1>
      <p className="mt-2">{why}.</p>
      <div className="mt-4 flex flex-wrap items-center gap-3">
        {search.running ? (
          <>
            <button type="button" className="btn" onClick={search.stop}>
              <Square size={15} className="fill-current" /> Stop
            </button>
            <span className="text-soft">looking for a first layout · {search.seconds.toFixed(1)} s</span>
          </>
        ) : (
          <button type="button" className="btn btn-act" onClick={search.start}>
            <Play size={15} className="fill-current" /> Search further
          </button>
        )}
        <Link to={`/projects/${view.id}/pieces`} className="btn">
          See the pieces
        </Link>
      </div>
      {!search.running && search.ended !== null && (
        <p className="mt-3 text-soft">Nothing was found in {search.seconds.toFixed(0)} s.</p>
      )}
    </div>
  );
}

function SearchLine({ search, can, proven }: { search: Search; can: boolean; proven: boolean }) {
  const { view } = useProject();
  const text = search.running
    ? 'searching for a better layout'
    : search.ended === 'failed'
      ? 'The search stopped. The best layout so far is kept.'
      : proven
        ? 'no shorter length is possible'
        : view.steps_done > 0
          ? 'cutting has begun, so the layout is fixed'
          : search.ended === 'time' || search.ended === 'stopped'
            ? `best after ${search.seconds.toFixed(0)} s`
            : 'first answer';
  return (
    <div className="flex items-center gap-2">
      <span className="text-soft" aria-live="polite" data-testid="search-state">
        {text}
      </span>
      {search.running && (
        <span aria-hidden="true" className="w-12 text-soft">
          {search.seconds.toFixed(1)} s
        </span>
      )}
      {search.running ? (
        <button type="button" className="btn" onClick={search.stop}>
          <Square size={15} className="fill-current" /> Stop
        </button>
      ) : (
        can &&
        !proven && (
          <button type="button" className="btn" onClick={search.start}>
            <Play size={15} className="fill-current" /> Search further
          </button>
        )
      )}
    </div>
  );
}

function OneCloth({ cloth }: { cloth: ClothLayView }) {
  const { view } = useProject();
  const [picked, setPicked] = useState<string | null>(null);
  const piece = view.pieces.find((p) => p.id === picked);
  const facts: [string, string][] = [
    ['used', `${cloth.used_percent} %`],
    ['cuts', cloth.cuts],
  ];
  // What comes whole has no length to be needed; where no ruler is set there are no settings to tell.
  if (!cloth.whole) facts.unshift(['needed', `${cloth.needed.text} ${view.system}`]);
  if (cloth.settings > 0) facts.push(['ruler settings', String(cloth.settings)]);
  if (cloth.left) facts.push(['left in one piece', `${cloth.left} ${view.system}`]);
  const label = `${cloth.name}: ${cloth.owned ? 'taken' : 'bought'} ${cloth.length}, ${cloth.used_percent} percent used`;
  return (
    <div>
      <Drawing
        drawing={cloth.drawing}
        label={label}
        className="mx-auto max-h-[max(300px,calc(100vh-352px))] w-full"
        onPiece={setPicked}
      />
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
        <p className="font-heading text-xl">
          {cloth.length}{' '}
          <span className="font-sans text-sm">
            {cloth.whole
              ? cloth.owned
                ? 'that is here'
                : 'to buy'
              : cloth.owned
                ? 'of what you have'
                : 'to buy'}
          </span>
        </p>
        <p className="text-soft">
          {view.lay?.missing || cloth.whole ? null : cloth.proven ? (
            <Least
              text={cloth.owned ? 'no shorter length is possible' : 'no shorter length is possible'}
              reason={cloth.reason}
              under={cloth.under}
            />
          ) : (
            `at least ${cloth.bound} is needed`
          )}
        </p>
        {facts.map(([name, value]) => (
          <p key={name} className="whitespace-nowrap">
            <span className="text-soft">{name}</span> <strong>{value}</strong>
          </p>
        ))}
      </div>
      {cloth.washed && <p className="text-soft first-letter:uppercase">{cloth.washed}</p>}
      {piece && (
        <p aria-live="polite" className="mt-1">
          <strong>{piece.name}</strong>, {piece.count} of {piece.width.size.text} × {piece.height.size.text}{' '}
          {view.system}: {piece.grain}, {piece.print}
        </p>
      )}
    </div>
  );
}

function OtherWays({ running }: { running: boolean }) {
  const { view, edit } = useProject();
  const section = useRef<HTMLElement>(null);
  const ways = useQuery({
    queryKey: ['alternatives', view.id, view.revision],
    queryFn: () => must(api.GET('/api/projects/{id}/alternatives', { params: { path: { id: view.id } } })),
    enabled: !running,
    placeholderData: (before) => before,
  });
  if (!ways.data || ways.data.length < 2) return null;
  return (
    <section ref={section} tabIndex={-1} aria-label="Other layouts" className="mt-3">
      <h2 className="mb-1 text-sm">
        Other layouts <span className="font-sans font-normal text-soft">Choose one to refine it.</span>
      </h2>
      <ul className="grid grid-cols-2 gap-2 md:grid-cols-3 lg:grid-cols-5">
        {ways.data.map((w) => (
          <li key={w.name}>
            <button
              type="button"
              disabled={w.chosen || view.steps_done > 0}
              className={`sheet flex h-full w-full items-center gap-2 p-2 text-left ${w.chosen ? 'border-2 border-indigo' : 'hover:border-indigo'}`}
              onClick={() => {
                // What is chosen leaves the list: one goes on where one was.
                section.current?.focus();
                edit(...w.edits);
              }}
            >
              {w.drawing && <Drawing drawing={w.drawing} label="" className="h-[58px] w-[70px] shrink-0" />}
              <span className="min-w-0 leading-tight">
                <span className="block font-bold">{w.name}</span>
                <span className="block text-sm">
                  {w.chosen ? w.bought : w.difference}
                  {w.glance && <span className="text-soft"> quick answer</span>}
                </span>
                <span className="block text-sm text-soft">{w.cuts}</span>
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
