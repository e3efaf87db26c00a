import { Button, Menu } from '@mantine/core';
import { fitsRoom } from '@pebble-hall/core/place';
import type { Place } from '@pebble-hall/core/project';
import { keepVariant, removeVariant, takeVariant, variantNow, variantsOf } from './surfaceVariants';

/** What the surfaces were made of, and may be again: kept under names, each a press away. */
export function VariantMenu({ place }: { place: Place }) {
  const now = variantNow(place);
  const all = variantsOf(place);
  const text = now ? now.name : all.length > 0 ? 'not kept' : 'none kept';
  return (
    <Menu position="top-end">
      <Menu.Target>
        <Button
          size="compact-xs"
          variant="default"
          title="Variants of the surfaces"
          style={{ flexShrink: 0 }}
        >
          Variant: {text}
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {all.map((variant) => {
          const fits = fitsRoom(place, variant);
          return (
            <Menu.Item
              key={variant.id}
              disabled={!fits || variant === now}
              title={fits ? undefined : 'Of a room with other surfaces'}
              onClick={() => takeVariant(variant)}
            >
              {variant === now ? `${variant.name}, as it is now` : variant.name}
            </Menu.Item>
          );
        })}
        {all.length > 0 ? <Menu.Divider /> : null}
        {now ? (
          <Menu.Item onClick={() => removeVariant(now)}>Remove {now.name} from the list</Menu.Item>
        ) : (
          <Menu.Item onClick={keepVariant}>Keep the surfaces as they are as a variant</Menu.Item>
        )}
      </Menu.Dropdown>
    </Menu>
  );
}
