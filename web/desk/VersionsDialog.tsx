import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { responseOrEmpty } from '../../core/kinds/stored';
import type { ShownPart } from '../../core/papers/candidatePaper';
import type { AnswerVersion } from '../../core/sittings/api';
import { messageOf } from '../api/client';
import { readings } from '../kinds/readings';
import { useReady } from '../ui/ComponentShelf';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { showSecond } from '../ui/showSecond';
import { useDesk } from './DeskContext';
import { t } from './words';

type Found =
  | { readonly state: 'loading' }
  | { readonly state: 'here'; readonly versions: readonly AnswerVersion[] }
  | { readonly state: 'trouble'; readonly message: string };

function useVersions(target: string): Found {
  const help = useDesk((s) => s.help)!;
  const [found, setFound] = useState<Found>({ state: 'loading' });
  useEffect(() => {
    let current = true;
    help.versions(target).then(
      (versions) => current && setFound({ state: 'here', versions }),
      (error: unknown) => current && setFound({ state: 'trouble', message: messageOf(error) }),
    );
    return () => {
      current = false;
    };
  }, [help, target]);
  return found;
}

const nameOf = ({ hold, number }: AnswerVersion) => `${hold}.${number}`;

function Choice({
  version,
  newest,
  chosen,
  onChoose,
}: {
  readonly version: AnswerVersion;
  readonly newest: boolean;
  readonly chosen: boolean;
  readonly onChoose: () => void;
}) {
  const notes = [newest ? t('versionNow') : null, version.elsewhere ? t('versionElsewhere') : null];
  return (
    <li>
      <button
        type="button"
        aria-pressed={chosen}
        onClick={onChoose}
        className={`block min-h-11 w-full rounded-control border px-3 py-1.5 text-left ${chosen ? 'border-kelp bg-kelp-wash' : 'border-transparent hover:bg-shade'}`}
      >
        <span className="block tabular-nums">{t('versionAt', { time: showSecond(version.at) })}</span>
        <span className="block text-[0.84rem] text-soft">{notes.filter(Boolean).join(', ')}</span>
      </button>
    </li>
  );
}

function Body({ part, onDone }: { readonly part: ShownPart; readonly onDone: () => void }) {
  const found = useVersions(part.target);
  const restore = useDesk((s) => s.restore);
  const ready = useReady(readings, part.kind);
  const [name, setName] = useState<string | null>(null);
  if (found.state === 'loading') return <p className="text-soft">{t('versionsLoading')}</p>;
  if (found.state === 'trouble') return <Notice tone="trouble">{found.message}</Notice>;
  const { versions } = found;
  if (versions.length === 0) return <p className="text-soft">{t('versionsNone')}</p>;
  const newest = versions.find((v) => !v.elsewhere);
  const chosen =
    versions.find((v) => nameOf(v) === name) ?? versions.find((v) => v !== newest) ?? versions[0]!;
  return (
    <>
      <p className="pb-3 text-soft">{t('versionsText')}</p>
      <div className="grid min-h-0 gap-4 desk:grid-cols-[13rem_1fr]">
        <ul className="max-h-[30dvh] overflow-y-auto desk:max-h-[50dvh]">
          {versions.map((version) => (
            <Choice
              key={nameOf(version)}
              version={version}
              newest={version === newest}
              chosen={version === chosen}
              onChoose={() => setName(nameOf(version))}
            />
          ))}
        </ul>
        <div
          tabIndex={0}
          role="group"
          aria-label={t('versionAt', { time: showSecond(chosen.at) })}
          className="max-h-[36dvh] overflow-y-auto rounded-control border border-line bg-paper p-4 desk:max-h-[50dvh]"
        >
          {ready &&
            readings.drawGuarded(
              part.kind,
              {
                shown: part.shown,
                right: null,
                credits: [],
                response: responseOrEmpty(part.kind, part.shown, chosen.value),
              },
              String(chosen.at),
            )}
        </div>
      </div>
      <div className="flex flex-wrap justify-end gap-3 pt-4">
        <Dialog.Close asChild>
          <Button className="min-h-11">{t('versionsClose')}</Button>
        </Dialog.Close>
        <Button
          look="first"
          className="min-h-11"
          disabled={chosen === newest}
          onClick={() => {
            restore(part.target, chosen.value, { hold: chosen.hold, number: chosen.number });
            onDone();
          }}
        >
          {t('versionRestore')}
        </Button>
      </div>
    </>
  );
}

/** The versions of an answer over the desk, to look through and to bring one back. */
export function VersionsDialog({
  part,
  onClose,
}: {
  readonly part: ShownPart;
  readonly onClose: () => void;
}) {
  return (
    <Dialog.Root open onOpenChange={onClose}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-30 max-h-[92dvh] w-[min(56rem,calc(100vw-1rem))] -translate-1/2 overflow-y-auto rounded-card border border-line bg-card p-5 shadow-float"
        >
          <Dialog.Title className="pb-2 font-serif text-[1.3rem] font-semibold">
            {t('versionsTitle')}
          </Dialog.Title>
          <Body part={part} onDone={onClose} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
