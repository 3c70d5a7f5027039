import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import './app.css';
import { Cupboard } from './cupboard/Cupboard';
import { NotFound } from './frame/NotFound';
import { ProjectFrame } from './frame/ProjectFrame';
import { Shelf } from './shelf/Shelf';
import { BagStage } from './stages/bag/BagStage';
import { BuyStage } from './stages/buy/BuyStage';
import { ClothStage } from './stages/cloth/ClothStage';
import { CutStage } from './stages/cut/CutStage';
import { LayStage } from './stages/lay/LayStage';
import { PiecesStage } from './stages/pieces/PiecesStage';

const queries = new QueryClient({
  defaultOptions: { queries: { staleTime: 5_000, retry: 1, refetchOnWindowFocus: true } },
});

const router = createBrowserRouter([
  { path: '/', element: <Shelf /> },
  { path: '/cupboard', element: <Cupboard /> },
  {
    path: '/projects/:id',
    element: <ProjectFrame />,
    children: [
      { index: true, element: <Navigate to="bag" replace /> },
      { path: 'bag', element: <BagStage /> },
      { path: 'pieces', element: <PiecesStage /> },
      { path: 'cloth', element: <ClothStage /> },
      { path: 'lay', element: <LayStage /> },
      { path: 'buy', element: <BuyStage /> },
      { path: 'cut', element: <CutStage /> },
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
