import { useMemo, useRef } from 'react';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import { countWords } from '../../core/kinds/shared/richText';
import type { MarkingScript, MarkingTableData } from '../../core/marking/api';
import { AnnotationsContext, type Annotations } from '../annotations/annotations';
import { canBeTried, readings, readsWide } from '../kinds/readings';
import { PageSourceContext, pagesOfTask } from '../pages/pageSource';
import { Notice } from '../ui/Notice';
import { say } from '../words';
import { Credits } from './Credits';
import { besideFact, FactButtons, FactPanel, factsOf, type OpenFact } from './Facts';
import { MarginNotes } from './MarginNotes';
import { RunAgain } from './RunAgain';
import type { Marking } from './useMark';
import { t } from './words';

interface Props {
  readonly table: MarkingTableData;
  readonly script: MarkingScript;
  readonly marking: Marking;
  readonly fact: OpenFact | null;
  readonly onFact: (fact: OpenFact | null) => void;
}

/** How long a text is beside its limits, where the kind tells any. */
function lengthOf(script: MarkingScript, text: string): string {
  const { wordsFrom = null, wordsTo = null } = script.shown as {
    wordsFrom?: number | null;
    wordsTo?: number | null;
  };
  const own = candidateKindOf(script.kind).compared?.(script.shown, script.response);
  const count = countWords(own?.text ?? text);
  if (wordsFrom === null && wordsTo === null) return t('words', { count });
  return t('wordsOf', { count, from: wordsFrom ?? 0, to: wordsTo ?? '–' });
}

/** The response at reading width, with the margin beside it. */
export function Response({ table, script, marking, fact, onFact }: Props) {
  const { form, text } = candidateKindOf(script.kind).describe(script.shown, script.response, say);
  const pages = useMemo(() => pagesOfTask(script.task), [script.task]);
  const answer = useRef<HTMLDivElement>(null);
  const { draft, note } = marking;
  const facts = factsOf(table, script);
  const open = fact && facts.includes(fact.name) ? fact : null;
  const annotations: Annotations = {
    active: note,
    onActive: marking.setNote,
    onPlace: marking.addNote,
    notes: draft.notes.map(({ id, anchor }, i) => ({ id, anchor, number: i + 1, side: 0 })),
  };
  return (
    <section aria-label={t('response')} className="relative flex min-w-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-2 px-6 pt-3 pb-2">
        <FactButtons names={facts} open={fact} onOpen={onFact} />
        <p className="ml-auto text-[0.85rem] text-soft">
          {t('script', { code: script.script })}
          {form !== 'program' && text !== '' && ` · ${lengthOf(script, text)}`}
        </p>
      </div>
      <div className={`min-h-0 flex-1 overflow-y-auto pb-6 pl-6 ${besideFact(open, 'wide')}`} tabIndex={-1}>
        {script.practice && (
          <div className="mb-3">
            <Notice tone="plain">{t('practice')}</Notice>
          </div>
        )}
        {script.aside?.answer != null && (
          <div className="mb-3">
            <Notice tone="plain">
              <b>{t('asideAnswer')}</b> {script.aside.answer}
              <span className="block text-soft">
                {t('asideAsked', { note: script.aside.note || t(`aside ${script.aside.reason}`) })}
              </span>
            </Notice>
          </div>
        )}
        <div className="flex items-start gap-4">
          <div
            ref={answer}
            className={`min-w-0 flex-1 ${readsWide(script.kind) ? 'max-w-[92ch]' : 'max-w-[74ch]'}`}
          >
            <AnnotationsContext value={annotations}>
              <div
                className={`rounded-card border border-line bg-card text-[1.05rem] ${readsWide(script.kind) ? 'p-1' : 'px-7 py-5'}`}
              >
                <PageSourceContext value={pages}>
                  {readings.drawGuarded(
                    script.kind,
                    {
                      shown: script.shown,
                      response: script.response,
                      right: script.right,
                      credits: script.credits,
                    },
                    script.script,
                  )}
                </PageSourceContext>
              </div>
              {canBeTried(script.kind) && <RunAgain script={script} />}
              <Credits
                credits={script.credits}
                overrides={draft.overrides}
                onOverride={(component, override) => {
                  const { [component]: _, ...others } = draft.overrides;
                  marking.change({ overrides: override ? { ...others, [component]: override } : others });
                }}
              />
            </AnnotationsContext>
          </div>
          <MarginNotes
            notes={draft.notes}
            components={script.components}
            active={note}
            answer={answer}
            onActive={marking.setNote}
            onChange={(notes) => marking.change({ notes })}
          />
        </div>
      </div>
      {open && (
        <FactPanel
          open={open}
          onOpen={onFact}
          roughWork={script.roughWork}
          prompt={table.prompt}
          source={table.source}
          scheme={table.scheme}
          modelAnswer={table.modelAnswer}
          clarifications={table.clarifications}
        />
      )}
    </section>
  );
}
