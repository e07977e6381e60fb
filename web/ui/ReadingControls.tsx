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

interface Props {
  readonly brief?: boolean;
}

export const TextControl = ({ brief = false }: Props) => (
  <ToolPanel icon={AArrowUp} name={t('text')} title={t('textTitle')} brief={brief} className={PANEL}>
    <TextChoices />
  </ToolPanel>
);

export const ColourControl = ({ brief = false }: Props) => (
  <ToolPanel icon={Contrast} name={t('colours')} title={t('coloursTitle')} brief={brief} className={PANEL}>
    <ColourChoices />
  </ToolPanel>
);

/** Size and spacing of the text, and the colours: everybody has them everywhere. Small panels that are no mode. */
export const ReadingControls = (props: Props) => (
  <>
    <TextControl {...props} />
    <ColourControl {...props} />
  </>
);
