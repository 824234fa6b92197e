import { useEffect, useRef, useState } from "react";
import {
  AmbientLight,
  ArrowHelper,
  BufferGeometry,
  CanvasTexture,
  Color,
  CylinderGeometry,
  DirectionalLight,
  DoubleSide,
  EdgesGeometry,
  ExtrudeGeometry,
  Group,
  Line,
  LineBasicMaterial,
  LineDashedMaterial,
  LineSegments,
  Mesh,
  MeshLambertMaterial,
  Path,
  PerspectiveCamera,
  Scene,
  Shape,
  Sprite,
  SpriteMaterial,
  Vector2,
  Vector3,
  WebGLRenderer,
} from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import { useElementSize } from "../../../../app/useElementSize";
import { easeMs, useEased } from "../useEased";
import type { Body, MovingArrow, Relief, SpaceScene, SpaceWay, Tone } from "./bodies";
import { reliefGeometry, turnedGeometry } from "./cut";

const SIDES = {
  corner: [-0.7, -1, 0.75],
  front: [0, -1, 0.02],
  right: [1, 0, 0.02],
  back: [0, 1, 0.02],
  left: [-1, 0, 0.02],
  top: [0, -0.01, 1],
} as const;
type SideName = keyof typeof SIDES;
const CHOSEN = "border-ink bg-ink font-bold text-panel";

const VARS: Record<Tone, string> = {
  stock: "--stock",
  jaw: "--jaw",
  steel: "--steel",
  table: "--rule",
  dark: "--steel-dark",
  tip: "--contact",
  gauge: "--expected",
};
const colorOf = (name: string): Color =>
  new Color(getComputedStyle(document.documentElement).getPropertyValue(name).trim());

/** The frame of the machine (u right, v back, w up) in the one of the picture (y up, z to the viewer). */
const inPicture = ([u, v, w]: readonly [number, number, number]): Vector3 => new Vector3(u, w, -v);

function geometryOf(body: Exclude<Body, Relief>): BufferGeometry {
  if (body.kind === "turned") return turnedGeometry(body);
  if (body.kind === "cylinder") {
    const geometry = new CylinderGeometry(body.radius, body.radius, body.to - body.from, 40);
    const middle = (body.from + body.to) / 2;
    if (body.along === "u") {
      geometry.rotateZ(Math.PI / 2);
      geometry.translate(middle, body.at[1], -body.at[0]);
    } else geometry.translate(body.at[0], middle, -body.at[1]);
    return geometry;
  }
  const shape = new Shape(body.outline.map(([u, v]) => new Vector2(u, v)));
  if (body.hole) {
    const hole = new Path();
    if ("radius" in body.hole) hole.absarc(body.hole.at[0], body.hole.at[1], body.hole.radius, 0, Math.PI * 2, true);
    else hole.setFromPoints(body.hole.map(([u, v]) => new Vector2(u, v)));
    shape.holes.push(hole);
  }
  const geometry = new ExtrudeGeometry(shape, { depth: body.high - body.low, bevelEnabled: false, curveSegments: 40 });
  geometry.rotateX(-Math.PI / 2);
  geometry.translate(0, body.low, 0);
  return geometry;
}

function groupOf(bodies: readonly Body[]): Group {
  const group = new Group();
  const line = new LineBasicMaterial({ color: colorOf("--ink") });
  for (const body of bodies) {
    // a relief shows its top whichever way its faces turn
    const look = new MeshLambertMaterial({ color: colorOf(VARS[body.tone]), side: DoubleSide });
    if (body.kind === "relief") {
      const { faces, edges } = reliefGeometry(body);
      group.add(new Mesh(faces, look), new LineSegments(edges, line));
      continue;
    }
    const geometry = geometryOf(body);
    group.add(new Mesh(geometry, look));
    group.add(new LineSegments(new EdgesGeometry(geometry, 30), line));
  }
  return group;
}

/** Words that always face the viewer. */
function wordsAt(text: string, at: Vector3, height: number): Sprite {
  const canvas = document.createElement("canvas");
  const [width, tall] = [40 + text.length * 26, 64];
  canvas.width = width;
  canvas.height = tall;
  const pen = canvas.getContext("2d");
  if (pen) {
    pen.font = "bold 44px 'Atkinson Hyperlegible Next Variable', sans-serif";
    pen.lineWidth = 10;
    pen.strokeStyle = `#${colorOf("--panel").getHexString()}`;
    pen.fillStyle = `#${colorOf("--ink").getHexString()}`;
    pen.textAlign = "center";
    pen.textBaseline = "middle";
    pen.strokeText(text, width / 2, tall / 2);
    pen.fillText(text, width / 2, tall / 2);
  }
  const sprite = new Sprite(new SpriteMaterial({ map: new CanvasTexture(canvas), depthTest: false }));
  sprite.scale.set((height * width) / tall, height, 1);
  sprite.position.copy(at);
  return sprite;
}

