import { Suspense, useEffect, useState } from 'react';
import { later } from '../ui/later';
import { Files } from '../media/fileSource';
import { RecordingsOf } from '../media/recordings';
import { Notice } from '../ui/Notice';
import { useNarrow } from '../ui/useNarrow';
import { coverOf } from './coverOf';
import { Notices, SaidNotices } from './Notices';
import { useDesk } from './DeskContext';
import { useDeskKeys } from './useDeskKeys';
import { Foot } from './Foot';
import { QuestionView } from './QuestionView';
import { Rail } from './Rail';
import { Strip } from './Strip';
import { t } from './words';

const OpenAids = later(async () => (await import('./behind')).OpenAids);
const Covered = later(async () => (await import('./Covered')).Covered);
const TurnDialog = later(async () => (await import('./behind')).TurnDialog);
const AIDS_BEHIND_MS = 600;
const LastLook = later(async () => (await import('./behind')).LastLook);

/** Where there is no foot. */
const AtFoot = () => (
  <div className="pointer-events-none fixed inset-x-3 bottom-3 z-20">
    <Notices />
  </div>
);

/** The desk as it is drawn, whatever stands behind it. */
export function DeskFrame() {
  const files = useDesk((s) => s.files);
  const recordings = useDesk((s) => s.recordings);
  return (
    <Files value={files}>
      <RecordingsOf value={recordings}>
        <Framed />
      </RecordingsOf>
    </Files>
  );
}

/** Open aids and highlights: after the first question, unless one was left open. */
function Aids() {
  const wanted = useDesk((s) => Object.values(s.desk.aids).some((one) => one.open === true));
  const [behind, setBehind] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setBehind(true), AIDS_BEHIND_MS);
    return () => clearTimeout(timer);
  }, []);
  if (!wanted && !behind) return null;
  return (
    <Suspense>
      <OpenAids />
    </Suspense>
  );
}

/** What has to be agreed to before a section or a question is left for good. */
function Asked() {
  const asked = useDesk((s) => s.asked);
  if (!asked) return null;
  return (
    <Suspense>
      <TurnDialog asked={asked} />
    </Suspense>
  );
}

/** The question with all that belongs to it, or the last look. */
function InView() {
  const narrow = useNarrow();
  const view = useDesk((s) => s.view);
  const over = useDesk((s) => s.leftMs <= 0);
  if (view === 'last look')
    return (
      <Suspense>
        <LastLook />
        <AtFoot />
      </Suspense>
    );
  return (
    <div
      data-frame
      className={`grid ${narrow ? 'h-[calc(100dvh-var(--sheet,0px))] grid-cols-[minmax(0,1fr)] grid-rows-[auto_1fr]' : 'h-dvh grid-cols-[216px_minmax(0,1fr)]'}`}
    >
      {narrow ? (
        <Strip />
      ) : (
        <aside className="min-h-0 border-r border-line bg-shade">
          <Rail />
        </aside>
      )}
      <main data-desk className="flex min-h-0 min-w-0 flex-col">
        {over && (
          <div className="px-7 pt-3">
            <Notice tone="care">{t('timeUp')}</Notice>
          </div>
        )}
        <QuestionView />
        <Foot />
      </main>
      <Aids />
    </div>
  );
}

/** What is said over every view of the desk stays where it is when the view changes: nothing is said twice. */
function Framed() {
  useDeskKeys();
  const recordings = useDesk((s) => s.recordings);
  const cover = useDesk(coverOf);
  useEffect(() => {
    // What is heard stops with the clock, and goes on with it.
    if (cover) recordings.hold();
    else recordings.goOn();
  }, [cover, recordings]);
  return (
    <>
      <SaidNotices />
      {cover ? (
        <Suspense>
          <Covered why={cover} />
          <AtFoot />
        </Suspense>
      ) : (
        <>
          <InView />
          <Asked />
        </>
      )}
    </>
  );
}
