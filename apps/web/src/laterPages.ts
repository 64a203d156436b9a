import { later } from './ui/later.tsx';

const OPENING = 'Opening the page';

/** The pages of a display by their addresses: each comes when it is opened, the board and the solver are heavy. */
export const LATER_PAGES = {
  brief: later(() => import('./pages/brief/BriefPage.tsx').then((file) => file.BriefPage), OPENING),
  survey: later(() => import('./pages/survey/SurveyPage.tsx').then((file) => file.SurveyPage), OPENING),
  plan: later(() => import('./pages/plan/PlanPage.tsx').then((file) => file.PlanPage), OPENING),
  cut: later(() => import('./pages/cut/CutPage.tsx').then((file) => file.CutPage), OPENING),
  sight: later(() => import('./pages/sight/SightPage.tsx').then((file) => file.SightPage), OPENING),
  stockpile: later(
    () => import('./pages/stockpile/StockpilePage.tsx').then((file) => file.StockpilePage),
    OPENING,
  ),
  progress: later(
    () => import('./pages/progress/ProgressPage.tsx').then((file) => file.ProgressPage),
    OPENING,
  ),
  transport: later(
    () => import('./pages/transport/TransportPage.tsx').then((file) => file.TransportPage),
    OPENING,
  ),
  bench: later(() => import('./pages/bench/BenchPage.tsx').then((file) => file.BenchPage), OPENING),
  crew: later(() => import('./pages/crew/CrewPage.tsx').then((file) => file.CrewPage), OPENING),
};
