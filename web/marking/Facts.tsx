import { BookOpen, FileCheck, PencilLine, Pin, Scale, X } from 'lucide-react';
import { useEffect, useEffectEvent, type ReactNode } from 'react';
import { PAD, type RoughWork } from '../../core/kit/notes';
import type { Document } from '../../core/documents/document';
import type { Source } from '../../core/papers/paper';
import type { Clarification } from '../../core/marking/api';
import { DocumentView } from '../documents/DocumentView';
import { Strokes } from '../kit/Strokes';
import { Button } from '../ui/Button';
import { t } from './words';

export const factNames = ['question', 'scheme', 'modelAnswer', 'roughWork'] as const;
export type FactName = (typeof factNames)[number];

/** What is open beside the response, and whether it stays there for the next one. */
export interface OpenFact {
  readonly name: FactName;
  readonly pinned: boolean;
}

interface Item {
  readonly prompt: Document;
  readonly source: Source | null;
  readonly scheme: Document;
  readonly modelAnswer: Document | null;
  readonly clarifications?: readonly Pick<Clarification, 'id' | 'text'>[];
}

const ICONS = {
  question: BookOpen,
  scheme: Scale,
  modelAnswer: FileCheck,
  roughWork: PencilLine,
} as const;

/** What there is to open of a response: question and mark scheme always, the rest where it is there. */
export const factsOf = (
  { modelAnswer }: Pick<Item, 'modelAnswer'>,
  { roughWork }: Pick<Facts, 'roughWork'>,
): FactName[] => {
  const there = { modelAnswer, roughWork };
  return factNames.filter((name) => name === 'question' || name === 'scheme' || there[name] !== null);
};

const BESIDE = {
  wide: 'pr-[calc(min(26rem,46%)-13rem)]',
  narrow: 'pr-[calc(min(26rem,46%)-11.5rem)]',
  none: 'pr-[calc(min(26rem,46%)+1.5rem)]',
};

/** What is opened lies over the margin, if there is one; the response moves aside by the rest of its width. */
export const besideFact = (open: OpenFact | null, margin: keyof typeof BESIDE): string =>
  open ? BESIDE[margin] : 'pr-6';

/** Opens question, mark scheme and the rest over the margin: the response stays where it is. */
export function FactButtons({
  names,
  open,
  onOpen,
}: {
  readonly names: readonly FactName[];
  readonly open: OpenFact | null;
  readonly onOpen: (open: OpenFact | null) => void;
}) {
  return names.map((name) => {
    const Icon = ICONS[name];
    const isOpen = open?.name === name;
    return (
      <Button
        key={name}
        aria-expanded={isOpen}
        onClick={() => onOpen(isOpen ? null : { name, pinned: open?.pinned ?? false })}
        className="min-h-9 text-[0.9rem]"
      >
        <Icon aria-hidden className="size-4" /> {t(name)}
      </Button>
    );
  });
}

function RoughWorkView({ of }: { readonly of: RoughWork }) {
  return (
    <>
      <p className="mb-2 text-soft">{t('roughWorkText')}</p>
      <p className="whitespace-pre-wrap">{of.text}</p>
      {of.drawing.length > 0 && (
        <svg
          role="img"
          aria-label={t('roughDrawing')}
          viewBox={`0 0 ${PAD.width} ${PAD.height}`}
          className="mt-2 w-full rounded-control border border-line bg-card"
        >
          <Strokes of={of.drawing} />
        </svg>
      )}
    </>
  );
}

export function QuestionFacts({ prompt, source }: Pick<Item, 'prompt' | 'source'>) {
  return (
    <>
      <DocumentView document={prompt} className="mb-3 font-semibold" />
      {source?.tabs.map((tab) => (
        <div key={tab.title}>
          <h3 className="mb-1 font-semibold text-soft">{tab.title}</h3>
          <DocumentView document={tab.body} className="font-serif" />
        </div>
      ))}
    </>
  );
}

export function SchemeFacts({ scheme, clarifications = [] }: Pick<Item, 'scheme' | 'clarifications'>) {
  return (
    <>
      <DocumentView document={scheme} />
      {clarifications.length > 0 && (
        <section aria-label={t('clarifications')} className="mt-3 border-t border-line pt-2">
          <h3 className="font-semibold">{t('clarifications')}</h3>
          <ul className="list-disc pl-5">
            {clarifications.map(({ id, text }) => (
              <li key={id} className="whitespace-pre-wrap">
                {text}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

interface Facts extends Item {
  readonly roughWork: RoughWork | null;
}

interface Props extends Facts {
  readonly open: OpenFact;
  readonly onOpen: (open: OpenFact | null) => void;
}

export function FactPanel({ open, onOpen, roughWork, ...item }: Props) {
  const close = useEffectEvent((event: KeyboardEvent) => event.key === 'Escape' && onOpen(null));
  useEffect(() => {
    const listen = (event: KeyboardEvent) => void close(event);
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
  const contents: Record<FactName, ReactNode> = {
    question: <QuestionFacts {...item} />,
    scheme: <SchemeFacts {...item} />,
    modelAnswer: item.modelAnswer && <DocumentView document={item.modelAnswer} />,
    roughWork: roughWork && <RoughWorkView of={roughWork} />,
  };
  return (
    <section
      aria-label={t(open.name)}
      className="absolute top-14 right-3 bottom-3 z-10 flex w-[min(26rem,46%)] flex-col rounded-card border border-line bg-shade shadow-float"
    >
      <header className="flex items-center gap-1 border-b border-line px-3 py-1">
        <h2 className="flex-1 font-semibold">{t(open.name)}</h2>
        <Button
          look={open.pinned ? 'plain' : 'quiet'}
          aria-pressed={open.pinned}
          aria-label={t('pin')}
          onClick={() => onOpen({ ...open, pinned: !open.pinned })}
          className="px-2!"
        >
          <Pin aria-hidden className="size-4" />
        </Button>
        <Button look="quiet" aria-label={t('closeFact')} onClick={() => onOpen(null)} className="px-2!">
          <X aria-hidden className="size-4" />
        </Button>
      </header>
      <div
        tabIndex={0}
        role="group"
        aria-label={t(open.name)}
        className="min-h-0 flex-1 overflow-y-auto px-4 py-3"
      >
        {contents[open.name]}
      </div>
    </section>
  );
}
