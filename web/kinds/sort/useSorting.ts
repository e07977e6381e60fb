import { useState } from 'react';
import { textOf } from '../../../core/kinds/shared/entries';
import { binsOf, chipsIn, type SortResponse, type SortShown } from '../../../core/kinds/sort/response';
import { t } from './words';

/** A chip in the hand, and the bin that it came from; `over` is the bin that the arrow keys have reached. */
export interface Held {
  readonly chip: string;
  readonly from: string | null;
  readonly over: number | null;
}

interface Sorting {
  readonly shown: SortShown;
  readonly response: SortResponse;
  readonly onChange: (next: SortResponse) => void;
  /** Says something to people who listen. */
  readonly say: (text: string) => void;
}

/** What can be done with chips and bins, and what is said of it. The one place where the limits are kept. */
export function useSorting({ shown, response, onChange, say }: Sorting) {
  const [held, setHeld] = useState<Held | null>(null);
  const [refused, setRefused] = useState('');
  const nameOf = (chip: string) => textOf(shown.chips, chip);

  const without = (bin: string, chip: string) => ({
    ...response.bins,
    [bin]: chipsIn(response, bin).filter((one) => one !== chip),
  });

  const take = (chip: string, from: string | null) => {
    setRefused('');
    const same = held?.chip === chip && held.from === from;
    setHeld(same ? null : { chip, from, over: null });
    say(t(same ? 'letGo' : 'taken', { text: nameOf(chip) }));
  };

  const letGo = () => {
    if (!held) return;
    setHeld(null);
    say(t('letGo', { text: nameOf(held.chip) }));
  };

  const put = (chip: string, from: string | null, bin: string): boolean => {
    const { text, limit } = shown.bins.find((one) => one.key === bin)!;
    const here = chipsIn(response, bin);
    const already = here.includes(chip);
    if (!already && limit !== null && here.length >= limit) {
      setRefused(t('full', { text, count: limit }));
      return false;
    }
    setRefused('');
    setHeld(null);
    if (!already) {
      // A chip that is used once leaves the bin where it was; one that is used often only when it was taken from it.
      const left = shown.often ? (from === null ? [] : [from]) : binsOf(response, chip);
      const bins = left.reduce(
        (made, one) => ({ ...made, [one]: chipsIn({ bins: made }, one).filter((c) => c !== chip) }),
        response.bins,
      );
      onChange({ bins: { ...bins, [bin]: [...here, chip] } });
    }
    say(t('put', { text: nameOf(chip), bin: text }));
    return true;
  };

  const remove = (bin: string, chip: string) => {
    setRefused('');
    setHeld(null);
    onChange({ bins: without(bin, chip) });
    say(t('removed', { text: nameOf(chip) }));
  };

  /** Arrow keys carry what is in the hand from bin to bin. */
  const carry = (by: 1 | -1) => {
    if (!held) return;
    const count = shown.bins.length;
    const over = held.over === null ? (by === 1 ? 0 : count - 1) : (held.over + by + count) % count;
    setHeld({ ...held, over });
    const { key, text, limit } = shown.bins[over]!;
    const inside = chipsIn(response, key).length;
    const room = limit === null ? '' : t('room', { inside, limit });
    say([t('over', { text: nameOf(held.chip), bin: text, place: over + 1, all: count }), room].join(' '));
  };

  return { held, refused, take, letGo, put, remove, carry };
}
