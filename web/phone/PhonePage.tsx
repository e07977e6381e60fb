import { Camera, Images } from 'lucide-react';
import { useCallback, useEffect, useState, type ReactNode } from 'react';
import type { Page } from '../../core/files/pages';
import type { PhoneView } from '../../core/files/phone';
import { ApiProblem, messageOf, post } from '../api/client';
import { LargePage } from '../pages/LargePage';
import type { PageBox } from '../pages/pageBox';
import { pageOfFile, PageProblem, type Crop } from '../pages/pageFile';
import { PagePicture } from '../pages/PagePicture';
import { StandingSign } from '../pages/StandingSign';
import { useLoadedPage } from '../pages/pageSource';
import { useBox } from '../pages/useBox';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { useAction } from '../ui/useAsync';
import { LookAtPage } from './LookAtPage';
import { pagesOfPhone, phoneView } from './phoneLine';
import { t } from './words';
import { PageHeading } from '../ui/PageHeading';

const ASK_MS = 5000;
const MINUTE_MS = 60_000;

const secretHere = () => window.location.hash.slice(1);

type Joined =
  | { readonly is: 'joining' }
  | { readonly is: 'here'; readonly view: PhoneView; readonly box: PageBox }
  | { readonly is: 'ended'; readonly box: PageBox | null }
  | { readonly is: 'trouble'; readonly message: string };

const statesOf = ({ pages }: PhoneView) =>
  Object.fromEntries(pages.flatMap(({ hash, state }) => (state ? [[hash, state]] : [])));

