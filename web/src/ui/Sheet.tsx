import { Dialog } from "radix-ui";
import type { ReactNode } from "react";
import { text } from "../text";
import { Button } from "./Button";

/** A sheet of paper laid over the table: the one place dialogs are made. */
export function OverSheet({
  title,
  intro,
  open,
  onOpenChange,
  wide = "max-w-xl",
  children,
}: {
  title: string;
  intro?: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  wide?: string;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-black/35" />
        <Dialog.Content
          aria-describedby={undefined}
          className={`fixed inset-x-4 top-[6vh] mx-auto max-h-[88vh] ${wide} overflow-auto rounded-sm border border-chalk bg-paper p-6 shadow-xl`}
        >
          <div className="mb-4 flex items-start justify-between gap-6">
            <div>
              <Dialog.Title className="font-title text-2xl">{title}</Dialog.Title>
              {intro && <p className="text-pencil">{intro}</p>}
            </div>
            <Dialog.Close asChild>
              <Button look="quiet">{text.close}</Button>
            </Dialog.Close>
          </div>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
