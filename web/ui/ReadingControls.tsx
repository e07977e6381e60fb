import { AArrowUp, Contrast } from 'lucide-react';
import { later } from './later';
import { words } from '../words';
import { ToolPanel } from './ToolPanel';

const t = words('reading', {
  text: 'Text',
  textTitle: 'Size and spacing of the text',
  colours: 'Colours',
  coloursTitle: 'Colours of the page',
});

const TextChoices = later(async () => (await import('./ReadingChoices')).TextChoices);
const ColourChoices = later(async () => (await import('./ReadingChoices')).ColourChoices);

const PANEL = 'max-h-[80dvh] overflow-y-auto p-2';

/** Size and spacing of the text, and the colours: everybody has them everywhere. Small panels that are no mode. */
export const ReadingControls = ({ brief = false }: { readonly brief?: boolean }) => (
  <>
    <ToolPanel icon={AArrowUp} name={t('text')} title={t('textTitle')} brief={brief} className={PANEL}>
      <TextChoices />
    </ToolPanel>
    <ToolPanel icon={Contrast} name={t('colours')} title={t('coloursTitle')} brief={brief} className={PANEL}>
      <ColourChoices />
    </ToolPanel>
  </>
);
