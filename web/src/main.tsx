import "./app.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, Navigate, RouterProvider } from "react-router";
import { ask } from "./queries/queries";
import { dress } from "./device/device";
import { restWhatIsNew } from "./device/fresh";
import { Door } from "./frame/Door";
import { Notices } from "./parts/notices";
import { Fallen } from "./counter/Fallen";
import { Home } from "./counter/Home";
import { Shell } from "./counter/Shell";
import { register } from "./offline/register";

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

/** Asks for what the open page shows, while its station is still on its way. */
function askFirst() {
  void client.prefetchQuery(ask.counter());
  void client.prefetchQuery(ask.day());
  switch (window.location.pathname) {
    case "/canner":
    case "/jars":
      return client.prefetchQuery(ask.loads());
    case "/crates":
      return client.prefetchQuery(ask.lots());
    case "/kettle":
      return client.prefetchQuery(ask.cooks());
    case "/plan/day":
      return client.prefetchQuery(ask.batches());
    case "/towel":
      return client.prefetchQuery(ask.towel());
  }
}

void askFirst();

const router = createBrowserRouter([
  { path: "/labels", lazy: async () => ({ Component: (await import("./stations/labels/view")).LabelsPage }) },
  {
    element: <Shell />,
    errorElement: <Fallen />,
    children: [
      { path: "/", element: <Home /> },
      {
        path: "/start",
        lazy: async () => ({ Component: (await import("./stations/start/view")).StartStation }),
      },
      {
        path: "/crates",
        lazy: async () => ({ Component: (await import("./stations/crates/view")).CratesStation }),
      },
      {
        path: "/plan",
        lazy: async () => ({ Component: (await import("./stations/plan/view")).PlanStation }),
      },
      {
        path: "/plan/compare",
        lazy: async () => ({ Component: (await import("./stations/plan/CompareStation")).CompareStation }),
      },
      {
        path: "/plan/split",
        lazy: async () => ({ Component: (await import("./stations/plan/SplitStation")).SplitStation }),
      },
      {
        path: "/plan/day",
        lazy: async () => ({ Component: (await import("./stations/plan/DayStation")).DayStation }),
      },
      {
        path: "/plan/recipes",
        lazy: async () => ({ Component: (await import("./stations/recipe/BookStation")).BookStation }),
      },
      {
        path: "/plan/ph",
        lazy: async () => ({ Component: (await import("./stations/recipe/PhStation")).PhStation }),
      },
      {
        path: "/plan/recipes/:id",
        lazy: async () => ({ Component: (await import("./stations/recipe/RecipeStation")).RecipeStation }),
      },
      {
        path: "/batches/:id",
        lazy: async () => ({
          Component: (await import("./stations/plan/ChecklistStation")).ChecklistStation,
        }),
      },
      {
        path: "/kettle",
        lazy: async () => ({ Component: (await import("./stations/kettle/view")).KettleStation }),
      },
      {
        path: "/jars",
        lazy: async () => ({ Component: (await import("./stations/jars/view")).JarsStation }),
      },
      {
        path: "/canner",
        lazy: async () => ({ Component: (await import("./stations/canner/view")).CannerStation }),
      },
      {
        path: "/towel",
        lazy: async () => ({ Component: (await import("./stations/towel/view")).TowelStation }),
      },
      {
        path: "/shelf",
        lazy: async () => ({ Component: (await import("./stations/shelf/view")).ShelfStation }),
      },
      {
        path: "/jar/:id",
        lazy: async () => ({ Component: (await import("./stations/shelf/JarStation")).JarStation }),
      },
      {
        path: "/batches/:id/record",
        lazy: async () => ({ Component: (await import("./stations/shelf/RecordStation")).RecordStation }),
      },
      {
        path: "/books",
        lazy: async () => ({ Component: (await import("./stations/shelf/DayBooksStation")).DayBooksStation }),
      },
      {
        path: "/books/:day",
        lazy: async () => ({ Component: (await import("./stations/shelf/DayBooksStation")).DayBooksStation }),
      },
      {
        path: "/almanac",
        lazy: async () => ({ Component: (await import("./stations/almanac/view")).AlmanacStation }),
      },
      {
        path: "/kitchen",
        lazy: async () => ({ Component: (await import("./stations/kitchen/view")).KitchenStation }),
      },
      {
        path: "/kitchen/canners",
        lazy: async () => ({ Component: (await import("./stations/kitchen/pages")).CannersPage }),
      },
      {
        path: "/kitchen/kettles",
        lazy: async () => ({ Component: (await import("./stations/kitchen/pages")).KettlesPage }),
      },
      {
        path: "/kitchen/cupboard",
        lazy: async () => ({ Component: (await import("./stations/kitchen/pages")).CupboardPage }),
      },
      {
        path: "/kitchen/devices",
        lazy: async () => ({ Component: (await import("./stations/kitchen/pages")).DevicesPage }),
      },
      {
        path: "/kitchen/safe",
        lazy: async () => ({ Component: (await import("./stations/kitchen/pages")).SafePage }),
      },
      { path: "*", element: <Navigate to="/crates" replace /> },
    ],
  },
]);

dress();
restWhatIsNew();
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
