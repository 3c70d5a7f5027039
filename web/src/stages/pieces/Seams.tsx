// What is sewn to what: both edges are equally long on the line they are sewn on.
import { useProject } from '../../project/ProjectContext';

export function Seams() {
  const { view } = useProject();
  if (view.seams.length === 0) return null;
  return (
    <section className="sheet mt-4 p-3" aria-label="What is sewn to what">
      <h2 className="text-lg">What is sewn to what</h2>
      <p className="text-soft">Lengths are measured on the seam line, not along the cut edge.</p>
      <ul className="mt-1">
        {view.seams.map((s) => (
          <li
            key={`${s.name} ${s.one} ${s.other}`}
            className="flex flex-wrap gap-x-3 border-t border-ruled py-1.5"
          >
            <span className="w-44 font-bold first-letter:uppercase">{s.name}</span>
            <span className="w-24">{s.length}</span>
            <span className="min-w-0 flex-1 basis-72 text-soft">
              {s.one}
              {s.other ? ` — ${s.other}` : ', one to the other'}; sewn {s.seam} from the edge
              {s.apart && <span className="block">{s.apart}</span>}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
