// What is said of one piece, opened beside it; below it where the screen is narrow.
import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';

interface Props {
  /** What it is about, for those who hear the screen. */
  label: string;
  /** What is seen of it while it is closed. */
  summary: ReactNode;
  /** What the trigger is called, where that is more than the label. */
  triggerLabel?: string;
  wide?: boolean;
  children: ReactNode;
}

export function PiecePopover({ label, summary, triggerLabel, wide, children }: Props) {
  return (
    <Popover.Root>
      <Popover.Trigger
        className="mt-1 block rounded border border-dashed border-[#9a8f79] px-2 py-0.5 text-left text-sm hover:border-indigo hover:bg-calico data-[state=open]:border-indigo"
        aria-label={triggerLabel ?? label}
      >
        {summary}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className={`z-30 max-h-[min(78vh,var(--radix-popover-content-available-height))] max-w-[94vw] overflow-auto rounded border border-indigo bg-paper p-4 shadow-lg ${
            wide ? 'w-[22rem]' : 'w-80'
          }`}
          side={window.matchMedia('(max-width: 760px)').matches ? 'bottom' : 'right'}
          sideOffset={6}
          collisionPadding={12}
          aria-label={label}
          // What is held in the hand is let go first.
          onEscapeKeyDown={(e) => {
            if (document.querySelector('[data-held=true]')) e.preventDefault();
          }}
        >
          {children}
          <Popover.Arrow className="fill-indigo" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
