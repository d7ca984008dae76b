import {
  AmbientLight,
  BackSide,
  CatmullRomCurve3,
  Color,
  DataTexture,
  DirectionalLight,
  Group,
  Mesh,
  MeshBasicMaterial,
  MeshToonMaterial,
  NearestFilter,
  PerspectiveCamera,
  RedFormat,
  Scene,
  SphereGeometry,
  TubeGeometry,
  Vector3,
  WebGLRenderer,
} from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import type { Space, Thread } from "../api/types.gen";

const ink = new Color("#17242a");

/** tube is a cord with an ink line round it, in flat colours like the plates. */
function tube(t: Thread, shades: DataTexture): Group {
  const points: Vector3[] = [];
  for (let i = 0; i + 2 < t.points.length; i += 3) {
    points.push(new Vector3(t.points[i], -t.points[i + 1], t.points[i + 2]));
  }
  const line = new CatmullRomCurve3(points, false, "centripetal");
  const r = t.diameter_mm / 2;
  const segments = Math.max(8, points.length * 2);
  const out = new Group();
  out.add(
    new Mesh(new TubeGeometry(line, segments, r, 16), new MeshToonMaterial({ color: t.colour, gradientMap: shades })),
  );
  out.add(
    new Mesh(new TubeGeometry(line, segments, r * 1.07, 12), new MeshBasicMaterial({ color: ink, side: BackSide })),
  );
  for (const end of [points[0], points[points.length - 1]]) {
    const cap = new Mesh(new SphereGeometry(r, 16, 12), new MeshToonMaterial({ color: t.colour, gradientMap: shades }));
    cap.position.copy(end);
    out.add(cap);
  }
  return out;
}

/** turn draws the space in a box and lets it be turned; it gives back what ends that. */
export function turn(box: HTMLElement, space: Space): () => void {
  const renderer = new WebGLRenderer({ antialias: true, alpha: true });
  renderer.setPixelRatio(Math.min(2, window.devicePixelRatio));
  const canvas = renderer.domElement;
  canvas.setAttribute("aria-hidden", "true");
  box.append(canvas);

  const shades = new DataTexture(new Uint8Array([150, 205, 255]), 3, 1, RedFormat);
  shades.minFilter = NearestFilter;
  shades.magFilter = NearestFilter;
  shades.needsUpdate = true;

  const scene = new Scene();
  for (const t of space.strands) scene.add(tube(t, shades));
  for (const b of space.balls ?? []) {
    const core = new Mesh(
      new SphereGeometry(b.diameter_mm / 2, 32, 24),
      new MeshToonMaterial({ color: b.colour, gradientMap: shades }),
    );
    core.position.set(0, -b.at_y, 0);
    scene.add(core);
  }
  const light = new DirectionalLight("#ffffff", 2.6);
  const camera = new PerspectiveCamera(32, 1, 1, 4000);
  camera.add(light);
  light.position.set(-0.6, 0.7, 0.6);
  scene.add(camera, new AmbientLight("#ffffff", 0.9));

  let reach = 10;
  for (const t of space.strands) {
    for (let i = 0; i + 2 < t.points.length; i += 3) {
      reach = Math.max(reach, Math.hypot(t.points[i], t.points[i + 1], t.points[i + 2]));
    }
  }
  const far = (reach * 1.12) / Math.sin((camera.fov * Math.PI) / 360);
  const controls = new OrbitControls(camera, canvas);
  controls.enablePan = false;
  controls.minDistance = far * 0.25;
  controls.maxDistance = far * 2;

  const draw = () => {
    renderer.render(scene, camera);
    box.dataset.look = [camera.position.x, camera.position.y, camera.position.z].map((v) => v.toFixed(1)).join(" ");
  };
  const look = (angle: number) => {
    camera.position.set(Math.sin(angle) * far, 0, Math.cos(angle) * far);
    controls.update();
    draw();
  };
  controls.addEventListener("change", draw);
  const fit = new ResizeObserver(() => {
    const { clientWidth: w, clientHeight: h } = box;
    if (w === 0 || h === 0) return;
    renderer.setSize(w, h);
    camera.aspect = w / h;
    camera.updateProjectionMatrix();
    draw();
  });
  fit.observe(box);
  look(0);

  /** about turns the eye round the knot by angles across and up. */
  const about = (across: number, up: number, nearer = 1) => {
    const p = camera.position;
    const r = Math.min(far * 2, Math.max(far * 0.25, p.length() * nearer));
    const polar = Math.min(Math.PI - 0.05, Math.max(0.05, Math.acos(p.y / p.length()) + up));
    const turned = Math.atan2(p.x, p.z) + across;
    p.set(r * Math.sin(polar) * Math.sin(turned), r * Math.cos(polar), r * Math.sin(polar) * Math.cos(turned));
    controls.update();
    draw();
  };
  const step = Math.PI / 18;
  const keys = new Map<string, () => void>([
    ["arrowleft", () => about(-step, 0)],
    ["arrowright", () => about(step, 0)],
    ["arrowup", () => about(0, -step)],
    ["arrowdown", () => about(0, step)],
    ["+", () => about(0, 0, 0.85)],
    ["=", () => about(0, 0, 0.85)],
    ["-", () => about(0, 0, 1 / 0.85)],
    ["0", () => look(0)],
    ["f", () => look(Math.PI)],
  ]);
  const onKey = (e: KeyboardEvent) => {
    const act = keys.get(e.key.toLowerCase());
    if (!act) return;
    e.preventDefault();
    e.stopPropagation();
    act();
  };
  box.addEventListener("keydown", onKey);
  return () => {
    box.removeEventListener("keydown", onKey);
    fit.disconnect();
    controls.dispose();
    scene.traverse((o) => {
      if (o instanceof Mesh) {
        o.geometry.dispose();
        o.material.dispose();
      }
    });
    shades.dispose();
    renderer.dispose();
    canvas.remove();
  };
}
