import { type ReactNode, useEffect, useState } from "react";
import { Link, Outlet, useLocation } from "react-router";
import styled from "styled-components";
import type { Job } from "~/core/plan/types";
import { placeNames } from "~/messages/outcomes";
import { closedText, storageFault } from "~/messages/storage";
import { saveHeld } from "~/state/files";
import { JobProvider, useJob } from "~/state/job";
import { PAGE } from "~/state/page";
import { openBook, type ReadBook } from "~/store/book";
import { answerInTime } from "~/store/faults";
import { type JobState, openJob } from "~/store/jobs";
import { Button } from "~/ui/button";
import { say } from "~/ui/toast";
import type { Route } from "./+types/route";
import { Header } from "./Header";
import { KeelStrip } from "./KeelStrip";
import { leave } from "./left";
import { Rail } from "./Rail";
import { Side } from "./Side";
import { ShortcutsProvider } from "./shortcuts";

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  let loaded: JobState;
  let book: ReadBook;
  try {
    loaded = await answerInTime(openJob(params.jobId, { id: PAGE }));
    book = await answerInTime(openBook(params.jobId));
  } catch (error) {
    throw new Response(storageFault(error), { status: 503 });
  }
  if (loaded.status !== "open") throw new Response(closedText[loaded.status], { status: 404 });
  return { loaded, book };
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <p style={{ padding: 24 }}>Reading the job…</p>;
}

const Grid = styled.div`
  display: grid; height: calc(100dvh / var(--zoom, 1)); overflow: hidden;
  grid-template: "head head head" 48px "rail main side" minmax(0, 1fr) "keel keel keel" auto / 112px minmax(0, 1fr) 320px;
  @media (max-width: 1000px) {
    grid-template: "head head" 48px "rail main" minmax(0, 1fr) "keel keel" auto / 56px minmax(0, 1fr);
  }
  /* Low, as a wide screen is at twice its size: the place has the screen to itself, the Keel stands under it. */
  @media (min-width: 601px) and (max-height: 540px) {
    height: auto; overflow: visible; grid-template-rows: 48px calc(100dvh / var(--zoom, 1) - 48px) auto;
  }
  @media (max-width: 600px) {
    height: auto; min-height: calc(100dvh / var(--zoom, 1)); overflow: visible;
    grid-template: "head" auto "rail" auto "main" 1fr "keel" auto / minmax(0, 1fr);
  }
  @media print { display: block; height: auto; overflow: visible; }
`;
const Main = styled.main`
  grid-area: main; min-width: 0; min-height: 0; overflow: auto; position: relative; background: var(--ground); outline: none; contain: layout paint style;
  @media print { contain: none; }
`;

const Skip = styled.button`
  position: fixed; left: 8px; top: -60px; z-index: 70; padding: 8px 14px; background: var(--act); color: var(--raised); border: 0; border-radius: 2px;
  &:focus { top: 4px; }
  @media print { display: none; }
`;
/** Past the head and the places, to what the place is worked on by. */
function skip(): void {
  const drawn = document.querySelector<HTMLElement>('#place [data-drawing] [tabindex="0"]');
  (drawn ?? document.querySelector<HTMLElement>("#place"))?.focus();
}

/** What that is, by the place's part of the address. */
function skippedTo(place: string): string {
  if (place === "layout") return "the drawing";
  return place in placeNames ? placeNames[place as keyof typeof placeNames] : "the page";
}

/** While only the last page of a long log is there: what is counted over all of it is not yet so. A sheet waits. */
function Earlier({ children }: { children: ReactNode }) {
  const { isBookWhole } = useJob();
  const isPaper = useLocation().pathname.includes("/print/");
  return (
    <>
      {!isBookWhole && (
        <p role="status" className="small" style={{ margin: "4px 16px" }}>
          Reading the earlier entries of the log…
        </p>
      )}
      {(isBookWhole || !isPaper) && children}
    </>
  );
}

/** In place of a job that the store does not have any more: what this page still holds of it is offered. */
function Closed({ text, held }: { text: string; held: Job }) {
  const save = async () => {
    if (!(await saveHeld(held)))
      say({ text: "The file holds the job as this page showed it last, without its log.", lasts: true });
  };
  return (
    <Main role="alert" style={{ padding: 24 }}>
      <p>{text}</p>
      <p>
        <Button onPress={() => void save()}>Save what this page still shows as a file</Button>
      </p>
      <p>
        <Link to="/">Back to the jobs</Link>
      </p>
    </Main>
  );
}

export default function JobRoute({ loaderData }: Route.ComponentProps) {
  const { pathname, search } = useLocation();
  const { id } = loaderData.loaded.job;
  useEffect(() => leave(id, pathname, search), [id, pathname, search]);
  // The sheet is open at one place; going to another closes it.
  const [sheetAt, setSheetAt] = useState<string | null>(null);
  const sheet = sheetAt === pathname;
  const setSheet = (open: boolean) => setSheetAt(open ? pathname : null);
  return (
    <JobProvider
      key={id}
      loaded={loaderData.loaded}
      book={loaderData.book}
      say={say}
      closed={({ status }, held) => <Closed text={closedText[status]} held={held} />}
    >
      <ShortcutsProvider>
        {pathname.endsWith("/owner") ? (
          <Main id="place" tabIndex={-1} style={{ minHeight: "100dvh" }}>
            <Outlet />
          </Main>
        ) : (
          <Grid>
            <Skip type="button" onClick={skip}>
              Skip to {skippedTo(pathname.split("/")[3] ?? "")}
            </Skip>
            <Header onFindings={() => setSheet(!sheet)} sheetOpen={sheet} />
            <Rail />
            <Main id="place" tabIndex={-1}>
              <Earlier>
                <Outlet context={() => setSheet(true)} />
              </Earlier>
            </Main>
            <Side isSheetOpen={sheet} onClose={() => setSheet(false)} />
            <KeelStrip />
          </Grid>
        )}
      </ShortcutsProvider>
    </JobProvider>
  );
}
