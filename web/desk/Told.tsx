import { Button } from '../ui/Button';
import { useDesk } from './DeskContext';
import { t } from './words';

/** What the invigilator said last, until it is read; it takes nothing away from the question. */
export function Told() {
  const told = useDesk((s) => s.told);
  const dismiss = useDesk((s) => s.dismissTold);
  return (
    <div role="alert" className="pointer-events-none fixed inset-x-0 top-3 z-20 flex justify-center px-3">
      {told !== null && (
        <div className="pointer-events-auto flex max-w-[40rem] items-center gap-4 rounded-card border border-line bg-card px-4 py-2.5 shadow-float">
          <p>
            <b className="text-slate">{t('told')}:</b> {told}
          </p>
          <Button onClick={dismiss}>{t('toldClose')}</Button>
        </div>
      )}
    </div>
  );
}
