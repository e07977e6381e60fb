import { AArrowUp, Check } from 'lucide-react';
import { Popover } from 'radix-ui';
import { words } from '../words';
import { textSizes, useTextSize } from './textSize';

const t = words('textSize', { open: 'Text', title: 'Size of the text', size: '{{size}} %' });

/** “Text”: a small panel that closes with Esc and is no mode. */
export function TextSizeControl() {
  const { size, set } = useTextSize();
  return (
    <Popover.Root>
      <Popover.Trigger className="inline-flex min-h-10 items-center gap-2 rounded-control px-2.5 py-1 hover:bg-shade">
        <AArrowUp aria-hidden className="size-5" />
        {t('open')}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={8}
          aria-label={t('title')}
          className="z-30 rounded-card border border-line bg-card p-2 shadow-float"
        >
          <p className="px-2 pb-1 text-[0.9rem] text-soft">{t('title')}</p>
          <div role="radiogroup" aria-label={t('title')} className="flex flex-col">
            {textSizes.map((option) => (
              <button
                key={option}
                type="button"
                role="radio"
                aria-checked={size === option}
                onClick={() => set(option)}
                className="flex min-h-10 items-center gap-3 rounded-control px-2 text-left hover:bg-shade"
              >
                <Check aria-hidden className={`size-4 ${size === option ? 'text-kelp' : 'invisible'}`} />
                <span style={{ fontSize: `${option / 100}em` }}>{t('size', { size: option })}</span>
              </button>
            ))}
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
