import { StrictMode, useState } from "react";
import { createRoot } from "react-dom/client";
import { SnippetDrawer, useDrawer, useSnippets } from "drawer/react";

const ROUNDS = ["Seawall", "North ride", "Ringing hut"];

/** A React application: a note for each round, of which React holds the text, and the drawer beside them. */
function Notes() {
  const binding = useDrawer({ database: "notes" });
  const latest = useSnippets(binding, { limit: 1 })[0];
  const [notes, setNotes] = useState<Readonly<Record<string, string>>>({});
  const [placed, setPlaced] = useState(0);
  return (
    <>
      <main className="paper">
        <h1>Round notes, 8 April</h1>
        <p id="report">
          The tide was <em>an hour past low</em>; a <b>wryneck</b> sat on the path by the ringing hut.
        </p>
        {ROUNDS.map((round) => (
          <label key={round}>
            {round}
            <textarea
              rows={3}
              value={notes[round] ?? ""}
              onChange={(event) => setNotes({ ...notes, [round]: event.target.value })}
            />
          </label>
        ))}
        <p className="facts" aria-live="polite">
          {Object.values(notes).join("").length} characters; {placed} placed; the latest snippet is{" "}
          {latest ? `“${latest.entry.text.slice(0, 40)}”` : "not there yet"}.
        </p>
      </main>
      <SnippetDrawer
        binding={binding}
        recipe={{ style: "bare" }}
        onPlaced={() => setPlaced((count) => count + 1)}
      />
    </>
  );
}

createRoot(document.body.appendChild(document.createElement("div"))).render(
  <StrictMode>
    <Notes />
  </StrictMode>,
);
