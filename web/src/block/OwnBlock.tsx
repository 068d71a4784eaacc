import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, Refused } from "../api/client";
import type { components } from "../api/schema";
import { text } from "../text";
import { Button } from "../ui/Button";
import { OverSheet } from "../ui/Sheet";
import { MatCorners } from "./MatCorners";

type Outline = components["schemas"]["OutlineFound"];
type Photo = components["schemas"]["PhotoOut"];
type Name = components["schemas"]["NamedOutline"]["names"][number];

/** A block of the maker's own: choose the file, choose front and back, say what each edge is. */
export function OwnBlock({
  open,
  unit,
  onOpenChange,
  onTake,
}: {
  open: boolean;
  unit: "cm" | "in";
  onOpenChange: (open: boolean) => void;
  onTake: (bodice: Record<string, unknown>) => void;
}) {
  const [source, setSource] = useState("");
  const [found, setFound] = useState<Outline[]>([]);
  const [problem, setProblem] = useState("");
  const [halves, setHalves] = useState({ front: 0, back: 1 });
  const [names, setNames] = useState<Record<string, (Name | "")[]>>({});
  const [mat, setMat] = useState("");
  const [photo, setPhoto] = useState<File | null>(null);
  const [picture, setPicture] = useState<Omit<Photo, "outline"> | null>(null);
  const edgeNames = useQuery({
    queryKey: ["edge names"],
    queryFn: () => answer(api.GET("/api/blocks/edge-names")) as Promise<Name[]>,
    staleTime: Infinity,
  });

  const read = async (file: File | undefined) => {
    if (!file) return;
    setProblem("");
    if (/\.(jpe?g|png|webp)$/i.test(file.name)) {
      setPhoto(file);
      await readPhoto(file);
      return;
    }
    setPhoto(null);
    const body = new FormData();
    body.append("file", file);
    const sent = await fetch(`/api/blocks/read?unit=${unit}`, { method: "POST", body });
    const said = await sent.json();
    if (!sent.ok) {
      setFound([]);
      setProblem(said.detail);
      return;
    }
    const outlines = said as Outline[];
    const like = (word: string, otherwise: number) => {
      const at = outlines.findIndex((one) => one.name.toLowerCase().includes(word));
      return at < 0 ? otherwise : at;
    };
    setSource(file.name);
    setFound(outlines);
    setHalves({
      front: like("bodice front", 0),
      back: like("bodice back", Math.min(1, outlines.length - 1)),
    });
    setNames(
      Object.fromEntries(outlines.map((one, index) => [index, one.edges.map((edge) => edge.guess ?? "")])),
    );
  };

  /** A photograph read, with the mat's corners as they were found or as a hand has set them; its piece joins the others. */
  const readPhoto = async (file: File, corners: [number, number][] | null = null) => {
    const body = new FormData();
    body.append("file", file);
    body.append("mat", mat);
    if (corners) body.append("corners", corners.map((corner) => corner.join(",")).join(" "));
    const sent = await fetch(`/api/blocks/photo?unit=${unit}`, { method: "POST", body });
    const said = await sent.json();
    if (!sent.ok) {
      setProblem(said.detail);
      if (!corners) {
        const seen = await createImageBitmap(file).catch(() => null);
        if (seen)
          setPicture({ width: seen.width, height: seen.height, corners: inset(seen.width, seen.height) });
      }
      return;
    }
    setProblem("");
    const { outline, ...picture } = said as Photo;
    const named = { ...outline, name: file.name };
    const at = found.findIndex((one) => one.name === named.name);
    const place = at < 0 ? found.length : at;
    setFound(at < 0 ? [...found, named] : found.map((one, k) => (k === at ? named : one)));
    setNames({ ...names, [place]: named.edges.map((edge) => edge.guess ?? "") });
    setHalves({ front: Math.min(halves.front, place), back: place === 0 ? 0 : 1 });
    setSource(file.name);
    setPicture(picture);
  };

  const take = async () => {
    const half = (where: "front" | "back") => ({
      outline: found[halves[where]] as Outline,
      names: (names[halves[where]] ?? []) as Name[],
    });
    try {
      const body = { source, front: half("front"), back: half("back") };
      onTake(await answer(api.POST("/api/blocks/take", { body })));
      onOpenChange(false);
    } catch (error) {
      setProblem(error instanceof Refused ? error.message : text.lost);
    }
  };
  const complete = (where: "front" | "back") => (names[halves[where]] ?? []).every((name) => name !== "");
  return (
    <OverSheet
      title={text.own.title}
      intro={text.own.intro}
      open={open}
      onOpenChange={onOpenChange}
      wide="max-w-5xl"
    >
      <label className="block">
        <span className="mr-3">{text.own.file}</span>
        <input
          type="file"
          accept=".svg,.dxf,.json,.pdf,.jpg,.jpeg,.png,.webp"
          aria-label={text.own.file}
          onChange={(event) => read(event.target.files?.[0])}
        />
      </label>
      <label className="mt-2 block">
        <span className="mr-3">{text.own.mat}</span>
        <input
          value={mat}
          placeholder={text.own.matHint}
          onChange={(event) => setMat(event.target.value)}
          onBlur={() => photo && mat && readPhoto(photo)}
          className="w-36 rounded-sm border border-pencil bg-paper px-2 py-0.5"
        />
        <span className="ml-3 text-pencil">{text.own.matHow}</span>
      </label>
      {photo && picture && (
        <MatCorners file={photo} picture={picture} onSet={(corners) => readPhoto(photo, corners)} />
      )}
      {problem && (
        <p role="alert" className="mt-2 text-thread">
          {problem}
        </p>
      )}
      {found.length > 0 && (
        <div className="mt-4 grid gap-6 md:grid-cols-2">
          {(["front", "back"] as const).map((where) => (
            <div key={where}>
              <label className="mb-2 flex items-center gap-2">
                {text.own.halves[where]}
                <select
                  value={halves[where]}
                  onChange={(event) => setHalves({ ...halves, [where]: Number(event.target.value) })}
                  className="min-h-8 rounded-sm border border-pencil bg-paper px-1.5"
                >
                  {found.map((one, index) => (
                    <option key={`${one.name}-${one.width}-${one.height}`} value={index}>
                      {one.name}, {one.width} × {one.height}
                    </option>
                  ))}
                </select>
              </label>
              <NamedHalf
                outline={found[halves[where]] as Outline}
                names={names[halves[where]] ?? []}
                choices={edgeNames.data ?? []}
                where={where}
                onName={(edge, name) =>
                  setNames((all) => ({
                    ...all,
                    [halves[where]]: (all[halves[where]] ?? []).map((old, k) => (k === edge ? name : old)),
                  }))
                }
              />
            </div>
          ))}
        </div>
      )}
      {found.length > 0 && (
        <Button className="mt-4" disabled={!complete("front") || !complete("back")} onClick={take}>
          {text.own.take}
        </Button>
      )}
    </OverSheet>
  );
}

