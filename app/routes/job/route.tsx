import { useState } from "react";
import { Outlet, useLocation } from "react-router";
import styled from "styled-components";
import { JobProvider } from "~/state/job";
import { storageFault } from "~/store/faults";
import { loadJob } from "~/store/jobs";
import { say } from "~/ui/toast";
import type { Route } from "./+types/route";
import { Header } from "./Header";
import { KeelStrip } from "./KeelStrip";
import { Rail } from "./Rail";
import { Side } from "./Side";
import { ShortcutsProvider } from "./shortcuts";

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  let loaded: Awaited<ReturnType<typeof loadJob>>;
  try {
    loaded = await loadJob(params.jobId);
  } catch (error) {
    throw new Response(storageFault(error), { status: 503 });
  }
  if (!loaded)
    throw new Response(
      "This job is not in this browser. It may have been deleted, or set aside because it could not be read: the job list says.",
      { status: 404 },
    );
  return loaded;
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <p style={{ padding: 24 }}>Reading the job…</p>;
}

const Grid = styled.div`
  display: grid; height: 100dvh; overflow: hidden;
  grid-template: "head head head" 48px "rail main side" minmax(0, 1fr) "keel keel keel" auto / 112px minmax(0, 1fr) 320px;
  @media (max-width: 1000px) {
    grid-template: "head head" 48px "rail main" minmax(0, 1fr) "keel keel" auto / 56px minmax(0, 1fr);
  }
  @media (max-width: 600px) {
    height: auto; min-height: 100dvh; overflow: visible;
    grid-template: "head" auto "rail" auto "main" auto "keel" auto / minmax(0, 1fr);
  }
  @media print { display: block; height: auto; overflow: visible; }
`;
const Main = styled.main`
  grid-area: main; min-width: 0; min-height: 0; overflow: auto; position: relative; background: var(--ground); outline: none; contain: layout paint style;
  @media print { contain: none; }
`;

export default function JobRoute({ loaderData }: Route.ComponentProps) {
  const { pathname } = useLocation();
  // The sheet is open at one place; going to another closes it.
  const [sheetAt, setSheetAt] = useState<string | null>(null);
  const sheet = sheetAt === pathname;
  const setSheet = (open: boolean) => setSheetAt(open ? pathname : null);
  return (
    <JobProvider key={loaderData.job.id} loaded={loaderData} say={say}>
      <ShortcutsProvider>
        <Grid>
          <Header onFindings={() => setSheet(!sheet)} sheetOpen={sheet} />
          <Rail />
          <Main id="place" tabIndex={-1}>
            <Outlet context={() => setSheet(true)} />
          </Main>
          <Side isSheetOpen={sheet} onClose={() => setSheet(false)} />
          <KeelStrip />
        </Grid>
      </ShortcutsProvider>
    </JobProvider>
  );
}
