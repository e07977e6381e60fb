import { Link } from 'react-router';
import { CandidateFrame } from '../ui/CandidateFrame';
import { words } from '../words';

const t = words('welcome', {
  title: 'Open your personal link',
  text: 'Your test starts with the personal link in your invitation e-mail. Open the link in this browser and follow the steps.',
  staff: 'Staff sign in here',
  noCookies: 'This browser blocks cookies',
  noCookiesText:
    'The test needs one cookie to know who you are. Allow cookies for this website, or open the link in another browser.',
  lostTitle: 'There is no page at this web address',
  lostText: 'Copy the whole link from your invitation e-mail and open it again.',
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
