// All steps, hung on a seam that is sewn as far as the work has come.
import type { MakingStepView } from '../../api/client';

interface Props {
  steps: MakingStepView[];
  at: number;
  onShow: (key: string) => void;
  onTick: (key: string, done: boolean) => void;
  className?: string;
}

export function StepList({ steps, at, onShow, onTick, className = '' }: Props) {
  return (
    <ol aria-label="Sewing steps" className={className}>
      {steps.map((s, i) => {
        const first = steps[i - 1]?.phase !== s.phase;
        return (
          <li key={s.key} aria-current={i === at ? 'step' : undefined}>
            {first && (
              <h2 className={`text-sm text-soft ${i > 0 ? 'mt-3' : ''}`} id={`phase-${s.phase}`}>
                {s.phase_name}
              </h2>
            )}
            <div
              className={`relative flex items-start rounded border-2 ${
                i === at ? 'border-indigo bg-paper' : 'border-transparent'
              }`}
            >
              <span
                aria-hidden="true"
                className={`absolute inset-y-0 left-[21px] w-0 border-l-[2.5px] ${
                  s.done ? 'border-dashed border-woad' : 'border-dotted border-[#b9ad95]'
                }`}
              />
              <label className="relative flex size-11 shrink-0 cursor-pointer items-center justify-center">
                <input
                  type="checkbox"
                  className="size-[22px] accent-woad"
                  checked={s.done}
                  onChange={(e) => onTick(s.key, e.target.checked)}
                  aria-label={`${i + 1}. ${s.text}`}
                />
              </label>
              <button
                type="button"
                className="min-h-11 min-w-0 flex-1 py-2.5 pr-2 text-left leading-snug"
                onClick={() => onShow(s.key)}
                aria-label={`Show step ${i + 1}`}
              >
                <span className={s.done ? 'text-soft line-through decoration-woad/60' : ''}>{s.text}</span>
              </button>
            </div>
          </li>
        );
      })}
    </ol>
  );
}
