import { create } from 'zustand';

/** Where the pointer is and how far the board is zoomed: apart from the rest, since it changes with every movement. */
export const usePointer = create<{ studs: { x: number; y: number } | null; zoom: number }>(() => ({
  studs: null,
  zoom: 1,
}));
