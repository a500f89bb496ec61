import { Center, Loader } from '@mantine/core';
import { useState } from 'react';
import { createBrowserRouter, RouterProvider } from 'react-router-dom';
import { useSignedIn } from './api/signedIn';
import { Broken } from './frame/Broken';
import { Frame } from './frame/Frame';
import { NotFound } from './frame/NotFound';
import { ListPage } from './list/ListPage';
import { NewRecordPage, StoredRecordPage } from './records/RecordPage';
import { RecordTypes } from './recordTypes/RecordTypes';
import { SignIn } from './signIn/SignIn';
import { Welcome } from './welcome/Welcome';

// What few people open, and on few days, is fetched when it is opened.
const account = async () => ({ Component: (await import('./account/Account')).Account });
const auditTrail = async () => ({ Component: (await import('./auditTrail/AuditTrail')).AuditTrail });
const fields = async () => ({ Component: (await import('./fields/Fields')).Fields });
const forms = async () => ({ Component: (await import('./forms/Forms')).Forms });
const workflow = async () => ({ Component: (await import('./workflow/Workflows')).Workflows });
const exchange = async () => ({ Component: (await import('./exchange/Exchange')).Exchange });
const fromTable = async () => ({ Component: (await import('./tables/FromTable')).FromTable });
const people = async () => ({ Component: (await import('./people/People')).People });
const intake = async () => ({ Component: (await import('./list/IntakePage')).IntakePage });
const progress = async () => ({ Component: (await import('./list/ProgressPage')).ProgressPage });
const reading = async () => ({ Component: (await import('./reading/ReadingPage')).ReadingPage });
const openDraft = async () => ({ Component: (await import('./draftingTable/draft/OpenDraft')).OpenDraft });
const draftingTable = async () => ({ Component: (await import('./draftingTable/DraftingTable')).DraftingTable });

const router = createBrowserRouter([
  {
    element: <Frame />,
    children: [
      {
        // Within the frame: from a page that is broken there is a way to the others.
        errorElement: <Broken />,
        children: [
          { path: '/', element: <RecordTypes /> },
          {
            // One draft for all the sheets.
            lazy: openDraft,
            children: [
              { path: '/types/:type/rules', lazy: draftingTable },
              { path: '/types/:type/forms', lazy: forms },
              { path: '/types/:type/fields', lazy: fields },
              { path: '/types/:type/workflow', lazy: workflow },
              { path: '/types/:type/exchange', lazy: exchange },
            ],
          },
          { path: '/types/:type/records', element: <ListPage /> },
          { path: '/types/:type/progress', lazy: progress },
          { path: '/types/:type/intake', lazy: intake },
          { path: '/types/:type/records/new', element: <NewRecordPage /> },
          { path: '/records/:id', element: <StoredRecordPage /> },
          { path: '/from-table', lazy: fromTable },
          { path: '/account', lazy: account },
          { path: '/audit-trail', lazy: auditTrail },
          { path: '/people', lazy: people },
          { path: '/records/:id/reading', lazy: reading },
          { path: '*', element: <NotFound /> },
        ],
      },
    ],
  },
]);

export function App() {
  const signedIn = useSignedIn();
  const [wasHere, setWasHere] = useState(false);
  if (signedIn.data?.person && !wasHere) {
    setWasHere(true);
  }
  if (signedIn.isPending) {
    return (
      <Center h="100vh">
        <Loader />
      </Center>
    );
  }
  // A link that sets a password is used by whoever has it, signed in or not.
  if (window.location.pathname === '/welcome') {
    return <Welcome />;
  }
  // Whoever was here stays here when the sign-in ends: what was typed is on the page.
  return signedIn.data?.person || wasHere ? <RouterProvider router={router} /> : <SignIn />;
}
