/*
 * Decides: whether this job goes to the other device, and what may go for it.
 * Seen in three seconds: what lies on the shelf already, and the word that is wanted.
 */
import { useState } from "react";
import {
  keepShelfWord,
  type OnShelf,
  putOnShelf,
  type ShelfAnswer,
  shelfWord,
  takeOffShelf,
} from "~/state/shelf";
import { Button } from "~/ui/button";
import { Actions } from "~/ui/dialog";
import { TextField } from "~/ui/fields";
import { say } from "~/ui/toast";
import { sayingFaults } from "./saying";

/** The word that is shown where the shop's server was started: kept as it is typed. */
function WordField({ word, onChange }: { word: string; onChange: (word: string) => void }) {
  return (
    <TextField
      label="The shelf's word, shown where the shop's server was started"
      value={word}
      onCommit={(typed) => {
        keepShelfWord(typed);
        onChange(typed);
      }}
    />
  );
}

/** Puts a job on the shelf; what lies there in its place is replaced only when that is said. */
export function PutOnShelf({ id, name, onDone }: { id: string; name: string; onDone: () => void }) {
  const [word, setWord] = useState(shelfWord);
  const [refused, setRefused] = useState<Exclude<ShelfAnswer, { done: true }> | null>(null);
  const put = (replacing: string | null) =>
    sayingFaults(
      putOnShelf(id, name, word, replacing).then((answer) => {
        if (!answer.done) return setRefused(answer);
        say({ text: `${name} is on the shop's shelf.` });
        onDone();
      }),
    );
  return (
    <section aria-label="Shop's shelf">
      <WordField word={word} onChange={setWord} />
      {refused && <p role="alert">{refused.why}</p>}
      <Actions style={{ justifyContent: "flex-start", marginTop: 8 }}>
        {refused?.there ? (
          <Button onPress={() => put(refused.there)}>Replace it on the shelf</Button>
        ) : (
          <Button onPress={() => put(null)}>Put it on the shelf</Button>
        )}
      </Actions>
    </section>
  );
}

/** Takes a file off the shelf. */
export function TakeOff({ file, onGone }: { file: OnShelf; onGone: () => void }) {
  const [isAsked, setAsked] = useState(false);
  const [word, setWord] = useState(shelfWord);
  const [why, setWhy] = useState<string | null>(null);
  if (!isAsked)
    return (
      <Button $quiet onPress={() => setAsked(true)} aria-label={`Take ${file.name} off the shelf`}>
        Take off
      </Button>
    );
  const take = () =>
    sayingFaults(takeOffShelf(file, word).then((answer) => (answer.done ? onGone() : setWhy(answer.why))));
  return (
    <section aria-label={`Take ${file.name} off the shelf`}>
      <WordField word={word} onChange={setWord} />
      {why && <p role="alert">{why}</p>}
      <Actions style={{ justifyContent: "flex-start", marginTop: 8 }}>
        <Button onPress={take}>Take {file.name} off the shelf</Button>
        <Button $quiet onPress={() => setAsked(false)}>
          Leave it
        </Button>
      </Actions>
    </section>
  );
}
