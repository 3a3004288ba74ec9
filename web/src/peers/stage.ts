import type { RoundLine } from '../api/schema';

/** How far a review has come, for who looks after the round. */
export const STAGE: Record<RoundLine['stage'], string> = {
  NOT_BEGUN: 'not begun',
  BEGUN: 'begun',
  WAITS: 'sent, waits to be looked at',
  RETURNED: 'came back to its reader',
  DONE: 'done',
  TAKEN_DOWN: 'taken down',
};

export const isSent = (stage: RoundLine['stage']) => stage === 'WAITS' || stage === 'DONE' || stage === 'TAKEN_DOWN';
