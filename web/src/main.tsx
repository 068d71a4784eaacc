import "@fontsource-variable/newsreader/index.css";
import "@fontsource-variable/newsreader/wght-italic.css";
import "@fontsource-variable/source-sans-3/index.css";
import "./theme.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { lazy, StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, Link, RouterProvider } from "react-router";
import { Desk } from "./pages/Desk";
import { Frame } from "./pages/Frame";
import { text } from "./text";
import { FallenPage } from "./ui/Boundary";

// the desk comes first; the rest is fetched when it is asked for
const CommissionPage = lazy(() =>
  import("./pages/Workbench").then((page) => ({ default: page.CommissionPage })),
);
const People = lazy(() => import("./people/People").then((page) => ({ default: page.People })));
const PersonPage = lazy(() => import("./people/PersonPage").then((page) => ({ default: page.PersonPage })));
const Records = lazy(() => import("./records/Records").then((page) => ({ default: page.Records })));
const Practice = lazy(() => import("./practice/Practice").then((page) => ({ default: page.Practice })));
const Words = lazy(() => import("./pages/Words").then((page) => ({ default: page.Words })));
const Shelf = lazy(() => import("./cloth/Shelf").then((page) => ({ default: page.Shelf })));
const Calendar = lazy(() => import("./days/Calendar").then((page) => ({ default: page.Calendar })));
const NewDress = lazy(() => import("./pages/NewDress").then((page) => ({ default: page.NewDress })));

function Nowhere() {
  return (
    <main className="p-10">
      <p className="mb-4 text-xl">{text.away}</p>
      <Link to="/" className="underline">
        {text.backToDesk}
      </Link>
    </main>
  );
}

const router = createBrowserRouter([
  {
    element: <Frame />,
    errorElement: <FallenPage />,
    children: [
      { path: "/", element: <Desk />, errorElement: <FallenPage /> },
      { path: "/new", element: <NewDress />, errorElement: <FallenPage /> },
      { path: "/people", element: <People />, errorElement: <FallenPage /> },
      { path: "/people/:id", element: <PersonPage />, errorElement: <FallenPage /> },
      { path: "/cloths", element: <Shelf />, errorElement: <FallenPage /> },
      { path: "/calendar", element: <Calendar />, errorElement: <FallenPage /> },
      { path: "/records", element: <Records />, errorElement: <FallenPage /> },
      { path: "/practice", element: <Practice />, errorElement: <FallenPage /> },
      { path: "/words", element: <Words />, errorElement: <FallenPage /> },
      { path: "/commission/:id", element: <CommissionPage />, errorElement: <FallenPage /> },
      { path: "*", element: <Nowhere /> },
    ],
  },
]);

createRoot(document.getElementById("root") as HTMLElement).render(
  <StrictMode>
    <QueryClientProvider client={new QueryClient()}>
      <Suspense fallback={<p className="p-10 text-pencil">{text.loading}</p>}>
        <RouterProvider router={router} />
      </Suspense>
    </QueryClientProvider>
  </StrictMode>,
);
