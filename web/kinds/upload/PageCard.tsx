import { ArrowLeft, ArrowRight, ImageUp, RotateCw, X } from 'lucide-react';
import { useId, useState, type ReactNode } from 'react';
import type { Page } from '../../../core/files/pages';
import type { PageBox } from '../../pages/pageBox';
import { LargePage } from '../../pages/LargePage';
import { PagePicture } from '../../pages/PagePicture';
import { StandingSign } from '../../pages/StandingSign';
import { useLoadedPage } from '../../pages/pageSource';
import { t } from './words';

export interface PageActs {
  /** Null where it cannot move that way. */
  readonly earlier: (() => void) | null;
  readonly later: (() => void) | null;
  /** Null for documents, which are upright. */
  readonly turn: (() => void) | null;
  readonly replace: (file: File) => void;
  readonly remove: () => void;
}

interface Props {
  readonly box: PageBox;
  readonly page: Page;
  readonly number: number;
  readonly acts: PageActs;
}

function Act({
  name,
  number,
  onPress,
  children,
}: {
  readonly name: 'earlier' | 'later' | 'turn' | 'remove';
  readonly number: number;
  readonly onPress: (() => void) | null;
  readonly children: ReactNode;
}) {
  const label = t(name, { number });
  return (
    <button
      type="button"
      title={label}
      aria-label={label}
      // Stays where it is, and in focus, at either end.
      aria-disabled={onPress === null}
      onClick={() => onPress?.()}
      className="grid min-h-9 place-items-center rounded-control text-soft hover:bg-shade hover:text-ink aria-disabled:opacity-35 pointer-coarse:min-h-11"
    >
      {children}
    </button>
  );
}

/** Another file in the place of this page. */
function Replace({ number, onFile }: { readonly number: number; readonly onFile: (file: File) => void }) {
  const label = t('replace', { number });
  return (
    <label
      title={label}
      className="relative grid min-h-9 cursor-pointer place-items-center rounded-control text-soft focus-within:outline-3 focus-within:outline-kelp hover:bg-shade hover:text-ink pointer-coarse:min-h-11"
    >
      <ImageUp aria-hidden className="size-[1.1rem]" />
      <input
        type="file"
        aria-label={label}
        accept={ACCEPTED}
        className="absolute size-px opacity-0"
        onChange={({ target }) => {
          if (target.files?.[0]) onFile(target.files[0]);
          target.value = '';
        }}
      />
    </label>
  );
}

export const ACCEPTED = 'image/*,.heic,.heif,application/pdf';

/** One page of the answer: its picture, how far it is, and what can be done with it. */
export function PageCard({ box, page, number, acts }: Props) {
  const [large, setLarge] = useState(false);
  const standing = box.standing(page);
  const loaded = useLoadedPage(box, page, standing.at === 'here');
  const nameId = useId();
  const picture = loaded.is === 'here' ? loaded : null;
  return (
    <li aria-labelledby={nameId} className="rounded-lg border border-line bg-card p-1.5">
      <button
        type="button"
        disabled={!picture}
        aria-label={picture ? t('enlarge', { number }) : undefined}
        onClick={() => setLarge(true)}
        className="block aspect-3/4 w-full overflow-hidden rounded-control border border-line bg-shade"
      >
        {picture ? (
          <PagePicture page={page} loaded={picture} description="" />
        ) : (
          <span className="grid h-full place-items-center px-2 text-center text-[0.85rem] text-soft">
            {t(loaded.is === 'loading' ? 'loading' : loaded.is === 'trouble' ? 'trouble' : 'elsewhere')}
          </span>
        )}
      </button>
      <p className="flex flex-wrap justify-between gap-x-2 px-1 pt-1.5 text-[0.85rem]">
        <b id={nameId}>{t('page', { number })}</b>
        <StandingSign standing={standing} say={(at, percent) => t(at, { percent })} />
      </p>
      <div className="grid grid-cols-5 pointer-coarse:grid-cols-3">
        <Act name="earlier" number={number} onPress={acts.earlier}>
          <ArrowLeft aria-hidden className="size-[1.1rem]" />
        </Act>
        <Act name="later" number={number} onPress={acts.later}>
          <ArrowRight aria-hidden className="size-[1.1rem]" />
        </Act>
        {acts.turn && (
          <Act name="turn" number={number} onPress={acts.turn}>
            <RotateCw aria-hidden className="size-[1.1rem]" />
          </Act>
        )}
        <Replace number={number} onFile={acts.replace} />
        <Act name="remove" number={number} onPress={acts.remove}>
          <X aria-hidden className="size-[1.1rem]" />
        </Act>
      </div>
      {large && picture && (
        <LargePage
          page={page}
          loaded={picture}
          title={t('page', { number })}
          onClose={() => setLarge(false)}
        />
      )}
    </li>
  );
}
