// One notion on its shelf; opened, its ledger and what can be done with it.
import { Popover } from 'radix-ui';
import { useState } from 'react';
import type { NotionView } from '../../api/client';
import { Drawing } from '../../drawing/Drawing';
import { TextField } from '../../fields/TextField';
import { whyNot } from '../../project/outcome';
import { LedgerEntries } from '../LedgerEntries';
import { useNotionChanges } from './useNotions';

export function NotionCard({ notion: n }: { notion: NotionView }) {
  if (n.unreadable)
    return (
      <p className="sheet max-w-xs border-madder p-2 text-madder">
        <strong>{n.label}</strong>: {n.unreadable}
      </p>
    );
  return (
    <Popover.Root>
      <Popover.Trigger className="block rounded-sm p-1 text-left leading-tight hover:bg-[#fbf7ec] data-[state=open]:outline data-[state=open]:outline-chalk">
        {n.drawing && n.there !== 'none' && (
          <Drawing drawing={n.drawing} label="" className="mb-1 max-w-full" />
        )}
        <span className="block font-bold">{n.label}</span>
        <span className={`block max-w-64 ${n.there === 'none' ? 'text-soft' : 'font-bold text-woad'}`}>
          {n.there === 'none' ? 'none left' : `${n.there} here`}
          {n.place && <span className="font-normal text-soft"> · {n.place}</span>}
        </span>
        {n.with_bags.map((line) => (
          <span key={line} className="block text-sm text-soft">
            {line}
          </span>
        ))}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label={n.label}
          className="z-30 max-h-[min(75vh,var(--radix-popover-content-available-height))] w-80 max-w-[94vw] overflow-auto rounded border border-indigo bg-paper p-3 shadow-lg"
          sideOffset={5}
          collisionPadding={8}
        >
          <Inside notion={n} />
          <Popover.Arrow className="fill-indigo" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Inside({ notion: n }: { notion: NotionView }) {
  const { change, forget } = useNotionChanges();
  const [problem, setProblem] = useState<string | null>(null);
  const say = (why: string[]) => setProblem(why.length > 0 ? why.join(' ') : null);
  const empty = n.there === 'none' && n.with_bags.length === 0;
  const much = n.by_length ? 'lengths, separated by commas' : 'how many';
  return (
    <div className="flex flex-col gap-2">
      <h3 className="text-lg leading-tight">{n.label}</h3>
      <TextField
        label="Add more"
        value=""
        placeholder={much}
        onCommit={(value) => change(n.id, 'put-in', value)}
      />
      <TextField
        label="Remove: thrown away, broken or given away"
        value=""
        placeholder={much}
        onCommit={(value) => change(n.id, 'throw-away', value)}
      />
      <TextField
        label="Counted: what is here now"
        value={n.typed}
        placeholder="none"
        onCommit={(value) => change(n.id, 'correct', value.trim() === '' ? 'none' : value)}
      />
      <TextField
        label="Place"
        value={n.place}
        placeholder="button tin"
        onCommit={(value) => change(n.id, 'place', value)}
      />
      {problem && (
        <p role="alert" className="font-bold text-madder">
          {problem}
        </p>
      )}
      {empty && (
        <button
          type="button"
          className="btn self-start"
          onClick={async () => say(whyNot(await forget(n.id)))}
        >
          Delete it and its history
        </button>
      )}
      <h4 className="mt-1 font-sans text-sm font-normal text-soft">History, newest first</h4>
      <LedgerEntries
        entries={n.entries}
        onTakeBack={async (e) => say(whyNot(await change(n.id, 'take-back', String(e.number))))}
      />
    </div>
  );
}
