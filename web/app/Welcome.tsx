import { Link } from 'react-router';
import { CandidateFrame } from '../ui/CandidateFrame';
import { words } from '../words';

const t = words('welcome', {
  title: 'Open your personal link',
  text: 'A test begins with the link in your letter of invitation. Open it in this browser; it leads you through everything.',
  staff: 'Staff of the archive sign in here',
  noCookies: 'This browser refuses cookies',
  noCookiesText:
    'The test needs one cookie of its own to know who you are. Allow cookies for this address, or open it in another browser.',
  lostTitle: 'There is nothing at this address',
  lostText: 'Copy the whole link from your letter of invitation and open it again.',
});

export function Welcome() {
  return (
    <CandidateFrame organisation={null}>
      <div className="mx-auto max-w-[640px]">
        <h1 className="font-serif text-[1.75rem] font-semibold">{t('title')}</h1>
        <p className="my-3">{t('text')}</p>
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
        <h1 className="font-serif text-[1.75rem] font-semibold">{title}</h1>
        <p className="my-3">{text}</p>
      </div>
    </CandidateFrame>
  );
}

export const Lost = () => <Told title={t('lostTitle')} text={t('lostText')} />;
export const NoCookies = () => <Told title={t('noCookies')} text={t('noCookiesText')} />;
