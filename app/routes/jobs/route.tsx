/*
 * Decides: which job to open, and whether what is kept here is safe elsewhere too.
 * Seen in three seconds: the jobs by their last change, and what is not yet saved as a file.
 */
import { lazy, Suspense, useState } from "react";
import { Link, redirect, useFetcher, useRevalidator } from "react-router";
import styled from "styled-components";
import type { StarterId } from "~/core/edit/starters";
import { dayText } from "~/messages/care";
import { counted } from "~/messages/counted";
import { storageFault } from "~/messages/storage";
import type { Glance } from "~/schemas/noted";
import { saveText } from "~/state/files";
import { answerInTime } from "~/store/faults";
import {
  askToPersist,
  createJob,
  deleteJob,
  duplicateJob,
  type JobList,
  listJobs,
  readSetting,
  restoreJob,
  SAVED_ALL,
  seedDemo,
} from "~/store/list";
import { Button } from "~/ui/button";
import { GradeGlyph } from "~/ui/glyphs";
import { Mark } from "~/ui/mark";
import { say } from "~/ui/toast";
import type { Route } from "./+types/route";
import { DueOverAll } from "./DueOverAll";
import { useGlances } from "./glances";

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
  li { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 4px 16px; align-items: center; padding: 12px 4px; border-bottom: 1px solid var(--hairline); }
  @media (max-width: 700px) { li { grid-template-columns: minmax(0, 1fr); } }
`;
const JobLink = styled(Link)`
  color: var(--ink); text-decoration: none; display: grid; gap: 2px; min-height: 44px;
  b { font-size: 18px; font-weight: 650; font-stretch: 84%; text-decoration: underline; text-underline-offset: 3px; text-decoration-thickness: 1px; }
  span { color: var(--soft); font-size: 13px; }
  .glance { display: inline-flex; gap: 6px; align-items: center; color: var(--ink); }
`;

const Foot = styled.footer`
  margin-top: 28px; display: flex; flex-wrap: wrap; gap: 4px 16px; align-items: center; justify-content: space-between; color: var(--soft); font-size: 13px;
  p { margin: 0; }
`;
const Actions = styled.div`
  display: flex; flex-wrap: wrap; gap: 8px; justify-content: flex-end;
`;

const dateText = (iso: string | null) =>
  iso ? new Date(iso).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" }) : "never";

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

/** How a job stands: the worst of its findings, what is due next, what has not come. */
function AtAGlance({ glance }: { glance: Glance | undefined }) {
  if (!glance) return null;
  const { worst, counts, due, awaited } = glance;
  const more = counts.stop + counts.mend + counts.watch - 1;
  const [next] = due;
  return (
    <>
      {worst && (
        <span className="glance">
          <GradeGlyph grade={worst.grade} size={13} /> {worst.title}
          {more > 0 && `, and ${more} more`}
        </span>
      )}
      {(next || awaited > 0) && (
        <span>
          {next && `Next due ${dayText(new Date(`${next.on}T00:00:00Z`))}. `}
          {awaited > 0 && `${counted(awaited, "part")} awaited.`}
        </span>
      )}
    </>
  );
}

export default function Jobs({ loaderData }: Route.ComponentProps) {
  const { jobs, deleted, aside, fault, savedAll } = loaderData;
  const [dialog, setDialog] = useState<Shown | null>(null);
  const fetcher = useFetcher<typeof clientAction>();
  const { revalidate } = useRevalidator();
  const glances = useGlances(jobs);
  const [today] = useState(() => new Date().toISOString().slice(0, 10));
  const close = () => setDialog(null);
  const remove = (id: string, name: string) => {
    void fetcher.submit({ intent: "delete", id }, { method: "post" });
    say({
      text: `${name} is deleted.`,
      lasts: true,
      action: {
        label: "Bring it back",
        run: () => void fetcher.submit({ intent: "restore", id }, { method: "post" }),
      },
    });
  };
  return (
    <Page>
      <Head>
        <Mark />
        <div style={{ flex: 1 }}>
          <h1>Iron Keel</h1>
          <p>Diesel and marine fuel systems: laid out, proved, fitted, bled and kept.</p>
        </div>
        <Button onPress={() => setDialog({ kind: "open" })}>Open a file…</Button>
        <Button $main onPress={() => setDialog({ kind: "new" })}>
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
      {jobs.length > 0 && (
        <List aria-label="Jobs">
          {jobs.map((job) => (
            <li key={job.id}>
              <JobLink to={`/job/${job.id}/survey`} prefetch="intent">
                <b>{job.name}</b>
                {job.note && <span>{job.note}</span>}
                <span>
                  {job.kind}, {counted(job.tanks, "tank")}, {counted(job.parts, "part")}. Changed{" "}
                  {dateText(job.updatedAt)}. Last saved as a file: {dateText(job.exportedAt)}
                  {job.exportedAt && job.changedSinceExport ? ", changed since" : ""}.
                </span>
                <AtAGlance glance={glances.get(job.id)} />
                {job.isNewer && (
                  <span>
                    Written by a newer version of this application: open it there. Nothing is changed here.
                  </span>
                )}
              </JobLink>
              <Actions>
                <Button
                  $quiet
                  onPress={() => setDialog({ kind: "save", id: job.id, name: job.name })}
                  aria-label={`Save ${job.name} as a file`}
                >
                  Save file
                </Button>
                <Button
                  $quiet
                  onPress={() => void fetcher.submit({ intent: "duplicate", id: job.id }, { method: "post" })}
                  aria-label={`Duplicate ${job.name}`}
                >
                  Duplicate
                </Button>
                <Button $quiet onPress={() => remove(job.id, job.name)} aria-label={`Delete ${job.name}`}>
                  Delete
                </Button>
              </Actions>
            </li>
          ))}
        </List>
      )}
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