function arrowsOf(arrows: readonly MovingArrow[], size: number): Group {
  const group = new Group();
  for (const { label, at, to } of arrows) {
    const [from, end] = [inPicture(at), inPicture(to)];
    const way = end.clone().sub(from);
    group.add(
      new ArrowHelper(way.clone().normalize(), from, way.length(), colorOf("--ink"), size * 0.06, size * 0.035),
    );
    group.add(
      wordsAt(
        label,
        end.clone().add(
          way
            .clone()
            .normalize()
            .multiplyScalar(size * 0.05),
        ),
        size * 0.05,
      ),
    );
  }
  return group;
}

function waysOf(ways: readonly SpaceWay[], size: number): Group {
  const group = new Group();
  const looks = new Map<string, LineBasicMaterial>();
  const lookOf = ({ isRapid, isCalled }: SpaceWay): LineBasicMaterial => {
    const color = colorOf(isCalled ? "--contact" : "--ink");
    const known = looks.get(`${isRapid} ${isCalled}`);
    // what is gone in rapid is dotted
    const look =
      known ??
      (isRapid
        ? new LineDashedMaterial({ color, dashSize: size * 0.004, gapSize: size * 0.012 })
        : // what is cut lies in the part, and is seen through it
          new LineBasicMaterial({ color, depthTest: false }));
    looks.set(`${isRapid} ${isCalled}`, look);
    return look;
  };
  for (const way of ways) {
    const geometry = new BufferGeometry().setFromPoints(way.points.map(inPicture));
    group.add(new Line(geometry, lookOf(way)).computeLineDistances());
  }
  return group;
}

function dispose(group: Group): void {
  group.traverse((one) => {
    if (one instanceof Mesh || one instanceof Line) (one.geometry as BufferGeometry).dispose();
  });
}

const drawsInSpace = (): boolean => document.createElement("canvas").getContext("webgl2") !== null;

/** Everything of the picture that lives longer than one look. */
class Stage {
  readonly scene = new Scene();
  readonly camera = new PerspectiveCamera(32, 1, 1, 8000);
  private readonly renderer: WebGLRenderer;
  readonly controls: OrbitControls;
  private standing = new Group();
  private carried = new Group();
  private arrows = new Group();
  private ways = new Group();
  private frame = 0;
  private isTurning = false;
  private turns: "carried" | "standing" = "carried";
  private turnAngle = 0;

  constructor(canvas: HTMLCanvasElement) {
    this.renderer = new WebGLRenderer({ canvas, antialias: true });
    this.scene.add(new AmbientLight(0xffffff, 1.6));
    const light = new DirectionalLight(0xffffff, 1.8);
    light.position.set(-300, 700, 500);
    this.scene.add(light);
    this.controls = new OrbitControls(this.camera, canvas);
    this.controls.enableDamping = false;
    this.controls.addEventListener("change", () => this.draw());
  }

  draw(): void {
    cancelAnimationFrame(this.frame);
    this.frame = requestAnimationFrame(() => {
      this.renderer.render(this.scene, this.camera);
      if (!this.isTurning) return;
      this.turnAngle += 0.12;
      if (this.turns === "carried") this.carried.rotation.y = this.turnAngle;
      else this.standing.rotation.x = this.turnAngle;
      this.draw();
    });
  }
  size(width: number, height: number): void {
    this.renderer.setPixelRatio(Math.min(2, window.devicePixelRatio));
    this.renderer.setSize(width, height, false);
    this.camera.aspect = width / height;
    this.camera.updateProjectionMatrix();
    this.draw();
  }
  bodies(which: "standing" | "carried", bodies: readonly Body[]): void {
    this.scene.background = colorOf("--well");
    const old = this[which];
    this.scene.remove(old);
    dispose(old);
    this[which] = groupOf(bodies);
    this.scene.add(this[which]);
  }
  point(arrows: readonly MovingArrow[], size: number): void {
    this.scene.remove(this.arrows);
    dispose(this.arrows);
    this.arrows = arrowsOf(arrows, size);
    this.scene.add(this.arrows);
    this.draw();
  }
  lead(ways: readonly SpaceWay[], size: number): void {
    this.scene.remove(this.ways);
    dispose(this.ways);
    this.ways = waysOf(ways, size);
    this.scene.add(this.ways);
    this.draw();
  }
  bring(tip: readonly [number, number, number]): void {
    this.carried.position.copy(inPicture(tip));
    this.draw();
  }
  turn(isTurning: boolean, turns: "carried" | "standing"): void {
    this.isTurning = isTurning && !window.matchMedia("(prefers-reduced-motion: reduce)").matches;
    this.turns = turns;
    this.draw();
  }
  look(from: SideName, at: readonly [number, number, number], reach: number): void {
    const target = inPicture(at);
    const [u, v, w] = SIDES[from];
    const way = inPicture([u, v, w]).normalize();
    this.camera.position.copy(target.clone().add(way.multiplyScalar(reach * 2.1)));
    this.controls.target.copy(target);
    this.controls.update();
    this.draw();
  }
  end(): void {
    cancelAnimationFrame(this.frame);
    this.controls.dispose();
    dispose(this.standing);
    dispose(this.carried);
    dispose(this.arrows);
    dispose(this.ways);
    this.renderer.dispose();
  }
}

