import { type ReactNode, useEffect, useState } from "react";
import { text } from "../text";
import { Button } from "../ui/Button";
import { dropPicture, keepPicture, type Picture, pictureOf } from "./pictures";

/** The picture a client brought, beside the drawn dress, and what of it the dress has: ticked off by hand. */
export function ClientPicture({
  dress,
  features,
  children,
}: {
  dress: number;
  features: string[];
  /** What stands beside it. */
  children?: ReactNode;
}) {
  const [picture, setPicture] = useState<Picture | null>(null);
  const [trouble, setTrouble] = useState("");
  const [keeping, setKeeping] = useState(0);
  const [address, setAddress] = useState("");
  useEffect(() => {
    pictureOf(dress).then(
      (kept) => setPicture(kept ?? null),
      () => setTrouble(text.picture.notKept),
    );
  }, [dress]);
  useEffect(() => {
    if (!picture) return setAddress("");
    const made = URL.createObjectURL(picture.file);
    setAddress(made);
    return () => URL.revokeObjectURL(made);
  }, [picture]);
  const keep = (next: Picture) => {
    setPicture(next);
    setKeeping((count) => count + 1);
    keepPicture(dress, next)
      .then(
        () => setTrouble(""),
        () => setTrouble(text.picture.notKept),
      )
      .finally(() => setKeeping((count) => count - 1));
  };
  if (!picture) {
    return (
      <div className="no-print px-3 pb-2 text-center text-[15.5px]">
        {children}
        <label className="inline-flex min-h-7 cursor-pointer items-center underline underline-offset-2 focus-within:outline-2 focus-within:outline-ink">
          {text.picture.choose}
          <input
            type="file"
            accept="image/*"
            className="sr-only"
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) keep({ file, ticked: [] });
            }}
          />
        </label>
        {trouble && (
          <p role="alert" className="text-thread">
            {trouble}
          </p>
        )}
      </div>
    );
  }
  const tick = (feature: string) =>
    keep({
      ...picture,
      ticked: picture.ticked.includes(feature)
        ? picture.ticked.filter((one) => one !== feature)
        : [...picture.ticked, feature],
    });
  return (
    <section
      aria-label={text.picture.title}
      aria-busy={keeping > 0}
      className="no-print flex max-h-[45%] shrink-0 gap-3 overflow-auto border-t border-chalk bg-paper px-3 py-2"
    >
      {address && (
        <img
          src={address}
          alt={text.picture.title}
          onError={() => setTrouble(text.picture.unreadable)}
          className="max-h-56 w-1/2 object-contain object-top"
        />
      )}
      <div className="min-w-0 flex-1 text-[15.5px]">
        {children}
        <p className="text-pencil">{text.picture.help}</p>
        <ul>
          {features.map((feature) => (
            <li key={feature}>
              <label className="flex min-h-7 items-center gap-2">
                <input
                  type="checkbox"
                  className="size-4.5"
                  checked={picture.ticked.includes(feature)}
                  onChange={() => tick(feature)}
                />
                {feature}
              </label>
            </li>
          ))}
        </ul>
        {trouble && (
          <p role="alert" className="text-thread">
            {trouble}
          </p>
        )}
        <Button
          look="quiet"
          onClick={() => {
            dropPicture(dress).catch(() => setTrouble(text.picture.notKept));
            setPicture(null);
          }}
        >
          {text.picture.away}
        </Button>
      </div>
    </section>
  );
}
