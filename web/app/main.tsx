import { Suspense, type ComponentType } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter, Route, Routes, useLocation } from 'react-router';
import '../desk/serviceWorker';
import { Announcer } from '../ui/Announcer';
import { Guard, pageInstead } from '../ui/Guard';
import { lazily } from '../ui/later';
import '../ui/useNarrow';
import './styles.css';

/** A page that is fetched when its address is opened. */
function page<Name extends string>(load: () => Promise<Record<Name, ComponentType>>, name: Name) {
  const Page = lazily(async () => (await load())[name]);
  return <Page />;
}

/** Set by whoever looks for texts that cannot be translated, or places too narrow for longer ones. */
function chosenLanguage(): string | null {
  try {
    return localStorage.getItem('language');
  } catch {
    // A browser that keeps nothing for anybody.
    return null;
  }
}
if (chosenLanguage() === 'en-XA') (await import('../../core/messages/pseudo')).speakPseudo();

const routes = (
  <Routes>
    <Route path="/" element={page(() => import('./Welcome'), 'Welcome')} />
    <Route path="/i/:link" element={page(() => import('../arrival/ArrivalPage'), 'ArrivalPage')} />
    <Route
      path="/i/:link/rehearsal"
      element={page(() => import('../rehearsal/RehearsalPage'), 'RehearsalPage')}
    />
    <Route
      path="/i/:link/practice"
      element={page(() => import('../rehearsal/RehearsalPage'), 'PracticePage')}
    />
    <Route
      path="/r/:round/rehearsal"
      element={page(() => import('../rehearsal/RehearsalPage'), 'RehearsalPage')}
    />
    <Route path="/p" element={page(() => import('../phone/PhonePage'), 'PhonePage')} />
    <Route path="/i/:link/desk" element={page(() => import('../desk/DeskPage'), 'DeskPage')} />
    <Route
      path="/first-account/:secret"
      element={page(() => import('../accounts/FirstAccount'), 'FirstAccount')}
    />
    <Route path="/sign-in" element={page(() => import('../accounts/SignIn'), 'SignIn')} />
    <Route path="/staff" element={page(() => import('./StaffFrame'), 'StaffFrame')}>
      <Route index element={page(() => import('./StaffHome'), 'StaffHome')} />
      <Route path="rounds" element={page(() => import('../rounds/Rounds'), 'Rounds')} />
      <Route path="rounds/new" element={page(() => import('../rounds/NewRoundPage'), 'NewRoundPage')} />
      <Route path="papers" element={page(() => import('../papers/Papers'), 'Papers')} />
      <Route path="papers/import" element={page(() => import('../papers/ImportPaper'), 'ImportPaper')} />
      <Route
        path="rounds/:id/people"
        element={page(() => import('../rounds/ImportPeople'), 'ImportPeople')}
      />
      <Route path="rounds/:id" element={page(() => import('../rounds/RoundPage'), 'RoundPage')} />
      <Route path="papers/:id" element={page(() => import('../papers/PaperPage'), 'PaperPage')} />
      <Route path="outbox" element={page(() => import('../rounds/OutboxPage'), 'OutboxPage')} />
      <Route path="marking" element={page(() => import('../marking/Piles'), 'Piles')} />
      <Route
        path="marking/:round/:item/:part"
        element={page(() => import('../marking/MarkingTable'), 'MarkingTable')}
      />
      <Route path="results" element={page(() => import('../results/ResultRounds'), 'ResultRounds')} />
      <Route path="results/:id" element={page(() => import('../results/RoundResults'), 'RoundResults')} />
      <Route
        path="results/:round/:invitation"
        element={page(() => import('../results/StaffSheetPage'), 'StaffSheetPage')}
      />
      <Route
        path="review/:round/:invitation/:attempt?"
        element={page(() => import('../review/ReviewPage'), 'ReviewPage')}
      />
      <Route path="watch" element={page(() => import('../watch/WatchRounds'), 'WatchRounds')} />
      <Route path="watch/:id" element={page(() => import('../watch/WatchRoom'), 'WatchRoom')} />
      <Route
        path="rounds/:id/answers/:item?/:part?"
        element={page(() => import('../answers/AnswersPage'), 'AnswersPage')}
      />
      <Route
        path="quality/:round/:item/:part"
        element={page(() => import('../marking/QualityPage'), 'QualityPage')}
      />
      <Route
        path="similar/:round/:item/:part"
        element={page(() => import('../marking/SimilarPage'), 'SimilarPage')}
      />
      <Route
        path="standards/:round/:item/:part/:script"
        element={page(() => import('../marking/StandardPage'), 'StandardPage')}
      />
      <Route path="gaps/:round/:gap" element={page(() => import('../marking/SettlePage'), 'SettlePage')} />
      <Route path="account" element={page(() => import('../accounts/AccountPage'), 'AccountPage')} />
      <Route path="accounts" element={page(() => import('../accounts/StaffAccounts'), 'StaffAccounts')} />
      <Route path="sign-off" element={page(() => import('../marking/SignOff'), 'SignOff')} />
    </Route>
    <Route path="*" element={page(() => import('./Welcome'), 'Lost')} />
  </Routes>
);

/** Who a request comes from is told by a cookie alone. */
const noCookies = !navigator.cookieEnabled && page(() => import('./Welcome'), 'NoCookies');

function Application() {
  const { pathname } = useLocation();
  return (
    <Guard holds={pathname} instead={pageInstead}>
      <Suspense>{noCookies || routes}</Suspense>
      <Announcer />
    </Guard>
  );
}

createRoot(document.getElementById('root')!).render(
  <BrowserRouter>
    <Application />
  </BrowserRouter>,
);
