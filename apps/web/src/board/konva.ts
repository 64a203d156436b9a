// The parts of Konva that the board draws with: the rest of its shapes and its filters are not loaded.
import 'konva/lib/shapes/Image.js';
import 'konva/lib/shapes/Label.js';
import 'konva/lib/shapes/Line.js';
import 'konva/lib/shapes/Rect.js';
import 'konva/lib/shapes/Text.js';
import 'konva/lib/shapes/Transformer.js';

export * from 'react-konva/lib/ReactKonvaCore.js';