/** Asks again and again: the desk may end it, and other phones may send as well. */
function useJoined(secret: string): Joined {
  const [joined, setJoined] = useState<Joined>({ is: 'joining' });
  useEffect(() => {
    let current = true;
    let box: PageBox | null = null;
    let timer: ReturnType<typeof setTimeout>;
    const ask = async () => {
      try {
        const view = await phoneView(secret);
        box ??= await pagesOfPhone(secret);
        box.takeStates(statesOf(view));
        if (current) setJoined({ is: 'here', view, box });
      } catch (error) {
        const gone = error instanceof ApiProblem && error.status >= 400 && error.status < 500;
        if (current && gone) return setJoined({ is: 'ended', box });
        // Without a network what is here goes on: it is sent when there is one.
        if (current && !box) setJoined({ is: 'trouble', message: messageOf(error) });
      }
      timer = setTimeout(() => void ask(), ASK_MS);
    };
    void ask();
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [secret]);
  return joined;
}

function Card({
  box,
  page,
  number,
}: {
  readonly box: PageBox;
  readonly page: Page;
  readonly number: number;
}) {
  const [large, setLarge] = useState(false);
  const loaded = useLoadedPage(box, page, null);
  const picture = loaded.is === 'here' ? loaded : null;
  return (
    <li className="rounded-lg border border-line bg-card p-1.5">
      <button
        type="button"
        disabled={!picture}
        aria-label={t('page', { number })}
        onClick={() => setLarge(true)}
        className="block aspect-3/4 w-full overflow-hidden rounded-control border border-line bg-shade"
      >
        {picture && <PagePicture page={page} loaded={picture} description="" />}
      </button>
      <p role="status" className="flex flex-wrap justify-between gap-x-2 px-1 pt-1.5 text-[0.85rem]">
        <b>{t('page', { number })}</b>
        <StandingSign standing={box.standing(page)} say={(at, percent) => t(at, { percent })} />
      </p>
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

function Taking({
  label,
  children,
  capture,
  onFiles,
  look,
}: {
  readonly label: string;
  readonly children: ReactNode;
  readonly capture: boolean;
  readonly onFiles: (files: readonly File[]) => void;
  readonly look: string;
}) {
  return (
    <label
      className={`relative flex min-h-12 cursor-pointer items-center justify-center gap-2.5 rounded-control border font-semibold focus-within:outline-3 focus-within:outline-offset-2 focus-within:outline-kelp ${look}`}
    >
      {children}
      <input
        type="file"
        aria-label={label}
        className="absolute size-px opacity-0"
        {...(capture
          ? { accept: 'image/*', capture: 'environment' as const }
          : { accept: 'image/*,.heic,.heif,application/pdf', multiple: true })}
        onChange={({ target }) => {
          onFiles([...(target.files ?? [])]);
          target.value = '';
        }}
      />
    </label>
  );
}

const TOLD = {
  empty: 'trouble',
  unreadable: 'trouble',
  noPage: 'noPage',
  heic: 'heic',
  pdfTooLarge: 'pdfTooLarge',
  tooLarge: 'tooLarge',
} as const;

/** All pages of the phone in their order: what the server has heard of, and what has yet to reach it. */
function allPages({ pages }: PhoneView, box: PageBox): readonly Page[] {
  const known = new Set(pages.map((page) => page.hash));
  return [...pages, ...box.pages.filter((page) => !known.has(page.hash))];
}

function Sending({ view, box }: { readonly view: PhoneView; readonly box: PageBox }) {
  useBox(box);
  const [taken, setTaken] = useState<Blob | null>(null);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const pages = allPages(view, box);
  const number = pages.length + 1;
  const add = useCallback(
    async (file: Blob, crop?: Crop) => {
      setBusy(true);
      setTrouble(null);
      setTaken(null);
      try {
        if (!(await box.keep(await pageOfFile(file, crop)))) setTrouble(t('notKept'));
      } catch (error) {
        setTrouble(t(error instanceof PageProblem ? TOLD[error.refusal] : 'trouble'));
      }
      setBusy(false);
    },
    [box],
  );
  const addAll = async (files: readonly File[]) => {
    for (const file of files) await add(file);
  };
  if (taken)
    return (
      <LookAtPage
        picture={taken}
        number={number}
        onSend={(picture, crop) => void add(picture, crop)}
        onAgain={() => setTaken(null)}
      />
    );
  return (
    <>
      <main className="min-h-0 flex-1 overflow-y-auto px-4 py-4">
        <PageHeading className="font-serif text-[1.5rem] leading-tight font-semibold">
          {t('title')}
        </PageHeading>
        <p className="mb-3 text-[0.95rem] text-soft">{t('help')}</p>
        {trouble && <Notice tone="trouble">{trouble}</Notice>}
        <ol aria-label={t('pages')} className="grid grid-cols-2 gap-2.5">
          {pages.map((page, i) => (
            <Card key={page.hash} box={box} page={page} number={i + 1} />
          ))}
        </ol>
        {busy && <p role="status">{t('adding')}</p>}
      </main>
      <footer className="flex gap-2.5 border-t border-line bg-card px-4 py-3">
        <Taking
          label={t('choose')}
          capture={false}
          look="w-12 border-edge bg-card"
          onFiles={(files) => void addAll(files)}
        >
          <Images aria-hidden className="size-5" />
        </Taking>
        <Taking
          label={t('photograph', { number })}
          capture
          look="flex-1 border-kelp bg-kelp text-on"
          onFiles={([file]) => file && setTaken(file)}
        >
          <Camera aria-hidden className="size-5" /> {t('photograph', { number })}
        </Taking>
      </footer>
    </>
  );
}

function Ended({ box }: { readonly box: PageBox | null }) {
  return (
    <main className="space-y-3 p-4">
      <PageHeading className="font-serif text-[1.5rem] leading-tight font-semibold">
        {t('endedTitle')}
      </PageHeading>
      {box && <StillSending box={box} />}
      <p>{t('ended')}</p>
    </main>
  );
}

function StillSending({ box }: { readonly box: PageBox }) {
  useBox(box);
  return box.unsent > 0 ? <Notice tone="care">{t('endedSending', { count: box.unsent })}</Notice> : null;
}

/** Where the address was typed: the code that stands beside the QR code brings the phone to its part. */
function TypeCode({ onSecret }: { readonly onSecret: (secret: string) => void }) {
  const [code, setCode] = useState('');
  const { busy, trouble, run } = useAction();
  const join = () =>
    run(async () => {
      const { secret } = await post<{ secret: string }>('/phone/join', { code });
      // As if the QR code had been read: the page can be loaded again.
      window.location.hash = secret;
      onSecret(secret);
    });
  return (
    <main className="mx-auto max-w-[26rem] space-y-3 p-4">
      <PageHeading className="font-serif text-[1.5rem] font-semibold">{t('title')}</PageHeading>
      <p>{t('codeText')}</p>
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          void join();
        }}
      >
        <label className="block">
          {t('code')}
          <input
            required
            minLength={4}
            maxLength={20}
            autoComplete="off"
            autoCapitalize="characters"
            spellCheck={false}
            value={code}
            onChange={(event) => setCode(event.target.value)}
            className="mt-1 block min-h-11 w-full rounded-control border border-edge bg-card px-3 font-mono uppercase"
          />
        </label>
        {trouble && <Notice tone="trouble">{trouble}</Notice>}
        <Button type="submit" look="first" className="min-h-11" disabled={busy}>
          {t('codeGo')}
        </Button>
      </form>
    </main>
  );
}

/** What a phone shows that was joined by a code at the desk: it photographs pages for one part, and nothing else. */
export function PhonePage() {
  const [secret, setSecret] = useState(secretHere);
  return secret === '' ? <TypeCode onSecret={setSecret} /> : <JoinedPhone secret={secret} />;
}

function JoinedPhone({ secret }: { readonly secret: string }) {
  const joined = useJoined(secret);
  if (joined.is === 'joining') return <main className="p-4 text-soft">{t('joining')}</main>;
  if (joined.is === 'trouble')
    return (
      <main className="p-4">
        <Notice tone="trouble">{joined.message}</Notice>
      </main>
    );
  if (joined.is === 'ended') return <Ended box={joined.box} />;
  const { view, box } = joined;
  const minutes = Math.max(1, Math.ceil((view.until - view.now) / MINUTE_MS));
  return (
    <div className="flex h-dvh flex-col">
      <header className="flex flex-wrap items-baseline justify-between gap-x-3 border-b border-line bg-shade px-4 py-3">
        <b>
          {view.part === null
            ? t('question', { number: view.question })
            : t('questionPart', { number: view.question, part: view.part })}
        </b>
        <span className="text-[0.92rem] text-soft">{t('openFor', { count: minutes })}</span>
      </header>
      <Sending view={view} box={box} />
    </div>
  );
}
