// The step in hand: what is done, the seams with their widths, and the pieces, dotted where they are sewn.
import type { MakingStepView } from '../../api/client';
import { Drawing } from '../../drawing/Drawing';

export function InHand({ step }: { step: MakingStepView }) {
  return (
    <section aria-label="This step" className="sheet p-4">
      <p className="max-w-[60ch] text-xl leading-snug">{step.text}</p>
      {step.seams.length > 0 && (
        <ul className="mt-3" aria-label="Seams of this step">
          {step.seams.map((s) => (
            <li
              key={`${s.name} ${s.one} ${s.other}`}
              className="flex flex-wrap items-baseline gap-x-4 border-t border-ruled py-1.5"
            >
              <span className="w-44 font-bold first-letter:uppercase">{s.name}</span>
              <span className="w-28">
                <span className="font-heading text-lg text-madder">{s.seam}</span>
                <span className="text-soft"> wide</span>
              </span>
              <span className="min-w-0 flex-1 basis-72 text-soft">
                {s.one}
                {s.other ? ` to ${s.other}` : ', one to the other'}; {s.length} long
                {s.apart && <span className="block">{s.apart}</span>}
              </span>
            </li>
          ))}
        </ul>
      )}
      {step.pieces.length > 0 && (
        <ul className="mt-3 flex flex-wrap items-end gap-x-6 gap-y-3 border-t border-ruled pt-3">
          {step.pieces.map((p) => (
            <li key={p.id}>
              <Drawing drawing={p.drawing} label="" />
              <p className="pl-9 leading-tight">
                {p.name} <span className="text-soft">× {p.count}</span>
              </p>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
