import { Center, Loader } from '@mantine/core';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router-dom';
import { useSession } from './api/session';
import { Frame } from './frame/Frame';
import { RecordList } from './records/RecordList';
import { NewRecordPage, StoredRecordPage } from './records/RecordPage';
import { RecordTypes } from './recordTypes/RecordTypes';
import { SignIn } from './signIn/SignIn';

// What few people open, and on few days, is fetched when it is opened.
const account = async () => ({ Component: (await import('./account/Account')).Account });
const auditTrail = async () => ({ Component: (await import('./auditTrail/AuditTrail')).AuditTrail });
const draftingTable = async () => ({ Component: (await import('./draftingTable/DraftingTable')).DraftingTable });

const router = createBrowserRouter([
  {
    element: <Frame />,
    children: [
      { path: '/', element: <RecordTypes /> },
      { path: '/types/:type/rules', lazy: draftingTable },
      { path: '/types/:type/records', element: <RecordList /> },
      { path: '/types/:type/records/new', element: <NewRecordPage /> },
      { path: '/records/:id', element: <StoredRecordPage /> },
      { path: '/account', lazy: account },
      { path: '/audit-trail', lazy: auditTrail },
      { path: '*', element: <Navigate to="/" replace /> },
    ],
  },
]);

export function App() {
  const session = useSession();
  if (session.isPending) {
    return (
      <Center h="100vh">
        <Loader />
      </Center>
    );
  }
  return session.data?.person ? <RouterProvider router={router} /> : <SignIn />;
}
