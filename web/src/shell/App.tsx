// Routes, one lazily loaded folder per stage.
import { ThemeProvider } from '@mui/material/styles';
import { lazy, Suspense, useMemo } from 'react';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { themeOf } from '../theme/theme';
import { Fault } from './Fault';
import { JobFrame } from './JobFrame';
import { useSettings } from './settings';

const Jobs = lazy(() => import('../stages/jobs/Jobs'));
const Arrive = lazy(() => import('../stages/arrive/Arrive'));
const CornerFile = lazy(() => import('../stages/arrive/CornerFile'));
const NewArrival = lazy(() => import('../stages/arrive/NewArrival'));
const Read = lazy(() => import('../stages/read/Read'));
const PaperForm = lazy(() => import('../stages/read/PaperForm'));
const PlanStage = lazy(() => import('../stages/plan/PlanStage'));
const Compare = lazy(() => import('../stages/plan/Compare'));
const Parts = lazy(() => import('../stages/parts/Parts'));
const Wear = lazy(() => import('../stages/wear/Wear'));
const SetStage = lazy(() => import('../stages/set/SetStage'));
const Later = lazy(() => import('../stages/later/Later'));

const router = createBrowserRouter([
  { path: '/', element: <Jobs />, errorElement: <Fault /> },
  { path: '/parts', element: <Parts />, errorElement: <Fault /> },
  { path: '/new', element: <NewArrival />, errorElement: <Fault /> },
  {
    path: '/job/:id',
    element: <JobFrame />,
    errorElement: <Fault />,
    children: [
      { index: true, element: <Navigate to="plan" replace /> },
      { path: 'arrive', element: <Arrive /> },
      { path: 'corner-file', element: <CornerFile /> },
      { path: 'read', element: <Read /> },
      { path: 'read-form', element: <PaperForm /> },
      { path: 'plan', element: <PlanStage /> },
      { path: 'compare', element: <Compare /> },
      { path: 'wear', element: <Wear /> },
      { path: 'set', element: <SetStage /> },
      { path: 'prove', element: <Later stage="prove" /> },
      { path: 'return', element: <Later stage="return" /> },
    ],
  },
  { path: '*', element: <Fault /> },
]);

export function App() {
  const { theme } = useSettings();
  const mui = useMemo(() => themeOf(theme), [theme]);
  return (
    <ThemeProvider theme={mui}>
      <Suspense fallback={<p style={{ padding: 24 }}>Opening…</p>}>
        <RouterProvider router={router} />
      </Suspense>
    </ThemeProvider>
  );
}
