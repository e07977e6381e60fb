import { useMemo, useRef, useState } from 'react';
import type { LeadScript } from '../../core/marking/api';
import { AnnotationsContext, SIDE_LINES, type Annotations } from '../annotations/annotations';
import { readings } from '../kinds/readings';
import { Files, staffFiles } from '../media/fileSource';
import { RecordingsOf } from '../media/recordings';
import { useRecordings } from '../media/useRecordings';
import { PageSourceContext, pagesOfTask } from '../pages/pageSource';
import { besideFact, FactButtons, FactPanel, factsOf, type OpenFact } from './Facts';
import { useNotePlaces } from './MarginNotes';
import { nameOf } from './RubricPanel';
import { t } from './words';

/** A script in a lead's hands: the response with both sets of notes on one text. */
export function LeadScriptView({ data }: { readonly data: LeadScript }) {
  const recordings = useRecordings(staffFiles);
  const pages = useMemo(() => pagesOfTask(data.task), [data.task]);
  const [fact, setFact] = useState<OpenFact | null>(null);
  const [active, setActive] = useState<string | null>(null);
  const answer = useRef<HTMLDivElement>(null);
  const column = useRef<HTMLUListElement>(null);
  const notes = data.sides.flatMap((side, i) =>
    side.notes.map((note) => ({
      ...note,
      id: `${i} ${note.id}`,
      side: i === 0 ? (0 as const) : (1 as const),
    })),
  );
  const { tops, height } = useNotePlaces(
    notes.map(({ id }) => id),
    answer,
    column,
  );
  const annotations: Annotations = {
    active,
    onActive: setActive,
    notes: notes.map(({ id, anchor, side }, i) => ({ id, anchor, side, number: i + 1 })),
  };
  return (
    <section aria-label={t('response')} className="relative flex min-w-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-2 px-6 pt-3 pb-2">
        <FactButtons names={factsOf(data, { roughWork: null })} open={fact} onOpen={setFact} />
      </div>
      <div
        className={`min-h-0 flex-1 overflow-y-auto pb-6 pl-6 ${besideFact(fact, notes.length > 0 ? 'narrow' : 'none')}`}
      >
        <div className="flex items-start gap-4">
          <div
            ref={answer}
            className="min-w-0 max-w-[74ch] flex-1 rounded-card border border-line bg-card px-7 py-5 text-[1.05rem]"
          >
            <Files value={staffFiles}>
              <RecordingsOf value={recordings}>
                <AnnotationsContext value={annotations}>
                  <PageSourceContext value={pages}>
                    {readings.drawGuarded(data.kind, {
                      shown: data.shown,
                      response: data.response,
                      right: null,
                      credits: [],
                    })}
                  </PageSourceContext>
                </AnnotationsContext>
              </RecordingsOf>
            </Files>
          </div>
          {notes.length > 0 && (
            <ul
              ref={column}
              aria-label={t('notes')}
              className="relative w-[11.5rem] flex-none"
              style={{ minHeight: height }}
            >
              {notes.map((note, i) => (
                <li
                  key={note.id}
                  data-card={note.id}
                  style={{ top: tops[note.id] ?? 0 }}
                  className={`absolute inset-x-0 border-l-[3px] pl-2.5 text-[0.88rem] leading-5 ${SIDE_LINES[note.side]}`}
                >
                  <b>
                    {i + 1} {t(note.side === 0 ? 'firstSide' : 'secondSide')}
                  </b>{' '}
                  {note.component !== null && (
                    <span className="text-soft">
                      {data.components.filter(({ key }) => key === note.component).map(nameOf)}:{' '}
                    </span>
                  )}
                  {note.text}
                </li>
              ))}
            </ul>
          )}
        </div>
      </div>
      {fact && (
        <FactPanel
          open={fact}
          onOpen={setFact}
          roughWork={null}
          prompt={data.prompt}
          source={data.source}
          scheme={data.scheme}
          modelAnswer={data.modelAnswer}
        />
      )}
    </section>
  );
}
