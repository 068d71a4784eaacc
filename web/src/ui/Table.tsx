import type { ReactNode } from "react";

/** A small table that is read along its lines: column heads in pencil, a rule above every line. */
export function Table({ heads, children }: { heads: readonly string[]; children: ReactNode }) {
  return (
    <table className="text-[15.5px]">
      <thead className="text-left text-pencil">
        <tr>
          {heads.map((head) => (
            <th key={head} scope="col" className="pr-6 font-normal">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>{children}</tbody>
    </table>
  );
}
