// What a plan leaves out, said wherever the plan is shown: how many pieces, which, and by how much of which cloth it is short.
import { Link } from 'react-router';
import { useProject } from '../project/ProjectContext';

export function NotWhole({ className = '' }: { className?: string }) {
  const { view } = useProject();
  const missing = view.lay?.missing;
  if (!missing) return null;
  return (
    <section
      role="alert"
      aria-label="Not the whole bag"
      className={`rounded border-2 border-madder bg-paper px-3 py-2 ${className}`}
    >
      <p>
        <strong className="text-madder">Not the whole bag:</strong> {missing.headline}
        <span className="text-soft"> ({missing.pieces.join(', ')})</span>
      </p>
      {missing.told.map((line) => (
        <p key={line}>{line}</p>
      ))}
      <Link to={`/projects/${view.id}/cloth`} className="font-bold text-chalk underline print:hidden">
        Choose the cloth
      </Link>
    </section>
  );
}
