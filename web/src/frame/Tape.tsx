// The tape: each stage of the work is a stretch of it, the one in hand lifted out.
import { ChevronLeft, ChevronRight, MapPin } from 'lucide-react';
import { Link, NavLink } from 'react-router';
import { useProject } from '../project/ProjectContext';
import { STAGES } from './stages';

export function Tape({ stage }: { stage: string }) {
  const { view } = useProject();
  const at = STAGES.findIndex((s) => s.key === stage);
  const here = STAGES[at];
  const [before, after] = [STAGES[at - 1], STAGES[at + 1]];
  const to = (key: string) => `/projects/${view.id}/${key}`;
  return (
    <nav
      aria-label="Stages of the work"
      className="order-last w-full min-w-0 min-[1100px]:order-none min-[1100px]:w-auto min-[1100px]:flex-1"
    >
      <ol className="relative hidden h-[58px] sm:flex">
        <li
          aria-hidden="true"
          className="my-0 w-3 rounded-l bg-gradient-to-r from-[#9b9b98] via-[#d9d9d5] to-[#b5b5b1]"
        />
        {STAGES.map((s, i) => (
          <li key={s.key} className="relative flex-1">
            <NavLink
              to={to(s.key)}
              aria-label={`${s.name} ${s.figure(view)}${s.pin(view) ? ', check this' : ''}`}
              aria-keyshortcuts={String(i + 1)}
              className={({ isActive }) =>
                isActive
                  ? 'ticks absolute inset-x-0 -top-1.5 -bottom-2 z-10 rounded border-2 border-indigo bg-paper px-2 pt-2 leading-tight min-[900px]:px-4'
                  : 'ticks absolute inset-0 border-y border-r border-tape-edge bg-tape px-2 pt-1.5 leading-tight hover:brightness-105 min-[900px]:px-4'
              }
            >
              <span className="flex items-center gap-1 font-heading text-[15px] min-[900px]:text-[17px]">
                {s.name}
                {s.pin(view) && <MapPin size={15} className="fill-madder text-paper" aria-hidden="true" />}
              </span>
              <span className="block truncate text-[13px] text-[#3d3a30] min-[900px]:text-sm">
                {s.figure(view)}
              </span>
            </NavLink>
          </li>
        ))}
      </ol>
      <div className="flex items-center gap-1 sm:hidden">
        {before ? (
          <Link to={to(before.key)} className="btn px-2" aria-label={`back to ${before.name}`}>
            <ChevronLeft size={20} />
          </Link>
        ) : (
          <span className="w-10" />
        )}
        <div className="ticks flex-1 rounded border-2 border-indigo bg-tape px-3 pt-1 pb-2 text-center leading-tight">
          <span className="font-heading">{here?.name}</span>{' '}
          <span className="text-sm">{here?.figure(view)}</span>
        </div>
        {after ? (
          <Link to={to(after.key)} className="btn px-2" aria-label={`on to ${after.name}`}>
            <ChevronRight size={20} />
          </Link>
        ) : (
          <span className="w-10" />
        )}
      </div>
    </nav>
  );
}
