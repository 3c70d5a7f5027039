// Bag: finished sizes typed and dragged on the drawing, options where they act, every computed size with its reason.
import { Popover } from 'radix-ui';
import { useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import { asChoices, useChoices } from '../../api/useChoices';
import { Drawing } from '../../drawing/Drawing';
import { ReasonTape } from '../../drawing/ReasonTape';
import { ChoiceField } from '../../fields/ChoiceField';
import { TextField } from '../../fields/TextField';
import { PlanFields } from '../../project/PlanFields';
import { useProject } from '../../project/ProjectContext';
import { CompareCorners } from './CompareCorners';
import { CutListRows } from './CutListRows';
import { FamilyChooser } from './FamilyChooser';
import { FitAndScale } from './FitAndScale';
import { GroupIcon, OptionFields } from './options';
import { PartCards } from './parts/PartCards';
import { PartSheet } from './parts/PartSheet';
import { useParts } from './parts/useParts';
import { WallDrawing } from './parts/WallDrawing';
import { WallViews } from './parts/WallViews';
import { SizeOnDrawing } from './SizeOnDrawing';

export function BagStage() {
  const { view, edit, preview } = useProject();
  const { systems, rulers } = useChoices();
  const [search, setSearch] = useSearchParams();
  const focus = search.get('field');
  const { bag } = view;
  const [open, setOpen] = useState<string | null>(null);
  const parts = useParts(bag);

  const onDrawing = new Set(bag.anchors.map((a) => a.field));
  // Sizes that cannot be taken hold of on the drawing have a card of their own.
  const cards = bag.groups.filter(
    (g) =>
      g.fields.some((f) => !f.idle) &&
      (g.key !== 'size' || g.fields.some((f) => !f.idle && !onDrawing.has(f.key))),
  );
  const inCard =
    focus && !onDrawing.has(focus) ? bag.groups.find((g) => g.fields.some((f) => f.key === focus)) : null;
  const wanted = inCard?.key ?? null;
  // A link to a field opens the card it is in.
  useEffect(() => {
    if (wanted) setOpen(wanted);
  }, [wanted]);

  const [problems, setProblems] = useState<Record<string, string | null>>({});
  const wrong = Object.entries(problems).filter(([, text]) => text);
  const commit = (field: string, value: string) => edit({ edit: 'bag', field, value });
  const own = bag.family === 'cut-list';
  return (
    <div>
      <div className="flex flex-wrap items-center gap-3">
        <h1 className="text-xl">{bag.title}</h1>
        <p className="min-w-52 flex-1 text-soft max-sm:basis-full">{bag.about}</p>
        <PlanFields>
          <FamilyChooser />
          <FitAndScale />
          <Popover.Root>
            <Popover.Trigger asChild>
              <button type="button" className="btn">
                {view.system === 'in' ? 'Inches' : 'Centimetres'}, to {view.ruler_name}
                {view.currency && `, ${view.currency}`}
              </button>
            </Popover.Trigger>
            <Popover.Portal>
              <Popover.Content
                className="z-30 flex w-72 flex-col gap-3 rounded border border-indigo bg-paper p-3 shadow-lg"
                sideOffset={5}
              >
                <ChoiceField
                  label="Measured in"
                  inline
                  value={view.system}
                  onChoose={(value) => edit({ edit: 'project', field: 'system', value })}
                  choices={asChoices(systems)}
                />
                <ChoiceField
                  label="The ruler’s finest line; computed sizes are rounded up to it"
                  inline
                  value={view.ruler}
                  onChoose={(value) => edit({ edit: 'project', field: 'ruler', value })}
                  choices={asChoices(rulers.filter((r) => r.system === view.system))}
                />
                <TextField
                  label="Prices are in"
                  value={view.currency}
                  placeholder="none"
                  hint="€, £, kr or CHF; empty shows none"
                  onCommit={(value) => edit({ edit: 'project', field: 'currency', value })}
                />
                <Popover.Arrow className="fill-indigo" />
              </Popover.Content>
            </Popover.Portal>
          </Popover.Root>
        </PlanFields>
      </div>
      <PlanFields>
        {own ? (
          <CutListRows />
        ) : (
          <div
            className={`mt-1 grid gap-3 ${parts.part ? 'lg:grid-cols-[86px_minmax(0,1fr)_340px]' : 'lg:grid-cols-[86px_minmax(0,1fr)]'}`}
          >
            <WallViews bag={bag} wall={parts.face?.wall ?? null} onLook={parts.look} />
            {parts.face ? (
              <WallDrawing
                face={parts.face}
                parts={bag.parts}
                groups={bag.groups}
                open={parts.part?.id ?? null}
                onOpen={parts.open}
                onOpenGroup={setOpen}
              />
            ) : (
              <div className="relative self-start max-sm:mb-12" data-drawing>
                <Drawing drawing={bag.drawing} label={`${bag.title}, its sizes as typed`} className="w-full">
                  {bag.anchors.map((a) => (
                    <g key={a.field} stroke="#A9412A" strokeWidth="1.4">
                      <line x1={a.x1} y1={a.y1} x2={a.x2} y2={a.y2} />
                      <circle cx={a.x1} cy={a.y1} r="4.5" fill="#FFFDF8" />
                    </g>
                  ))}
                </Drawing>
                {!parts.part &&
                  bag.anchors.map((anchor, at) => {
                    const size = bag.groups
                      .flatMap((g) => g.fields)
                      .find((f) => f.key === anchor.field)?.length;
                    if (!size) return null;
                    return (
                      <SizeOnDrawing
                        key={anchor.field}
                        anchor={anchor}
                        at={at}
                        name={anchor.name}
                        value={size}
                        unit={view.system}
                        exactUnit={systems.find((s) => s.key === view.system)?.unit ?? 0}
                        exactStep={rulers.find((r) => r.key === view.ruler)?.step ?? 0}
                        frame={bag.drawing}
                        focusKey={focus === anchor.field ? focus : null}
                        onPreview={(value) =>
                          preview(value === null ? null : [{ edit: 'bag', field: anchor.field, value }])
                        }
                        onCommit={commit}
                        onProblem={(field, text) => setProblems((all) => ({ ...all, [field]: text }))}
                      />
                    );
                  })}
              </div>
            )}
            {parts.part && (
              <PartSheet
                key={parts.part.id}
                part={parts.part}
                focus={parts.focus}
                onClose={() => parts.open(null)}
                onAdd={parts.add}
              />
            )}
          </div>
        )}
      </PlanFields>
      {wrong.length > 0 && (
        <div role="alert" className="mt-1 rounded border-2 border-madder bg-paper px-3 py-1">
          <ul>
            {wrong.map(([field, text]) => (
              <li key={field} className="font-bold text-madder">
                {text}
              </li>
            ))}
          </ul>
        </div>
      )}
      {view.came_along.length > 0 && (
        <p role="status" className="mt-1 w-fit rounded border-[1.5px] border-weld bg-paper px-3 py-1">
          <strong>Also changed</strong> {view.came_along.join(' ')}
        </p>
      )}
      {!own && <Reasons />}
      <PlanFields>
        {!own && (
          <PartCards
            parts={bag.parts}
            open={parts.part?.id ?? null}
            wall={parts.face?.wall ?? null}
            onOpen={parts.open}
            onAdd={parts.add}
          />
        )}
        <ul className="mt-3 grid grid-cols-2 gap-2 sm:grid-cols-3 lg:grid-cols-4 xl:grid-cols-5">
          {(own ? [] : cards).map((option) => (
            <li key={option.key}>
              <Popover.Root
                open={open === option.key}
                onOpenChange={(is) => {
                  setOpen(is ? option.key : null);
                  if (!is && focus) setSearch({}, { replace: true });
                }}
              >
                <Popover.Trigger className="sheet flex w-full items-center gap-2.5 px-2.5 py-1.5 text-left enabled:hover:border-indigo disabled:opacity-60 data-[state=open]:border-indigo data-[state=open]:outline data-[state=open]:outline-1">
                  <GroupIcon group={option} />
                  <span className="min-w-0 leading-tight">
                    <span className="block font-bold">{option.name}</span>
                    <span className="block text-sm leading-tight text-soft">{option.summary}</span>
                  </span>
                </Popover.Trigger>
                <Popover.Portal>
                  <Popover.Content
                    className="z-30 max-h-[min(70vh,var(--radix-popover-content-available-height))] w-80 max-w-[92vw] overflow-auto rounded border border-indigo bg-paper p-4 shadow-lg"
                    sideOffset={6}
                    collisionPadding={12}
                    aria-label={option.name}
                  >
                    <OptionFields
                      fields={option.fields}
                      focus={focus}
                      onSet={(field, value) => edit({ edit: 'bag', field, value })}
                    />
                    {option.fields.some((f) => f.key === 'boxing' && !f.idle) && <CompareCorners />}
                    <Popover.Arrow className="fill-indigo" />
                  </Popover.Content>
                </Popover.Portal>
              </Popover.Root>
            </li>
          ))}
        </ul>
      </PlanFields>
    </div>
  );
}

/** The pieces' computed sizes; one is open with its reason. */
function Reasons() {
  const { view } = useProject();
  const [, setSearch] = useSearchParams();
  const [chosen, setChosen] = useState<string | null>(null);
  const all = view.pieces.flatMap((p) => [
    { key: `${p.id} width`, name: `${p.name}, wide`, short: p.width.size.text, dimension: p.width },
    { key: `${p.id} height`, name: `${p.name}, tall`, short: p.height.size.text, dimension: p.height },
  ]);
  const open = all.find((d) => d.key === chosen) ?? all[1] ?? all[0];
  if (!open) return null;
  return (
    <section aria-label="Why a piece has its size" className="mt-1">
      <div className="mb-1 flex flex-wrap items-center gap-x-4 gap-y-0.5">
        {view.pieces.map((p) => (
          <span key={p.id} className="whitespace-nowrap">
            <span className="text-soft">{p.name} </span>
            {(['width', 'height'] as const).map((side, i) => {
              const key = `${p.id} ${side}`;
              return (
                <span key={side}>
                  {i === 1 && ' × '}
                  <button
                    type="button"
                    aria-pressed={key === open.key}
                    aria-label={`${p.name} ${side}, ${p[side].size.words}: why`}
                    className="min-w-7 rounded-[2px] border-b-2 border-dotted border-soft px-0.5 font-bold hover:bg-tape/50 aria-pressed:bg-tape"
                    onClick={() => setChosen(key)}
                  >
                    {p[side].size.text}
                  </button>
                </span>
              );
            })}
          </span>
        ))}
      </div>
      <ReasonTape
        dimension={open.dimension}
        unit={view.system}
        onField={(field) => setSearch({ field }, { replace: true })}
      />
    </section>
  );
}
