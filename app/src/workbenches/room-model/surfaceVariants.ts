import { isOfVariant, surfacesAsVariant, withVariant, type SurfaceVariant } from '@pebble-hall/core/place';
import { freeName, MOST_SURFACE_VARIANTS, type Place } from '@pebble-hall/core/project';
import { changePlace } from './changeSurface';

export const variantsOf = ({ surfaceVariants }: Place): readonly SurfaceVariant[] => surfaceVariants ?? [];

/** The variant that the surfaces are now; null where they are none that was kept. */
export const variantNow = (place: Place): SurfaceVariant | null =>
  variantsOf(place).find((v) => isOfVariant(place, v)) ?? null;

/** The place with its surfaces as they are kept as a variant, unless they are one already. @throws Error when it holds no more */
export function withKept(place: Place, name: string): Place {
  if (variantNow(place)) return place;
  const known = variantsOf(place);
  if (known.length >= MOST_SURFACE_VARIANTS)
    throw new Error(`A place keeps ${MOST_SURFACE_VARIANTS} variants of its surfaces. Remove one first.`);
  const free = freeName(
    name,
    known.map((v) => v.name),
  );
  return { ...place, surfaceVariants: [...known, surfacesAsVariant(place, crypto.randomUUID(), free)] };
}

export const keepVariant = () =>
  void changePlace('surfaces kept as a variant', (place) => withKept(place, 'Surfaces 1'));

export const takeVariant = (variant: SurfaceVariant) =>
  void changePlace(`surfaces: ${variant.name}`, (place) => withVariant(place, variant));

export const removeVariant = ({ id, name }: SurfaceVariant) =>
  void changePlace(`variant ${name} removed`, (place) => ({
    ...place,
    surfaceVariants: variantsOf(place).filter((v) => v.id !== id),
  }));
