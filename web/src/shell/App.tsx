// Routes, one lazily loaded folder per stage.
import { GlobalStyles, StyledEngineProvider } from '@mui/material';
import { useQueryClient } from '@tanstack/react-query';
import { ThemeProvider } from '@mui/material/styles';
import { lazy, Suspense, useEffect, useMemo, type ComponentType, useRef } from 'react';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { Door } from '../door/Door';
import { MemberUnits } from '../door/MemberUnits';
import { useFollow } from '../door/useFollow';
import { themeOf } from '../theme/theme';
import { variables } from '../theme/tokens';
import { Fault, StageFault } from './Fault';
import { followViews } from './focus';
import { useSettings } from '../ui/settings';
import { Undo } from './Undo';

/** Stages fetched when the page has nothing else to do, so that opening one never needs the server. */
const later: (() => Promise<unknown>)[] = [];
function stage<P>(load: () => Promise<{ default: ComponentType<P> }>) {
  later.push(load);
  return lazy(load);
}
const whenIdle = (f: () => void) =>
  'requestIdleCallback' in window ? window.requestIdleCallback(f) : setTimeout(f, 1500);
export function fetchStages(): void {
  whenIdle(() => later.forEach((load) => void load().catch(() => {})));
}

// The frame of a job is no part of the first load: the list of jobs needs none of it.
const JobFrame = stage(() => import('./JobFrame'));
const Jobs = stage(() => import('../stages/jobs/Jobs'));
const Arrive = stage(() => import('../stages/arrive/Arrive'));
const CornerFile = stage(() => import('../stages/arrive/CornerFile'));
const NewArrival = stage(() => import('../stages/arrive/NewArrival'));
const Read = stage(() => import('../stages/read/Read'));
const PaperForm = stage(() => import('../stages/read/PaperForm'));
const PlanStage = stage(() => import('../stages/plan/PlanStage'));
const Compare = stage(() => import('../stages/plan/Compare'));
const Parts = stage(() => import('../stages/parts/Parts'));
const Wear = stage(() => import('../stages/wear/Wear'));
const SetStage = stage(() => import('../stages/set/SetStage'));
const ProveStage = stage(() => import('../stages/prove/ProveStage'));
const ReturnStage = stage(() => import('../stages/return/ReturnStage'));
const Jig = stage(() => import('../stages/jig/Jig'));
const Memory = stage(() => import('../stages/memory/Memory'));
const OrderList = stage(() => import('../stages/plan/OrderList'));
const StoryStage = stage(() => import('../stages/story/StoryStage'));
const FirstRun = stage(() => import('../stages/first/FirstRun'));
const People = stage(() => import('../stages/people/People'));
const Handover = stage(() => import('../stages/handover/Handover'));

const router = createBrowserRouter([
  { path: '/', element: <Jobs />, errorElement: <Fault /> },
  { path: '/parts', element: <Parts />, errorElement: <Fault /> },
  { path: '/memory', element: <Memory />, errorElement: <Fault /> },
  { path: '/jig', element: <Jig />, errorElement: <Fault /> },
  { path: '/people', element: <People />, errorElement: <Fault /> },
  { path: '/first-run', element: <FirstRun />, errorElement: <Fault /> },
  { path: '/new', element: <NewArrival />, errorElement: <Fault /> },
  {
    path: '/job/:id',
    element: <JobFrame />,
    errorElement: <Fault />,
    children: [
      { index: true, element: <Navigate to="plan" replace /> },
      { path: 'arrive', element: <Arrive />, errorElement: <StageFault /> },
      { path: 'corner-file', element: <CornerFile />, errorElement: <StageFault /> },
      { path: 'read', element: <Read />, errorElement: <StageFault /> },
      { path: 'read-form', element: <PaperForm />, errorElement: <StageFault /> },
      { path: 'plan', element: <PlanStage />, errorElement: <StageFault /> },
      { path: 'compare', element: <Compare />, errorElement: <StageFault /> },
      { path: 'wear', element: <Wear />, errorElement: <StageFault /> },
      { path: 'set', element: <SetStage />, errorElement: <StageFault /> },
      { path: 'prove', element: <ProveStage />, errorElement: <StageFault /> },
      { path: 'handover', element: <Handover />, errorElement: <StageFault /> },
      { path: 'order', element: <OrderList />, errorElement: <StageFault /> },
      { path: 'story', element: <StoryStage />, errorElement: <StageFault /> },
      { path: 'return', element: <ReturnStage />, errorElement: <StageFault /> },
    ],
  },
  { path: '*', element: <Fault /> },
]);

export function App() {
  const { theme, units } = useSettings();
  const queries = useQueryClient();
  const told = Object.values(units).join();
  const spoken = useRef(told);
  useEffect(() => {
    if (spoken.current === told) return;
    spoken.current = told;
    // Every sentence on the screen follows the switch.
    void queries.invalidateQueries();
  }, [queries, told]);
  const mui = useMemo(() => themeOf(theme), [theme]);
  useFollow();
  useEffect(fetchStages, []);
  useEffect(() => followViews(router), []);
  return (
    // Our style sheets come after MUI's own: a drawing's layout is not undone by a control's.
    <StyledEngineProvider injectFirst>
      <ThemeProvider theme={mui}>
        <GlobalStyles styles={variables} />
        <Suspense fallback={<p style={{ padding: 24 }}>Opening…</p>}>
          <Door>
            <RouterProvider router={router} />
          </Door>
        </Suspense>
        <MemberUnits />
        <Undo />
      </ThemeProvider>
    </StyledEngineProvider>
  );
}
