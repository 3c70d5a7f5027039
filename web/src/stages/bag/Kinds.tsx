// Kinds of bag, chosen by their drawings.
import { useQuery } from '@tanstack/react-query';
import { api, must } from '../../api/client';
import { Drawing } from '../../drawing/Drawing';

interface Props {
  chosen: string;
  onChoose: (family: string) => void;
  /** Only drawing and name. */
  small?: boolean;
}

export function Kinds({ chosen, onChoose, small }: Props) {
  const families = useQuery({
    queryKey: ['families'],
    queryFn: () => must(api.GET('/api/families')),
    staleTime: Number.POSITIVE_INFINITY,
  });
  return (
    <>
      {families.isPending && <p>Drawing the bags …</p>}
      {families.isError && <p role="alert">{families.error.message}</p>}
      <ul
        className={
          small
            ? 'grid grid-cols-[repeat(auto-fill,minmax(86px,1fr))] gap-1'
            : 'grid grid-cols-2 gap-2 sm:grid-cols-3'
        }
      >
        {families.data?.map((f) => (
          <li key={f.key}>
            <button
              type="button"
              aria-pressed={f.key === chosen}
              title={small ? f.about : undefined}
              className="flex h-full w-full flex-col items-center gap-1 rounded border border-ruled p-1.5 text-center hover:border-indigo aria-pressed:border-indigo aria-pressed:bg-tape/40"
              onClick={() => onChoose(f.key)}
            >
              <Drawing drawing={f.drawing} label="" className={`${small ? 'h-[44px]' : 'h-[88px]'} w-auto`} />
              <span className={`font-bold ${small ? 'text-sm leading-tight' : ''}`}>{f.name}</span>
              {!small && <span className="text-sm leading-tight text-soft">{f.about}</span>}
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
