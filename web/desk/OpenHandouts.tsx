import { Suspense } from 'react';
import { later } from '../ui/later';
import { useDesk } from './DeskContext';
import { useHandouts } from './Handouts';

const HandoutPanel = later(async () => (await import('./HandoutPanel')).HandoutPanel);

/** The open handouts of the section in view. */
export function OpenHandouts() {
  const { key, handouts } = useHandouts();
  const aids = useDesk((s) => s.desk.aids);
  return (
    <Suspense>
      {handouts.map(({ id, handout }, place) =>
        aids[id]?.open === true ? (
          <HandoutPanel key={id} id={id} handout={handout} section={key} place={place} />
        ) : null,
      )}
    </Suspense>
  );
}
