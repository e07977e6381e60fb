import { AArrowUp, Check } from 'lucide-react';
import { words } from '../words';
import { textSizes, useTextSize } from './textSize';
import { ToolPanel } from './ToolPanel';

const t = words('textSize', { open: 'Text', title: 'Size of the text', size: '{{size}} %' });

/** “Text”: a small panel that closes with Esc and is no mode. */
export function TextSizeControl({ brief = false }: { brief?: boolean }) {
  const { size, set } = useTextSize();
  return (
    <ToolPanel icon={AArrowUp} name={t('open')} title={t('title')} brief={brief} className="p-2">
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
    </ToolPanel>
  );
}
