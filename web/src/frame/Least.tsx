// That no shorter cut will do, and when asked why, in words, and under which rules that holds.
import { Popover } from 'radix-ui';

interface Props {
  text: string;
  reason: string | null | undefined;
  /** The rules it rests on. */
  under: string[];
}

export function Least({ text, reason, under }: Props) {
  if (!reason) return <span className="font-bold text-woad">{text}</span>;
  return (
    <span className="inline-flex items-baseline gap-1.5">
      <span className="font-bold text-woad">{text}</span>
      <Popover.Root>
        <Popover.Trigger className="text-sm text-chalk underline decoration-dotted underline-offset-2 hover:decoration-solid print:hidden">
          why?
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            className="z-30 w-[340px] max-w-[92vw] rounded border border-indigo bg-paper p-4 shadow-lg"
            sideOffset={6}
            collisionPadding={12}
            aria-label={text}
          >
            <p>{reason}</p>
            {under.length > 0 && (
              <>
                <p className="mt-2 text-sm text-soft">This holds with</p>
                <ul className="list-disc pl-5 text-sm">
                  {under.map((rule) => (
                    <li key={rule}>{rule}</li>
                  ))}
                </ul>
              </>
            )}
            <Popover.Arrow className="fill-indigo" />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </span>
  );
}
