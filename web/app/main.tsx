import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider, type RouteObject } from 'react-router';
import './styles.css';

const page = (load: () => Promise<React.ComponentType>): Pick<RouteObject, 'lazy'> => ({
  lazy: async () => ({ Component: await load() }),
});

const router = createBrowserRouter([
  { path: '/', ...page(async () => (await import('./Welcome')).Welcome) },
  { path: '/i/:link', ...page(async () => (await import('../arrival/ArrivalPage')).ArrivalPage) },
  { path: '/i/:link/desk', ...page(async () => (await import('../desk/DeskPage')).DeskPage) },
  { path: '/sign-in', ...page(async () => (await import('../people/SignIn')).SignIn) },
  {
    path: '/staff',
    ...page(async () => (await import('./StaffFrame')).StaffFrame),
    children: [
      { index: true, ...page(async () => (await import('./StaffHome')).StaffHome) },
      { path: 'rounds', ...page(async () => (await import('../rounds/Rounds')).Rounds) },
      { path: 'rounds/:id', ...page(async () => (await import('../rounds/RoundPage')).RoundPage) },
      { path: 'papers/:id', ...page(async () => (await import('../rounds/PaperPage')).PaperPage) },
      { path: 'outbox', ...page(async () => (await import('../rounds/OutboxPage')).OutboxPage) },
      { path: 'marking', ...page(async () => (await import('../marking/Piles')).Piles) },
      {
        path: 'marking/:round/:item/:part',
        ...page(async () => (await import('../marking/MarkingTable')).MarkingTable),
      },
      { path: 'sign-off', ...page(async () => (await import('../marking/SignOff')).SignOff) },
    ],
  },
  { path: '*', ...page(async () => (await import('./Welcome')).Lost) },
]);

createRoot(document.getElementById('root')!).render(<RouterProvider router={router} />);
