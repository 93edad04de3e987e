import "./app.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, Navigate, RouterProvider } from "react-router";
import { dress } from "./device/device";
import { Door } from "./connection/Door";
import { Notices } from "./counter/notices";
import { Fallen } from "./counter/Fallen";
import { Home } from "./counter/Home";
import { Shell } from "./counter/Shell";
import { register } from "./offline/register";
import { AlmanacStation } from "./stations/almanac/view";
import { CannerStation } from "./stations/canner/view";
import { CratesStation } from "./stations/crates/view";
import { JarsStation } from "./stations/jars/view";
import { KettleStation } from "./stations/kettle/view";
import { CannersPage, CupboardPage, DevicesPage, KettlesPage, SafePage } from "./stations/kitchen/pages";
import { KitchenStation } from "./stations/kitchen/view";
import { ChecklistStation } from "./stations/plan/ChecklistStation";
import { CompareStation } from "./stations/plan/CompareStation";
import { DayStation } from "./stations/plan/DayStation";
import { PlanStation } from "./stations/plan/view";
import { SplitStation } from "./stations/plan/SplitStation";
import { BookStation } from "./stations/recipe/BookStation";
import { PhStation } from "./stations/recipe/PhStation";
import { RecipeStation } from "./stations/recipe/RecipeStation";
import { LabelsPage } from "./stations/labels/view";
import { JarStation } from "./stations/shelf/JarStation";
import { DayBooksStation } from "./stations/shelf/DayBooksStation";
import { RecordStation } from "./stations/shelf/RecordStation";
import { ShelfStation } from "./stations/shelf/view";
import { StartStation } from "./stations/start/view";
import { TowelStation } from "./stations/towel/view";

const client = new QueryClient({
  defaultOptions: {
    // Bodega may run on this very machine: that the world outside is gone says nothing about it.
    queries: {
      networkMode: "always",
      retry: 2,
      refetchInterval: 30_000,
      refetchIntervalInBackground: true,
      staleTime: 5_000,
    },
    mutations: { networkMode: "always" },
  },
});

const router = createBrowserRouter([
  { path: "/labels", element: <LabelsPage /> },
  {
    element: <Shell />,
    errorElement: <Fallen />,
    children: [
      { path: "/", element: <Home /> },
      { path: "/start", element: <StartStation /> },
      { path: "/crates", element: <CratesStation /> },
      { path: "/plan", element: <PlanStation /> },
      { path: "/plan/compare", element: <CompareStation /> },
      { path: "/plan/split", element: <SplitStation /> },
      { path: "/plan/day", element: <DayStation /> },
      { path: "/plan/recipes", element: <BookStation /> },
      { path: "/plan/ph", element: <PhStation /> },
      { path: "/plan/recipes/:id", element: <RecipeStation /> },
      { path: "/batches/:id", element: <ChecklistStation /> },
      { path: "/kettle", element: <KettleStation /> },
      { path: "/jars", element: <JarsStation /> },
      { path: "/canner", element: <CannerStation /> },
      { path: "/towel", element: <TowelStation /> },
      { path: "/shelf", element: <ShelfStation /> },
      { path: "/jar/:id", element: <JarStation /> },
      { path: "/batches/:id/record", element: <RecordStation /> },
      { path: "/books", element: <DayBooksStation /> },
      { path: "/books/:day", element: <DayBooksStation /> },
      { path: "/almanac", element: <AlmanacStation /> },
      { path: "/kitchen", element: <KitchenStation /> },
      { path: "/kitchen/canners", element: <CannersPage /> },
      { path: "/kitchen/kettles", element: <KettlesPage /> },
      { path: "/kitchen/cupboard", element: <CupboardPage /> },
      { path: "/kitchen/devices", element: <DevicesPage /> },
      { path: "/kitchen/safe", element: <SafePage /> },
      { path: "*", element: <Navigate to="/crates" replace /> },
    ],
  },
]);

dress();
if (import.meta.env.PROD) void register();

const root = document.getElementById("root");
if (root === null) throw new Error("index.html has no root element");
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <Notices>
        <Door>
          <RouterProvider router={router} />
        </Door>
      </Notices>
    </QueryClientProvider>
  </StrictMode>,
);
