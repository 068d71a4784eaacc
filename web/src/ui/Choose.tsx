/** One of a few words, chosen from a list; each choice is its key and what is read. */
export function Choose({
  id,
  value,
  choices,
  onChoose,
  className = "",
}: {
  id?: string;
  value: string;
  choices: readonly (readonly string[])[];
  onChoose: (value: string) => void;
  className?: string;
}) {
  return (
    <select
      id={id}
      value={value}
      onChange={(event) => onChoose(event.target.value)}
      className={`min-h-8 rounded-sm border border-pencil bg-paper px-1.5 ${className}`}
    >
      {choices.map(([key, words]) => (
        <option key={key} value={key}>
          {words}
        </option>
      ))}
    </select>
  );
}
