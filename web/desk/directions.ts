import type { ArrivalView } from '../../core/arrival/api';
import { get } from '../api/client';

/** What a candidate was told before the clock started, to be read again at the desk. */
export type Directions = Pick<ArrivalView, 'rules' | 'round' | 'candidate' | 'checks'>;

const PLACE = 'clear-sitting-directions';

/** Kept for this tab, so that they are there after a reload without a connection. */
function kept(sitting: string): Directions | null {
  try {
    const { of, directions } = JSON.parse(sessionStorage.getItem(PLACE) ?? '{}') as {
      readonly of?: string;
      readonly directions?: Directions;
    };
    return of === sitting ? (directions ?? null) : null;
  } catch {
    return null;
  }
}

/** Looks the directions of a sitting up, or takes them as they were kept. */
export async function loadDirections(sitting: string): Promise<Directions> {
  try {
    const { rules, round, candidate, checks } = await get<ArrivalView>('/arrival');
    const directions = { rules, round, candidate, checks };
    try {
      sessionStorage.setItem(PLACE, JSON.stringify({ of: sitting, directions }));
    } catch {
      // Without storage they are looked up again.
    }
    return directions;
  } catch (error) {
    const known = kept(sitting);
    if (known) return known;
    throw error;
  }
}
