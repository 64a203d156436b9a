import { listOf, type Scene } from '@quarry/core/document';

// What one may pick of a display's sections and people, by letter and by name.

export const sectionOptions = (scene: Pick<Scene, 'section'>, none?: string) => [
  ...(none === undefined ? [] : [{ value: '', word: none }]),
  ...listOf(scene, 'section')
    .toSorted((a, b) => (a.letter < b.letter ? -1 : 1))
    .map(({ id, letter, name }) => ({ value: id, word: `${letter}, ${name}` })),
];

export const personOptions = (scene: Pick<Scene, 'person'>, none?: string) => [
  ...(none === undefined ? [] : [{ value: '', word: none }]),
  ...listOf(scene, 'person').map(({ id, name }) => ({ value: id, word: name })),
];
