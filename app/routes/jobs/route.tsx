/*
 * Decides: which job to open, and whether what is kept here is safe elsewhere too.
 * Seen in three seconds: the jobs by their last change, and what is not yet saved as a file.
 */

import { lazy, Suspense, startTransition, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { redirect, useFetcher, useRevalidator } from "react-router";
import styled from "styled-components";
import type { StarterId } from "~/core/edit/starters";
import { counted } from "~/messages/counted";
import { storageFault } from "~/messages/storage";
import { momentText } from "~/messages/when";
import { saveText } from "~/state/files";
import { answerInTime } from "~/store/faults";
import {
  askToPersist,
  createJob,
  deleteJob,
  duplicateJob,
  type JobList,
  type JobSummary,
  listJobs,
  readSetting,
  restoreCutShort,
  restoreJob,
  SAVED_ALL,
  seedDemo,
} from "~/store/list";
import { Button } from "~/ui/button";
import { SearchField, Select } from "~/ui/fields";
import { useSingleKey } from "~/ui/keys";
import { Mark } from "~/ui/mark";
import { say } from "~/ui/toast";
import type { Route } from "./+types/route";
import { DueOverAll } from "./DueOverAll";
import { useGlances } from "./glances";
import { JobRow } from "./JobRow";
import { inOrder, type Order, orders } from "./order";

export const meta = () => [{ title: "Jobs · Iron Keel" }];

const demoJobs = ["marram", "unit-12", "reading-van"];

/** Names of the demo jobs this server offers. */
export const loader = () => ({ demo: process.env.IRON_KEEL_DEMO === "1" ? demoJobs : [] });

const nothing: JobList = { jobs: [], deleted: [], aside: [] };

export async function clientLoader({ serverLoader }: Route.ClientLoaderArgs) {
  try {
    const { demo } = await serverLoader().catch(() => ({ demo: [] as string[] }));
    const [list, savedAll] = await answerInTime(
      (async () => {
        await seedDemo(demo);
        return [await listJobs(), await readSetting(SAVED_ALL)] as const;
      })(),
    );
    void askToPersist();
    return { ...list, savedAll, fault: null };
  } catch (error) {
    return { ...nothing, savedAll: null, fault: storageFault(error) };
  }
}
clientLoader.hydrate = true as const;

export type ActionResult = { intent: string; id?: string | null; fault?: string };

export async function clientAction({ request }: Route.ClientActionArgs): Promise<ActionResult | Response> {
  const form = await request.formData();
  const text = (key: string) => String(form.get(key) ?? "");
  const intent = text("intent");
  try {
    switch (intent) {
      case "create":
        return redirect(
          `/job/${await createJob(text("name") || "New job", text("starter") as StarterId)}/layout`,
        );
      case "duplicate":
        return { intent, id: await duplicateJob(text("id")) };
      case "delete":
        await deleteJob(text("id"));
        return { intent, id: text("id") };
      case "restore":
        await restoreJob(text("id"));
        return { intent };
      default:
        return { intent, fault: "That cannot be done here." };
    }
  } catch (error) {
    say({ text: storageFault(error), lasts: true });
    return { intent, fault: storageFault(error) };
  }
}

export function HydrateFallback() {
  return (
    <Page>
      <Head>
        <Mark />
        <h1>Iron Keel</h1>
      </Head>
      <p>Reading your jobs…</p>
    </Page>
  );
}

const Page = styled.main`
  max-width: 980px; margin: 0 auto; padding: 24px 20px 80px;
`;
const Head = styled.header`
  display: flex; align-items: center; gap: 12px; margin-bottom: 18px; flex-wrap: wrap;
  h1 { font-size: 24px; } p { margin: 0; color: var(--soft); }
`;
const List = styled.ul`
  list-style: none; margin: 0; padding: 0; border-top: 1.5px solid var(--ink);
`;
const Sought = styled.div`
  display: grid; grid-template-columns: minmax(0, 1fr) 200px; gap: 8px 14px; align-items: end; margin-bottom: 12px;
  @media (max-width: 600px) { grid-template-columns: minmax(0, 1fr); }
`;
const Foot = styled.footer`
  margin-top: 28px; display: flex; flex-wrap: wrap; gap: 4px 16px; align-items: center; justify-content: space-between; color: var(--soft); font-size: 13px;
  p { margin: 0; }
`;
const Actions = styled.div`
  display: flex; flex-wrap: wrap; gap: 8px; justify-content: flex-end;
`;

const dateText = (iso: string | null) => (iso ? momentText(iso) : "never");

type Shown = { kind: "new" | "open" | "all" } | { kind: "save"; id: string; name: string };

const NewJob = lazy(() => import("./NewJob"));
const OpenFile = lazy(() => import("./OpenFile"));
const SaveFile = lazy(() => import("./SaveFile"));
const Everything = lazy(() => import("./Everything"));

/** A fortnight's work is the most that one should stand to lose. */
const OLD_MS = 14 * 24 * 3600 * 1000;

/** Whether the last file of everything is old, and something has changed since. */
function isOld(savedAll: string | null, jobs: JobList["jobs"]): boolean {
  if (savedAll === null) return false;
  const newest = jobs[0]?.updatedAt ?? "";
  return newest > savedAll && Date.now() - Date.parse(savedAll) > OLD_MS;
}

/** So many rows are drawn at first, and so many more each time that the end of them is seen. */
const ROWS = 24;
/** Fewer jobs need no search. */
const MANY = 6;

/** Draws the rest as it is scrolled to: a list of years opens as quickly as one of days. */
function useMore(count: number) {
  const [shown, show] = useState(ROWS);
  const end = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const mark = end.current;
    if (!mark || shown >= count) return;
    const observer = new IntersectionObserver(
      ([seen]) => seen?.isIntersecting && startTransition(() => show((now) => now + ROWS)),
      { rootMargin: "600px" },
    );
    observer.observe(mark);
    return () => observer.disconnect();
  }, [shown, count]);
  return { shown, end };
}

