import { Refused } from "../api/client";
import { text } from "../text";

/** What went wrong with a request, in the program's words, or that it cannot be reached; nothing where all went well. */
export function Wrong({ error }: { error: unknown }) {
  if (!error) return null;
  return (
    <p role="alert" className="text-thread">
      {error instanceof Refused ? error.message : text.lost}
    </p>
  );
}
