// Why the plan is closed, and the two ways on.
import { Link } from 'react-router';
import { useProject } from '../project/ProjectContext';

export function CuttingBegun() {
  const { view, edit } = useProject();
  const { steps, steps_done: done } = view;
  if (done === 0) return null;
  return (
    <section
      aria-label="Cutting has begun"
      className="mb-2 flex flex-wrap items-center gap-x-3 gap-y-2 rounded border-[1.5px] border-weld bg-paper px-3 py-1.5 print:hidden"
    >
      <p className="min-w-60 flex-1 leading-tight">
        <strong>
          {done} of {steps} cuts are made, so the plan is fixed.
        </strong>{' '}
        You can still change names, prices, colours and measured sizes.
      </p>
      <Link className="btn" to={`/projects/${view.id}/cut`}>
        Go on cutting
      </Link>
      <button type="button" className="btn" onClick={() => edit({ edit: 'steps-done', count: 0 })}>
        Begin again
      </button>
    </section>
  );
}
