import {
  BoxGeometry,
  DirectionalLight,
  HemisphereLight,
  Mesh,
  MeshLambertMaterial,
  PerspectiveCamera,
  PlaneGeometry,
  Scene,
  WebGLRenderer,
} from 'three';

// A plain scene to set the walk beside: 1,500 boxes, each a mesh, on a ground of 480 × 320 squares, drawn frame after frame.

const [w, d, boxes] = [480, 320, 1500];
const scene = new Scene();
scene.add(new HemisphereLight('#ffffff', '#8d8678', 1.6));
const sun = new DirectionalLight('#ffffff', 1.7);
sun.position.set(-w, 2 * w, 1.4 * w);
scene.add(sun);
const ground = new Mesh(new PlaneGeometry(w, d, w, d), new MeshLambertMaterial({ color: '#7f9460' }));
ground.rotation.x = -Math.PI / 2;
scene.add(ground);
for (let i = 0; i < boxes; i++) {
  const box = new Mesh(new BoxGeometry(6, 8, 6), new MeshLambertMaterial({ color: '#a8442a' }));
  box.position.set(((i % 50) - 24.5) * 9.5, 4, (Math.floor(i / 50) - 14.5) * 10.5);
  scene.add(box);
}
const renderer = new WebGLRenderer({ antialias: true });
renderer.setSize(innerWidth, innerHeight);
document.body.append(renderer.domElement);
const camera = new PerspectiveCamera(45, innerWidth / innerHeight, 2, 8 * w);
let turn = 0;
requestAnimationFrame(function frame() {
  turn += 0.02;
  camera.position.set(0, 110, d / 2 + 75);
  camera.lookAt(120 * Math.sin(turn), 0, 0);
  renderer.render(scene, camera);
  requestAnimationFrame(frame);
});
