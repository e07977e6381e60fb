import { Suspense, useState } from 'react';
import { Link } from 'react-router';
import type { DemoPage } from '../../core/demo/api';
import { get, post } from '../api/client';
import { Button } from '../ui/Button';
import { lazily } from '../ui/later';
import { useAction, useLoaded } from '../ui/useAsync';
import { CandidateFrame } from '../ui/CandidateFrame';
import { words } from '../words';
import { PageHeading } from '../ui/PageHeading';

const DemoPeople = lazily(async () => (await import('../demo/DemoPeople')).DemoPeople);

const t = words('welcome', {
  title: 'Open your personal link',
  text: 'Your test starts with the personal link in your invitation e-mail. Open the link in this browser and follow the steps.',
  lostLink: 'You cannot find your link?',
  lostLinkText:
    'Type the e-mail address to which you were invited. You get an additional link, at most three in one day. Earlier links still work.',
  lostLinkEmail: 'E-mail address',
  lostLinkSend: 'Send me a link',
  lostLinkAsked:
    'If you are invited under this address, a link is on its way. If nothing arrives within a few minutes, ask the people who invited you.',
  staff: 'Staff sign in here',
  noCookies: 'This browser blocks cookies',
  noCookiesText:
    'The test needs one cookie to know who you are. Allow cookies for this website, or open the link in another browser.',
  lostTitle: 'There is no page at this web address',
  lostText: 'Copy the whole link from your invitation e-mail and open it again.',
});

/** An additional link, for somebody who cannot find the e-mail any more. The reply is the same for every address. */
function LostLink() {
  const [email, setEmail] = useState('');
  const [asked, setAsked] = useState(false);
  const { busy, trouble, run } = useAction();
  const ask = () =>
    run(async () => {
      await post('/lost-link', { email });
      setAsked(true);
    });
  return (
    <form
      className="my-6 rounded-card border border-line bg-card px-5 py-4"
      onSubmit={(event) => {
        event.preventDefault();
        void ask();
      }}
    >
      <h2 className="font-semibold">{t('lostLink')}</h2>
      <p className="mb-3 text-[0.92rem] text-soft">{t('lostLinkText')}</p>
      <div className="flex flex-wrap items-end gap-3">
        <label className="min-w-0 flex-[1_1_14rem]">
          <span className="block text-[0.9rem]">{t('lostLinkEmail')}</span>
          <input
            type="email"
            required
            autoComplete="email"
            maxLength={254}
            value={email}
            onChange={(event) => setEmail(event.target.value)}
            className="min-h-11 w-full rounded-control border border-edge bg-card px-3"
          />
        </label>
        <Button type="submit" className="min-h-11" disabled={busy}>
          {t('lostLinkSend')}
        </Button>
      </div>
      <p role="status" className="mt-2 text-[0.92rem]">
        {trouble ?? (asked ? t('lostLinkAsked') : '')}
      </p>
    </form>
  );
}

interface Front {
  readonly organisation: string;
  readonly demo: DemoPage | null;
}

const loadFront = async (): Promise<Front> => {
  const [{ organisation }, demo] = await Promise.all([
    get<{ organisation: string }>('/config'),
    get<DemoPage | null>('/demo'),
  ]);
  return { organisation, demo };
};

export function Welcome() {
  const [loaded] = useLoaded('front', loadFront);
  const front = loaded.state === 'here' ? loaded.value : null;
  if (front?.demo)
    return (
      <CandidateFrame organisation={front.organisation}>
        <Suspense>
          <DemoPeople page={front.demo} />
        </Suspense>
      </CandidateFrame>
    );
  return (
    <CandidateFrame organisation={front?.organisation ?? null}>
      <div className="mx-auto max-w-[640px]">
        <PageHeading className="font-serif text-[1.75rem] font-semibold">{t('title')}</PageHeading>
        <p className="my-3">{t('text')}</p>
        <LostLink />
        <Link to="/sign-in" className="text-slate underline underline-offset-4">
          {t('staff')}
        </Link>
      </div>
    </CandidateFrame>
  );
}

function Told({ title, text }: { readonly title: string; readonly text: string }) {
  return (
    <CandidateFrame organisation={null}>
      <div className="mx-auto max-w-[640px]">
        <PageHeading className="font-serif text-[1.75rem] font-semibold">{title}</PageHeading>
        <p className="my-3">{text}</p>
      </div>
    </CandidateFrame>
  );
}

export const Lost = () => <Told title={t('lostTitle')} text={t('lostText')} />;
export const NoCookies = () => <Told title={t('noCookies')} text={t('noCookiesText')} />;
