import { useRef, useState } from "react";
import { Link, redirect, useFetcher, useRevalidator } from "react-router";
import styled from "styled-components";
import { type StarterId, starterIds } from "~/core/edit/starters";
import { counted } from "~/messages/counted";
import { faultText } from "~/messages/faults";
import { saveJobFile, saveText } from "~/state/files";
import { storageFault } from "~/store/faults";
import {
  askToPersist,
  createJob,
  deleteJob,
  duplicateJob,
  type ImportResult,
  importJob,
  listJobs,
  restoreJob,
  seedDemo,
} from "~/store/jobs";
import { Button } from "~/ui/button";
import { Actions, Dialog } from "~/ui/dialog";
import { Select, TextField } from "~/ui/fields";
import { Mark } from "~/ui/mark";
import { say } from "~/ui/toast";
import type { Route } from "./+types/route";

export const meta = () => [{ title: "Jobs · Iron Keel" }];

const demoFiles = ["marram.keel.json", "unit-12.keel.json", "reading-van.keel.json"];

/** Names of the demo jobs this server offers. */
export const loader = () => ({ demo: process.env.IRON_KEEL_DEMO === "1" ? demoFiles : [] });

export async function clientLoader({ serverLoader }: Route.ClientLoaderArgs) {
  try {
    const { demo } = await serverLoader().catch(() => ({ demo: [] as string[] }));
    await seedDemo(demo);
    void askToPersist();
    return { ...(await listJobs()), fault: null };
  } catch (error) {
    return { jobs: [], deleted: [], aside: [], fault: storageFault(error) };
  }
}
clientLoader.hydrate = true as const;

export type ActionResult = { intent: string; id?: string | null; import?: ImportResult; fault?: string };

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
      case "import":
        return {
          intent,
          import: await importJob(text("text"), text("mode") as "ask" | "replace" | "keepBoth"),
        };
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
`;
const Faults = styled.ul`
  margin: 0; padding-left: 18px; max-height: 40vh; overflow: auto;
  code { font-weight: 650; font-family: inherit; }
`;

const starterNames: Record<StarterId, string> = {
  nothing: "Nothing: an empty plan",
  oneTank: "Boat, one tank",
  twoTanksTwoSelectors: "Boat, two tanks on two selectors",
  threeTanks: "Boat, three tanks on manifolds",
  twinEngine: "Boat, two engines",
  truck: "Truck, frame tank and frame pump",
  heater: "Heater with its own tank",
};

const dateText = (iso: string | null) =>
  iso ? new Date(iso).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" }) : "never";

export default function Jobs({ loaderData }: Route.ComponentProps) {
  const { jobs, deleted, aside, fault } = loaderData;
  const [dialog, setDialog] = useState<"new" | "import" | null>(null);
  const fetcher = useFetcher<typeof clientAction>();
  const save = (id: string) =>
    void saveJobFile(id).catch((error: unknown) => say({ text: storageFault(error), lasts: true }));
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
        <Button onPress={() => setDialog("import")}>Open a file…</Button>
        <Button $main onPress={() => setDialog("new")}>
          New job
        </Button>
      </Head>
      {fault && <p role="alert">{fault}</p>}
      {jobs.length === 0 && !fault && (
        <section>
          <h2>No job yet</h2>
          <p>
            A job holds one vehicle or boat: its tanks, its plumbing and its book. Start one, or open a file
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
              </JobLink>
              <Actions>
                <Button $quiet onPress={() => save(job.id)} aria-label={`Save ${job.name} as a file`}>
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
      <NewJob isOpen={dialog === "new"} onClose={() => setDialog(null)} />
      <ImportJob isOpen={dialog === "import"} onClose={() => setDialog(null)} />
    </Page>
  );
}

function NewJob({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  const [name, setName] = useState("New job");
  const [starter, setStarter] = useState<StarterId>("nothing");
  const fetcher = useFetcher<typeof clientAction>();
  const start = async () => {
    await fetcher.submit({ intent: "create", name, starter }, { method: "post" });
    onClose();
  };
  return (
    <Dialog title="New job" isOpen={isOpen} onOpenChange={(open) => !open && onClose()}>
      <TextField label="Name" value={name} onCommit={setName} autoFocus />
      <Select
        label="Start from"
        value={starter}
        options={starterIds.map((id) => ({ id, name: starterNames[id] }))}
        onChange={setStarter}
      />
      <Actions>
        <Button onPress={onClose}>Leave it</Button>
        <Button $main onPress={() => void start()}>
          Start
        </Button>
      </Actions>
    </Dialog>
  );
}

function ImportJob({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  const input = useRef<HTMLInputElement>(null);
  const [text, setText] = useState("");
  const [result, setResult] = useState<ImportResult | null>(null);
  const { revalidate } = useRevalidator();
  const take = async (content: string, mode: "ask" | "replace" | "keepBoth") => {
    try {
      const found = await importJob(content, mode);
      setResult(found);
      if (found.outcome !== "kept") return;
      await revalidate();
      say({ text: `${found.name} is here.` });
      close();
    } catch (error) {
      say({ text: storageFault(error), lasts: true });
    }
  };
  const close = () => {
    setResult(null);
    setText("");
    onClose();
  };
  return (
    <Dialog title="Open a job file" isOpen={isOpen} onOpenChange={(open) => !open && close()}>
      <label htmlFor="jobFile">A .keel.json file</label>
      <input
        id="jobFile"
        ref={input}
        type="file"
        accept=".json,application/json"
        onChange={async (event) => {
          const file = event.target.files?.[0];
          if (!file) return;
          const content = await file.text();
          setText(content);
          await take(content, "ask");
        }}
      />
      {result?.outcome === "exists" && (
        <div role="alert">
          <p>{result.name} is here already.</p>
          <Actions>
            <Button onPress={() => void take(text, "replace")}>Replace it</Button>
            <Button $main onPress={() => void take(text, "keepBoth")}>
              Keep both
            </Button>
          </Actions>
        </div>
      )}
      {result?.outcome === "refused" && (
        <div role="alert">
          <p>This file is not taken in, and nothing that is stored has changed:</p>
          <Faults>
            {result.faults.map((fault, i) => (
              <li key={i}>
                {fault.path && <code>{fault.path}</code>} {faultText(fault)}
              </li>
            ))}
          </Faults>
        </div>
      )}
      <Actions>
        <Button onPress={close}>Close</Button>
      </Actions>
    </Dialog>
  );
}
