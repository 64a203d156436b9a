import { useThree } from '@react-three/fiber';
import { useEffect } from 'react';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';

/**
 * Turning, moving and zooming of a scene in three dimensions by mouse and touch; draws a frame for each step.
 * @param below how far below the horizon the eye may go, radians from straight down
 * @param height of the point it turns about, above the scene's origin
 * @param onMove hears each step
 */
export function Orbit({
  below,
  height = 0,
  onMove,
}: {
  below: number;
  height?: number;
  onMove?: () => void;
}) {
  const camera = useThree((state) => state.camera);
  const element = useThree((state) => state.gl.domElement);
  const invalidate = useThree((state) => state.invalidate);
  useEffect(() => {
    const controls = new OrbitControls(camera, element);
    controls.maxPolarAngle = below;
    controls.target.set(0, height, 0);
    controls.update();
    controls.addEventListener('change', () => {
      onMove?.();
      invalidate();
    });
    invalidate();
    return () => controls.dispose();
  }, [camera, element, invalidate, below, height, onMove]);
  return null;
}