/** A restore that this browser was ended in: the store took nothing of it, and that is said. */
function useCutShort(): void {
  useEffect(() => {
    void restoreCutShort()
      .catch(() => null)
      .then((at) => {
        if (at === null) return;
        const when = momentText(at);
        say({
          text: `Restoring everything, begun ${when}, was cut short. Nothing of it was kept: what was here is as it was. Restore the file again.`,
          lasts: true,
        });
      });
  }, []);
}

export default function Jobs({ loaderData }: Route.ComponentProps) {
  useCutShort();
  const { jobs, deleted, aside, fault, savedAll } = loaderData;
  const [dialog, setDialog] = useState<Shown | null>(null);
  const fetcher = useFetcher<typeof clientAction>();
  const { revalidate } = useRevalidator();
  const glances = useGlances(jobs);
  const [today] = useState(() => new Date().toISOString().slice(0, 10));
  const close = () => setDialog(null);
  const [sought, seek] = useState("");
  const [order, setOrder] = useState<Order>("changed");
  const listed = useMemo(() => inOrder(jobs, glances, order, sought), [jobs, glances, order, sought]);
  const { shown, end } = useMore(listed.length);
  useSingleKey("a", () => setDialog({ kind: "new" }));
  const { submit } = fetcher;
  const save = useCallback(({ id, name }: JobSummary) => setDialog({ kind: "save", id, name }), []);
  const duplicate = useCallback(
    ({ id }: JobSummary) => void submit({ intent: "duplicate", id }, { method: "post" }),
    [submit],
  );
  const remove = useCallback(
    ({ id, name }: JobSummary) => {
      void submit({ intent: "delete", id }, { method: "post" });
      say({
        text: `${name} is deleted.`,
        lasts: true,
        action: {
          label: "Bring it back",
          run: () => void submit({ intent: "restore", id }, { method: "post" }),
        },
      });
    },
    [submit],
  );
  return (
    <Page>
      <Head>
        <Mark />
        <div style={{ flex: 1 }}>
          <h1>Iron Keel</h1>
          <p>Diesel and marine fuel systems: laid out, proved, fitted, bled and kept.</p>
        </div>
        <Button onPress={() => setDialog({ kind: "open" })}>Open a file…</Button>
        <Button $main aria-keyshortcuts="a" onPress={() => setDialog({ kind: "new" })}>
          New job
        </Button>
      </Head>
      {fault && <p role="alert">{fault}</p>}
      {jobs.length === 0 && !fault && (
        <section>
          <h2>No job yet</h2>
          <p>
            A job holds one vehicle or boat: its tanks, its plumbing and its log. Start one, or open a file
            that was saved from here.
          </p>
        </section>
      )}
      {jobs.length >= MANY && (
        <Sought>
          <SearchField label={`Find among ${counted(jobs.length, "job")}`} value={sought} onChange={seek} />
          <Select
            label="Sorted"
            value={order}
            options={[...orders]}
            onChange={(id) => setOrder(id as Order)}
          />
        </Sought>
      )}
      {jobs.length > 0 && listed.length === 0 && <p role="status">No job has these words.</p>}
      {listed.length > 0 && (
        <List aria-label="Jobs">
          {listed.slice(0, shown).map((job) => (
            <JobRow
              key={job.id}
              job={job}
              glance={glances.get(job.id)}
              onSave={save}
              onDuplicate={duplicate}
              onDelete={remove}
            />
          ))}
        </List>
      )}
      <div ref={end} />
      <DueOverAll jobs={jobs} glances={glances} today={today} />
      {deleted.length > 0 && (
        <section style={{ marginTop: 24 }}>
          <h2>Deleted</h2>
          <Actions style={{ justifyContent: "flex-start" }}>
            {deleted.map(({ id, name }) => (
              <Button
                key={id}
                onPress={() => void fetcher.submit({ intent: "restore", id }, { method: "post" })}
              >
                Bring back {name}
              </Button>
            ))}
          </Actions>
        </section>
      )}
      {aside.length > 0 && (
        <section style={{ marginTop: 24 }}>
          <h2>Set aside: could not be read</h2>
          {aside.map((row) => (
            <p key={row.id}>
              {row.name}: {row.faults.slice(0, 3).join("; ")}{" "}
              <Button onPress={() => saveText(`${row.id}.json`, row.text, "application/json")}>
                Save what there is
              </Button>
            </p>
          ))}
        </section>
      )}
      {!fault && (
        <Foot>
          <p>
            Jobs, books and pictures lie in this browser alone. All of it was last saved in one file:{" "}
            {dateText(savedAll)}
            {isOld(savedAll, jobs) ? ", and has changed since." : "."}
          </p>
          <Button $quiet onPress={() => setDialog({ kind: "all" })}>
            Save or restore everything…
          </Button>
        </Foot>
      )}
      {dialog && (
        <Suspense>
          {dialog.kind === "new" && <NewJob onClose={close} />}
          {dialog.kind === "open" && <OpenFile onClose={close} onKept={revalidate} />}
          {dialog.kind === "save" && (
            <SaveFile
              id={dialog.id}
              name={dialog.name}
              onClose={() => {
                close();
                void revalidate();
              }}
            />
          )}
          {dialog.kind === "all" && <Everything onClose={close} onRestored={revalidate} />}
        </Suspense>
      )}
    </Page>
  );
}
