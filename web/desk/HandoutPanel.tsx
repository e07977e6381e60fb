import { handoutsTarget } from '../../core/kit/notes';
import type { Handout } from '../../core/papers/paper';
import { InPlace } from '../documents/InPlace';
import { Panel } from '../kit/Panel';
import { t } from './words';

interface Props {
  readonly id: string;
  readonly handout: Handout;
  readonly section: string;
  /** Which of the section's it is, from 0. */
  readonly place: number;
}

/** A handout beside the question: over the source at first, each a little lower than the one before. */
export function HandoutPanel({ id, handout, section, place }: Props) {
  return (
    <Panel
      id={id}
      title={t('handout', { title: handout.title })}
      first={{ x: 236 + place * 28, y: 120 + place * 36, width: 470, height: 430 }}
      least={{ width: 260, height: 180 }}
    >
      <div className="flex h-[42dvh] flex-none flex-col px-3 pb-2 desk:h-auto desk:min-h-0 desk:flex-1">
        <InPlace
          body={handout.body}
          text={{ target: handoutsTarget(section), name: handout.key }}
          className="px-1 py-2"
        />
      </div>
    </Panel>
  );
}
