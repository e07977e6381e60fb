import { ChevronLeft, ChevronRight } from 'lucide-react';
import { Kit, KitTray } from './Kit';
import { Button } from '../ui/Button';
import { useNarrow } from '../ui/useNarrow';
import { useDesk } from './DeskContext';
import { BreakTool, HandTool } from './HelpTools';
import { DirectionsTool } from './DirectionsTool';
import { Notices } from './Notices';
import { SavedLine } from './SavedLine';
import { t } from './words';

/** Where large text leaves little room in the row. */
const TIGHT = 'px-1.5! @[13rem]:px-2! @[16rem]:px-3.5!';

/** The kit in one row, and under it the ways on and the saved line. */
export function Foot() {
  const index = useDesk((s) => s.index);
  const last = useDesk((s) => s.paper.questions.length - 1);
  const go = useDesk((s) => s.go);
  const lookBack = useDesk((s) => s.lookBack);
  const narrow = useNarrow();
  const onward = index < last;
  return (
    <footer data-foot className="relative border-t border-line">
      <div className="pointer-events-none absolute inset-x-0 bottom-full z-20 px-3 pb-2">
        <Notices />
      </div>
      {!narrow && (
        <div className="px-4">
          <Kit />
        </div>
      )}
      {narrow && (
        // A line of its own, always: where it is squeezed between buttons it breaks into a word a row.
        <div className="flex justify-center bg-card px-3 pt-1.5 text-center leading-5">
          <SavedLine />
        </div>
      )}
      <div className={`@container bg-card ${narrow ? 'beside-sheet' : 'border-t border-line'}`}>
        <div className="flex items-center gap-0.5 px-1 py-2.5 @[11rem]:gap-1 @[11rem]:px-2 @[16rem]:gap-2 @[16rem]:px-3 desk:gap-3 desk:px-7">
          <Button
            onClick={() => go(index - 1)}
            disabled={index === 0}
            aria-label={t(index === 0 ? 'back' : 'previous', { number: index })}
            className={`min-h-11 ${narrow ? TIGHT : ''}`}
          >
            <ChevronLeft aria-hidden className="size-5" />{' '}
            {narrow ? '' : t(index === 0 ? 'back' : 'previous', { number: index })}
          </Button>
          {narrow && <KitTray />}
          {!narrow && <BreakTool />}
          {!narrow && <DirectionsTool />}
          <HandTool {...(narrow ? { brief: 'long' as const } : {})} />
          <div className="flex min-w-0 flex-1 justify-center text-center">{!narrow && <SavedLine />}</div>
          <Button
            look="first"
            onClick={() => (onward ? go(index + 1) : lookBack())}
            className={`min-h-11 ${narrow ? `${TIGHT} leading-tight` : ''}`}
          >
            {narrow ? (
              <span className="sr-only @[11rem]:not-sr-only @[11rem]:whitespace-normal">
                {t(onward ? 'next' : 'lastLook')}
              </span>
            ) : onward ? (
              t('previous', { number: index + 2 })
            ) : (
              t('lastLook')
            )}
            <ChevronRight aria-hidden className="size-5 flex-none" />
          </Button>
        </div>
      </div>
    </footer>
  );
}
