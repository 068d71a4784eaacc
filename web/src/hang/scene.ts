import {
  AmbientLight,
  BufferAttribute,
  BufferGeometry,
  Color,
  DataTexture,
  DirectionalLight,
  DoubleSide,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshLambertMaterial,
  MeshToonMaterial,
  NearestFilter,
  PerspectiveCamera,
  RedFormat,
  Scene,
  WebGLRenderer,
} from "three";
import type { Hang } from "../api/client";

export type Look = "shaded" | "ink" | "tight";
type Shape = NonNullable<Hang["shape"]>;

/** Tenths of a millimetre in a metre. */
const METRE = 10_000;
/** What is strained by more than this many thousandths is drawn as tight. */
const TIGHT = 20;
const ROUND = 64;
/** Her form is drawn so much smaller, so that it does not show through cloth that lies on it (tenths of a millimetre). */
const UNDER = 50;

const css = (name: string) =>
  new Color(getComputedStyle(document.documentElement).getPropertyValue(`--color-${name}`).trim());

/** What is told of her left and of her right; where both are alike the right is the left's mirror image. */
export type Sides<T> = readonly [left: T, right: T];

/** A dress on her form, drawn with three.js: its left half, and its right one, told as it is seen in a mirror. */
export class Hung {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly camera = new PerspectiveCamera(24, 1, 0.1, 20);
  private cloth: Mesh<BufferGeometry, MeshLambertMaterial | MeshToonMaterial>[] = [];
  private lines: LineSegments[] = [];
  /** Where the points of each half are. */
  private at: BufferAttribute[] = [];
  private look: Look | null = null;
  private form: Mesh | null = null;
  private shapes: Sides<Shape> | null = null;
  private turn = 0;
  private tall = 1.6;
  /** How far out her hands are (m). */
  private reach = 0;

  constructor(private readonly canvas: HTMLCanvasElement) {
    this.renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true, preserveDrawingBuffer: true });
    this.renderer.setPixelRatio(Math.min(window.devicePixelRatio, 2));
    const key = new DirectionalLight(0xffffff, 1.7);
    key.position.set(-1.8, 1.6, 1);
    const fill = new DirectionalLight(0xffffff, 0.35);
    fill.position.set(2, 0.2, 1);
    // the light goes with who looks, as if the stand were turned before a window
    this.camera.add(key, fill);
    this.scene.add(this.camera, new AmbientLight(0xffffff, 0.9));
  }

  /** New triangles: what was drawn is put away. */
  begin(shapes: Sides<Shape>) {
    this.clear();
    this.shapes = shapes;
    this.form = this.drawnForm(shapes[0]);
    this.scene.add(this.form);
  }

  /** Where its points are, how it is shown, how it is strained there, and the ways straight out of it, where told. */
  draw(places: Sides<number[]>, look: Look, strains: Sides<number[]> | null, ways: Sides<number[]> | null) {
    const shapes = this.shapes;
    if (!shapes) return;
    // made once for a look: what falls is only moved, so that nothing is compiled anew while it does
    if (this.look !== look || this.cloth.length === 0) this.dress(shapes, places, look);
    const tints = ([0, 1] as const).map((k) =>
      k === 1 && shapes[1] === shapes[0]
        ? null // as on her left
        : tinted(shapes[k], look, strains?.[k] ?? null, places[k].length / 3),
    );
    for (const k of [0, 1] as const) {
      const at = this.at[k];
      const geometry = this.cloth[k]?.geometry;
      if (!at || !geometry) continue;
      at.copyArray(placed(places[k], k === 0 ? 1 : -1)).needsUpdate = true;
      if (ways) geometry.setAttribute("normal", new BufferAttribute(placed(ways[k], k === 0 ? 1 : -1), 3));
      else geometry.computeVertexNormals();
      geometry.setAttribute("color", new BufferAttribute(tints[k] ?? tints[0] ?? new Float32Array(), 3));
      geometry.computeBoundingSphere();
      this.lines[k]?.geometry.computeBoundingSphere();
    }
    this.show();
  }

  /** Both halves of the cloth and their lines, to be put where they are. */
  private dress(shapes: Sides<Shape>, places: Sides<number[]>, look: Look) {
    for (const old of [...this.cloth, ...this.lines]) this.remove(old);
    this.cloth = [];
    this.lines = [];
    this.at = [];
    this.look = look;
    const ink = css("ink");
    for (const k of [0, 1] as const) {
      const shape = shapes[k];
      const at = new BufferAttribute(new Float32Array(places[k].length), 3);
      const geometry = new BufferGeometry();
      geometry.setAttribute("position", at);
      geometry.setIndex(k === 0 ? shape.triangles : turnedOver(shape.triangles));
      const of = { vertexColors: true, side: DoubleSide, polygonOffset: true, polygonOffsetFactor: 1 };
      const material =
        look === "ink"
          ? new MeshToonMaterial({ ...of, gradientMap: steps() })
          : new MeshLambertMaterial({ ...of, flatShading: false });
      const edges = new BufferGeometry();
      edges.setAttribute("position", at);
      edges.setIndex(shape.lines);
      this.at.push(at);
      this.cloth.push(new Mesh(geometry, material));
      this.lines.push(
        new LineSegments(
          edges,
          new LineBasicMaterial({ color: ink, transparent: true, opacity: look === "ink" ? 1 : 0.55 }),
        ),
      );
    }
    this.scene.add(...this.cloth, ...this.lines);
  }

  /** Turn it so that it is seen from so many degrees round to her left of the front. */
  turned(degrees: number) {
    this.turn = (degrees * Math.PI) / 180;
    this.show();
  }

  show() {
    const { clientWidth: wide, clientHeight: high } = this.canvas;
    if (!wide || !high) return;
    this.renderer.setSize(wide, high, false);
    this.camera.aspect = wide / high;
    const middle = this.tall * 0.5;
    const slope = Math.tan((this.camera.fov * Math.PI) / 360);
    const far = Math.max(
      (this.tall * 0.55) / slope / Math.min(1, (wide / high) * 1.75),
      (this.reach * 1.1) / slope / (wide / high),
    );
    this.camera.position.set(Math.sin(this.turn) * far, middle + 0.12, Math.cos(this.turn) * far);
    this.camera.lookAt(0, middle, 0);
    this.camera.updateProjectionMatrix();
    this.renderer.render(this.scene, this.camera);
  }

  dispose() {
    this.clear();
    this.renderer.dispose();
  }

  private clear() {
    for (const old of [...this.cloth, ...this.lines, ...(this.form ? [this.form] : [])]) this.remove(old);
    this.cloth = [];
    this.lines = [];
    this.form = null;
  }

  private remove(old: Mesh | LineSegments) {
    this.scene.remove(old);
    old.geometry.dispose();
    for (const one of [old.material].flat()) one.dispose();
  }

  private drawnForm(shape: Shape) {
    const geometry = new BufferGeometry();
    const at: number[] = [];
    const corners: number[] = [];
    // where she stands on legs a section lies to her left, and its mirror image to her right
    const sides = shape.form.some((of, k) => k % 4 === 3 && of > 0) ? [1, -1] : [1];
    for (const side of sides) ringed(shape.form, 0, shape.every, side, at, corners);
    for (const side of [1, -1]) ringed(shape.arm, shape.arm_low, shape.every, side, at, corners);
    this.tall = ((shape.form.length / 4 - 1) * shape.every) / METRE;
    this.reach = Math.max(0, ...shape.arm.filter((_, k) => k % 4 === 3)) / METRE;
    geometry.setAttribute("position", new BufferAttribute(new Float32Array(at), 3));
    geometry.setIndex(corners);
    geometry.computeVertexNormals();
    return new Mesh(geometry, new MeshLambertMaterial({ color: css("form"), side: DoubleSide }));
  }
}

