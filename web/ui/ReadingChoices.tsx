import { Check } from 'lucide-react';
import { RadioGroup } from 'radix-ui';
import { words } from '../words';
import { colourSchemes, lineSpacings, textSizes, useReading } from './reading';

const t = words('readingChoices', {
  size: 'Size of the text',
  sizeIs: '{{size}} %',
  spacing: 'Line spacing',
  'spacing 100': 'usual',
  'spacing 120': 'wide',
  'spacing 140': 'very wide',
  coloursTitle: 'Colours of the page',
  daylight: 'Daylight',
  dusk: 'Dusk',
  'black-on-white': 'Black on white',
  'black-on-cream': 'Black on cream',
  'white-on-black': 'White on black',
  'cream-on-navy': 'Cream on navy',
});

interface ChoicesProps<T> {
  readonly title: string;
  readonly options: readonly T[];
  readonly chosen: T;
  readonly onChoose: (option: T) => void;
  readonly face: (option: T) => React.ReactNode;
}

function Choices<T extends string | number>({ title, options, chosen, onChoose, face }: ChoicesProps<T>) {
  return (
    <>
      <p className="px-2 pb-1 text-[0.9rem] text-soft">{title}</p>
      <RadioGroup.Root
        aria-label={title}
        value={String(chosen)}
        onValueChange={(value) => onChoose(options.find((option) => String(option) === value)!)}
        className="flex flex-col pb-1"
      >
        {options.map((option) => (
          <RadioGroup.Item
            key={option}
            value={String(option)}
            className="flex min-h-9 items-center gap-3 rounded-control px-2 text-left hover:bg-shade"
          >
            <Check
              aria-hidden
              className={`size-4 flex-none ${chosen === option ? 'text-kelp' : 'invisible'}`}
            />
            {face(option)}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
    </>
  );
}

/** Size of the text and space between its lines. */
export function TextChoices() {
  const { size, spacing, set } = useReading();
  return (
    <>
      <Choices
        title={t('size')}
        options={textSizes}
        chosen={size}
        onChoose={(option) => set({ size: option })}
        face={(option) => (
          <span style={{ fontSize: `${option / 100}em` }}>{t('sizeIs', { size: option })}</span>
        )}
      />
      <Choices
        title={t('spacing')}
        options={lineSpacings}
        chosen={spacing}
        onChoose={(option) => set({ spacing: option })}
        face={(option) => t(`spacing ${option}`)}
      />
    </>
  );
}

/** The colour schemes, each as it looks. */
export function ColourChoices() {
  const { colours, set } = useReading();
  return (
    <Choices
      title={t('coloursTitle')}
      options={colourSchemes}
      chosen={colours}
      onChoose={(option) => set({ colours: option })}
      face={(option) => (
        <>
          <span
            aria-hidden
            data-colours={option}
            className="grid h-6 w-9 place-items-center rounded border border-edge bg-paper text-[0.85rem] font-semibold text-ink"
          >
            Aa
          </span>
          {t(option)}
        </>
      )}
    />
  );
}
