// Fields that change the plan: once cutting has begun they are closed before one types, not refused after.
import type { ReactNode } from 'react';
import { useProject } from './ProjectContext';

export function PlanFields({ children }: { children: ReactNode }) {
  const { view } = useProject();
  return (
    <fieldset disabled={view.steps_done > 0} className="contents">
      {children}
    </fieldset>
  );
}
