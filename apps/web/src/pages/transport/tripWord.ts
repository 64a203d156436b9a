import type { LoadPlan, Shipment } from '@quarry/core/transport';

/** A trip by its vehicle, and by its number where that goes more than once. */
export function tripWord({ carriers }: Shipment, { carrier, trip }: LoadPlan['trips'][number]): string {
  const vehicle = carriers.find(({ id }) => id === carrier);
  return `${vehicle?.name ?? carrier}${(vehicle?.trips ?? 1) > 1 ? `, trip ${trip}` : ''}`;
}
