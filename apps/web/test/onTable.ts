/** What small displays of tests have in common: paving at one level, on a table of their size in a hall. Studs. */
export const onTable = (w: number, d: number) => ({
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w, d }],
  pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w, d, level: 'low', ground: 'paving' as const }],
  places: [{ id: 'hall', name: 'Hall', walls: [], sceneX: 0, sceneY: 0 }],
  tables: [{ id: 't', name: 'Table', x: 0, y: 0, w: 8 * w, d: 8 * d, place: 'hall' }],
});
