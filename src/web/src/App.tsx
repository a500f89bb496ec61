import { Center, Loader } from '@mantine/core';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router-dom';
import { Account } from './account/Account';
import { useSession } from './api/session';
import { AuditTrail } from './auditTrail/AuditTrail';
import { DraftingTable } from './draftingTable/DraftingTable';
import { Frame } from './frame/Frame';
import { RecordList } from './records/RecordList';
import { NewRecordPage, StoredRecordPage } from './records/RecordPage';
import { RecordTypes } from './recordTypes/RecordTypes';
import { SignIn } from './signIn/SignIn';

const router = createBrowserRouter([
  {
    element: <Frame />,
    children: [
      { path: '/', element: <RecordTypes /> },
      { path: '/types/:type/rules', element: <DraftingTable /> },
      { path: '/types/:type/records', element: <RecordList /> },
      { path: '/types/:type/records/new', element: <NewRecordPage /> },
      { path: '/records/:id', element: <StoredRecordPage /> },
      { path: '/account', element: <Account /> },
      { path: '/audit-trail', element: <AuditTrail /> },
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