/** Where the corners of a mat stand until a hand has set them. */
function inset(width: number, height: number): [number, number][] {
  const [x, y] = [Math.round(width / 10), Math.round(height / 10)];
  return [
    [x, y],
    [width - x, y],
    [width - x, height - y],
    [x, height - y],
  ];
}

function NamedHalf({
  outline,
  names,
  choices,
  where,
  onName,
}: {
  outline: Outline;
  names: (Name | "")[];
  choices: Name[];
  where: string;
  onName: (edge: number, name: Name) => void;
}) {
  const [lit, setLit] = useState<number | null>(null);
  const [left, top, width, height] = outline.box;
  const room = Math.max(width, height) * 0.04;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_12rem] gap-3">
      <svg
        viewBox={`${left - room} ${top - room} ${width + 2 * room} ${height + 2 * room}`}
        className="max-h-72 w-full"
        role="img"
        aria-label={`${where}: ${outline.name}`}
        fill="none"
      >
        {outline.edges.map((edge, k) => (
          <path
            key={edge.d}
            d={edge.d}
            stroke={lit === k ? "var(--color-thread)" : "var(--color-ink)"}
            strokeWidth={(lit === k ? 5 : 2) * (room / 12)}
          />
        ))}
      </svg>
      <ol>
        {outline.edges.map((edge, k) => (
          <li key={edge.d} className="mb-1">
            <label className="flex items-center justify-between gap-2">
              <span className="text-sm">{edge.length}</span>
              <select
                aria-label={`${where}, ${text.own.edge} ${k + 1}`}
                value={names[k] ?? ""}
                onFocus={() => setLit(k)}
                onChange={(event) => onName(k, event.target.value as Name)}
                className="min-h-7 rounded-sm border border-pencil bg-paper px-1"
              >
                <option value="">{text.own.unnamed}</option>
                {choices.map((name) => (
                  <option key={name} value={name}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
          </li>
        ))}
      </ol>
    </div>
  );
}