/** Level sections from the lowest up, each joined to the one below; no smaller than is left of them. */
function ringed(
  sections: number[],
  low: number,
  every: number,
  side: number,
  at: number[],
  corners: number[],
) {
  const before = at.length / 3;
  for (let row = 0; row < sections.length / 4; row++) {
    const [wide = 0, deep = 0, forward = 0, left = 0] = sections.slice(4 * row, 4 * row + 4);
    for (let k = 0; k < ROUND; k++) {
      const round = (2 * Math.PI * k) / ROUND;
      at.push(
        (side * left + Math.max(wide - UNDER, 1) * Math.sin(round)) / METRE,
        (low + row * every) / METRE,
        (forward + Math.max(deep - UNDER, 1) * Math.cos(round)) / METRE,
      );
      if (row === 0) continue;
      const [a, b] = [before + row * ROUND + k, before + row * ROUND + ((k + 1) % ROUND)];
      corners.push(a - ROUND, b - ROUND, a, a, b - ROUND, b);
    }
  }
}

/** Places as three.js has them: y up, z to the front. */
function placed(places: number[], side: number) {
  const at = new Float32Array(places.length);
  for (let k = 0; k < places.length; k += 3) {
    at[k] = (side * (places[k] ?? 0)) / METRE;
    at[k + 1] = (places[k + 2] ?? 0) / METRE;
    at[k + 2] = (places[k + 1] ?? 0) / METRE;
  }
  return at;
}

function turnedOver(triangles: number[]) {
  const made = triangles.slice();
  for (let k = 0; k < made.length; k += 3) [made[k], made[k + 1]] = [made[k + 1] ?? 0, made[k] ?? 0];
  return made;
}

/** The colour of every point: of its cloth, or how tight it is. */
function tinted(shape: Shape, look: Look, strains: number[] | null, count: number) {
  const made = new Float32Array(3 * count);
  const [card, thread, plain] = [css("card"), css("thread"), css("lining")];
  const cloth = shape.colours.map((colour) =>
    colour && look !== "tight"
      ? card.clone().lerp(new Color(colour), look === "ink" ? 0.25 : 0.75)
      : look === "ink"
        ? card
        : plain,
  );
  shape.piece_of.forEach((piece, triangle) => {
    const tight =
      look === "tight" && strains ? Math.min(Math.max((strains[triangle] ?? 0) / TIGHT, 0), 1) : 0;
    const colour = (cloth[piece] ?? card).clone().lerp(thread, tight);
    for (let corner = 0; corner < 3; corner++) {
      const point = shape.triangles[3 * triangle + corner] ?? 0;
      made.set([colour.r, colour.g, colour.b], 3 * point);
    }
  });
  return made;
}

let gradient: DataTexture | null = null;
/** Three steps from shade to light, as an ink drawing is washed. */
function steps() {
  if (!gradient) {
    gradient = new DataTexture(new Uint8Array([96, 176, 255]), 3, 1, RedFormat);
    gradient.minFilter = NearestFilter;
    gradient.magFilter = NearestFilter;
    gradient.needsUpdate = true;
  }
  return gradient;
}
