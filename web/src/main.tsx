import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { ApiError } from './api/client';
import './app.css';
import { Cupboard } from './cupboard/Cupboard';
import { Drawer } from './drawer/Drawer';
import { Broken } from './frame/Broken';
import { NotFound } from './frame/NotFound';
import { ProjectFrame } from './frame/ProjectFrame';
import { Shelf } from './shelf/Shelf';
import { BagStage } from './stages/bag/BagStage';
import { BuyStage } from './stages/buy/BuyStage';
import { ClothStage } from './stages/cloth/ClothStage';
import { CutStage } from './stages/cut/CutStage';
import { LayStage } from './stages/lay/LayStage';
import { MakeStage } from './stages/make/MakeStage';
import { PiecesStage } from './stages/pieces/PiecesStage';

// What the server refuses it refuses again: only what could not be reached is asked for once more.
const again = (count: number, error: Error) =>
  count < 1 && !(error instanceof ApiError && error.status >= 400 && error.status < 500);

const queries = new QueryClient({
  defaultOptions: { queries: { staleTime: 5_000, retry: again, refetchOnWindowFocus: true } },
});

const router = createBrowserRouter([
  { path: '/', element: <Shelf />, errorElement: <Broken /> },
  { path: '/cupboard', element: <Cupboard />, errorElement: <Broken /> },
  { path: '/drawer', element: <Drawer />, errorElement: <Broken /> },
  {
    path: '/projects/:id',
    element: <ProjectFrame />,
    errorElement: <Broken />,
    children: [
      { index: true, element: <Navigate to="bag" replace /> },
      { path: 'bag', element: <BagStage /> },
      { path: 'pieces', element: <PiecesStage /> },
      { path: 'cloth', element: <ClothStage /> },
      { path: 'lay', element: <LayStage /> },
      { path: 'buy', element: <BuyStage /> },
      { path: 'cut', element: <CutStage /> },
      { path: 'make', element: <MakeStage /> },
    ],
  },
  { path: '*', element: <NotFound /> },
]);

const root = document.getElementById('root');
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </StrictMode>,
  );
}
