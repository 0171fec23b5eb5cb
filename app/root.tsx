import "@fontsource-variable/archivo/wdth.css";
import type { ReactNode } from "react";
import { I18nProvider, RouterProvider } from "react-aria-components";
import {
  isRouteErrorResponse,
  Links,
  Meta,
  Outlet,
  Scripts,
  ScrollRestoration,
  useHref,
  useNavigate,
  useRouteError,
} from "react-router";
import styled from "styled-components";
import { GlobalStyle } from "~/ui/global";
import { themeScript } from "~/ui/theme";
import { ToastRegion } from "~/ui/toast";

/** What React Aria would write into the page when something is first pressed; the policy of content knows it so. */
const PRESSABLE = "react-aria-pressable-style";
const pressable = "@layer { [data-react-aria-pressable] { touch-action: pan-x pan-y pinch-zoom; } }";

export function Layout({ children }: { children: ReactNode }) {
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <meta name="color-scheme" content="light dark" />
        <link rel="icon" href="/keel.svg" type="image/svg+xml" />
        <script dangerouslySetInnerHTML={{ __html: themeScript }} />
        <style id={PRESSABLE} dangerouslySetInnerHTML={{ __html: pressable }} />
        <Meta />
        <Links />
      </head>
      <body>
        {children}
        <ScrollRestoration />
        <Scripts />
      </body>
    </html>
  );
}

export default function Root() {
  const navigate = useNavigate();
  return (
    <I18nProvider locale="en-GB">
      <RouterProvider navigate={(path) => void navigate(path)} useHref={useHref}>
        <GlobalStyle />
        <Outlet />
        <ToastRegion />
      </RouterProvider>
    </I18nProvider>
  );
}

const Plain = styled.main`
  max-width: 560px;
  margin: 12vh auto;
  padding: 0 24px;
`;

/** Shown until the browser has read its own store; the same whatever the address. */
export function HydrateFallback() {
  return (
    <>
      <GlobalStyle />
      <title>Iron Keel</title>
      <Plain aria-busy="true">
        <p>Reading your jobs…</p>
      </Plain>
    </>
  );
}

export function ErrorBoundary() {
  const error = useRouteError();
  const [title, text] = isRouteErrorResponse(error)
    ? [
        error.status === 404 ? "Not here" : `Fault ${error.status}`,
        String(error.data || "There is nothing at this address."),
      ]
    : ["This page stopped", error instanceof Error ? error.message : "An unexpected fault."];
  return (
    <>
      <GlobalStyle />
      <title>{`${title} · Iron Keel`}</title>
      <Plain>
        <h1>{title}</h1>
        <p>{text}</p>
        <p>
          Your jobs are kept in this browser and are not touched. <a href="/">Back to the jobs</a>
        </p>
      </Plain>
    </>
  );
}
