// What becomes of an edit: exactly one of these.
import { ApiError, type ProblemView } from '../api/client';

export type Outcome =
  | { is: 'ok' }
  /** Fields that cannot stand; nothing was changed. */
  | { is: 'problems'; problems: ProblemView[] }
  /** Changed elsewhere meanwhile: it is held by the dialog that asks. */
  | { is: 'conflict' }
  /** It could not be kept and was left: what was typed stands where it was typed. */
  | { is: 'unreached'; message: string };

export const OK: Outcome = { is: 'ok' };

/** What became of a call that changes something outside of a project's edits. */
export async function outcomeOf(call: () => Promise<unknown>): Promise<Outcome> {
  try {
    await call();
  } catch (error) {
    if (!(error instanceof ApiError)) throw error;
    if (error.body.problems.length > 0) return { is: 'problems', problems: error.body.problems };
    return { is: 'unreached', message: error.message };
  }
  return OK;
}

/** Why nothing was changed, as sentences; none if it was or is held. */
export function whyNot(outcome: Outcome): string[] {
  if (outcome.is === 'problems') return outcome.problems.map((p) => p.message);
  return outcome.is === 'unreached' ? [outcome.message] : [];
}

export type Answer = ProblemView['answers'][number];

/** What may be answered, where it was a question about one value. */
export function answersOf(outcome: Outcome): Answer[] {
  return outcome.is === 'problems' && outcome.problems.length === 1
    ? (outcome.problems[0]?.answers ?? [])
    : [];
}
