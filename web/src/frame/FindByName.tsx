// The field that finds one of many by its name, once there are more than can be seen at a glance.
import { Search } from 'lucide-react';

interface Props {
  /** What is found, for who cannot see the field. */
  label: string;
  total: number;
  /** So many are found by looking. */
  atAGlance: number;
  find: string;
  onFind: (find: string) => void;
}

export function FindByName({ label, total, atAGlance, find, onFind }: Props) {
  if (total <= atAGlance && find === '') return null;
  return (
    <label className="flex min-w-44 flex-1 items-center gap-2 min-[600px]:flex-none">
      <Search size={17} aria-hidden="true" />
      <input
        type="search"
        className="field min-w-0 flex-1 min-[600px]:w-56"
        aria-label={label}
        placeholder="Find by name"
        value={find}
        onChange={(e) => onFind(e.target.value)}
      />
    </label>
  );
}
