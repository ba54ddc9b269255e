"use client";
import { Command } from "cmdk";
import { useRouter } from "next/navigation";
import { Dialog } from "radix-ui";

export interface PaletteAction {
  readonly name: string;
  readonly href?: string;
  readonly run?: () => void;
}

/** Every action of a sheet by name. */
export const Palette = ({
  open,
  onOpenChange,
  actions,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  actions: readonly PaletteAction[];
}) => {
  const router = useRouter();
  const choose = (action: PaletteAction): void => {
    onOpenChange(false);
    if (action.href !== undefined) router.push(action.href);
    action.run?.();
  };
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[14vh] w-[520px] max-w-[92vw] -translate-x-1/2 border-[1.6px] border-ink bg-paper"
        >
          <Dialog.Title className="sr-only">Find an action</Dialog.Title>
          <Command label="Actions">
            <Command.Input placeholder="Find an action or a sheet" className="w-full border-b border-ink bg-paper px-4 py-3 text-part" />
            <Command.List className="max-h-[46vh] overflow-auto p-1">
              <Command.Empty className="px-3 py-2 text-ink-2">Nothing by that name.</Command.Empty>
              {actions.map((action) => (
                <Command.Item
                  key={action.name}
                  value={action.name}
                  onSelect={() => choose(action)}
                  className="cursor-pointer px-3 py-2 aria-selected:bg-ink aria-selected:text-paper"
                >
                  {action.name}
                </Command.Item>
              ))}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
};