/**
 * The same things as in the drawing, in three dimensions, to see how they stand to one another: turned with the mouse,
 * or to a named side. It has nothing that the drawing has not.
 */
export default function SpaceView({
  space,
  ways,
  theme,
}: {
  space: SpaceScene;
  ways: readonly SpaceWay[];
  theme: string;
}) {
  const { ref, width, height } = useElementSize();
  const canvas = useRef<HTMLCanvasElement>(null);
  const stage = useRef<Stage | null>(null);
  const [side, setSide] = useState<SideName>("corner");
  const [isWithout] = useState(() => !drawsInSpace());
  const isReady = width > 0;
  useEffect(() => {
    if (!isReady || !canvas.current) return undefined;
    stage.current = new Stage(canvas.current);
    return () => {
      stage.current?.end();
      stage.current = null;
    };
  }, [isReady]);
  const [u = 0, v = 0, w = 0] = useEased(space.tip, easeMs);
  const standing = JSON.stringify(space.standing);
  const carried = JSON.stringify(space.carried);
  const arrows = JSON.stringify(space.arrows);
  const view = JSON.stringify([space.looksAt, space.reach]);
  useEffect(() => {
    stage.current?.bodies("standing", JSON.parse(standing) as Body[]);
  }, [isReady, standing, theme]);
  useEffect(() => {
    stage.current?.bodies("carried", JSON.parse(carried) as Body[]);
  }, [isReady, carried, theme]);
  useEffect(() => {
    stage.current?.point(JSON.parse(arrows) as MovingArrow[], (JSON.parse(view) as [unknown, number])[1]);
  }, [isReady, arrows, view, theme]);
  const led = JSON.stringify(ways);
  useEffect(() => {
    stage.current?.lead(JSON.parse(led) as SpaceWay[], (JSON.parse(view) as [unknown, number])[1]);
  }, [isReady, led, view, theme]);
  useEffect(() => {
    stage.current?.bring([u, v, w]);
  }, [isReady, carried, theme, u, v, w]);
  useEffect(() => {
    stage.current?.turn(space.isTurning, space.turns);
  }, [isReady, space.isTurning, space.turns]);
  useEffect(() => {
    if (isReady) stage.current?.size(width, height);
  }, [isReady, width, height]);
  useEffect(() => {
    const [at, reach] = JSON.parse(view) as [[number, number, number], number];
    stage.current?.look(side, at, reach);
  }, [isReady, side, view]);
  if (isWithout)
    return <p className="p-4">This browser draws nothing in space. The drawing has all that is here: press 3.</p>;
  return (
    <div ref={ref} className="relative min-h-0 min-w-0 flex-1 overflow-hidden" data-part="space">
      <canvas
        ref={canvas}
        width={width}
        height={height}
        style={{ width, height }}
        role="img"
        aria-label="The machine in space, for orientation. The drawing has the same."
      />
      <div role="group" aria-label="Look from" className="absolute top-2 left-2 flex text-xs">
        {(Object.keys(SIDES) as SideName[]).map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={side === one}
            onClick={() => setSide(one)}
            className={`min-h-6 border px-1.5 ${side === one ? CHOSEN : "border-ink3 bg-field"}`}
          >
            {one}
          </button>
        ))}
      </div>
      <p className="absolute bottom-2 left-2 bg-well/80 px-1 text-xs text-ink2">
        Turn it with the mouse. The keys of the axes work here too. Arrows are what moves for a plus.
      </p>
    </div>
  );
}
