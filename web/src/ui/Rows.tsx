/** A small table with a name: the first of each row is what it is about. */
export function Rows({ caption, rows }: { caption: string; rows: string[][] }) {
  if (!rows.length) return null;
  return (
    <table className="mb-3 w-full text-sm">
      <caption className="text-left font-title text-lg">{caption}</caption>
      <tbody>
        {rows.map((row) => (
          <tr key={row[0]} className="border-t border-chalk align-top">
            <th scope="row" className="py-0.5 pr-2 text-left font-semibold">
              {row[0]}
            </th>
            {row.slice(1).map((cell, place) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a column each
              <td key={place} className="py-0.5 pr-2">
                {cell}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
