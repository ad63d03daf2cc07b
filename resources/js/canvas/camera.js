import { Box3, MOUSE, OrthographicCamera, PerspectiveCamera, TOUCH, Vector3 } from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';

/**
 * Where the model is seen from. `tall` is there for a parallel view: metres that the picture is high.
 * `aspect` is how much wider than high the picture was.
 * @typedef {{eye: number[], target: number[], fov: number, tall?: number, up?: number[], aspect?: number}} Sight
 */

/** What is framed keeps so much of itself free around it. */
const ROOM = 1.04;

const REMEMBERED = 60;

/** How far off the vertical, as a share of the way, somebody looks who looks straight down: so there is a side that is up. */
const STEEP = 1e-5;
/** Directions from which the plan and the four sides look at the model. */
export const SIDES = /** @type {Record<string, number[]>} */ ({
    plan: [0, -1e-4, 1],
    front: [0, -1, 0],
    back: [0, 1, 0],
    left: [-1, 0, 0],
    right: [1, 0, 0],
});

/** The viewpoint: right button orbits, middle pans, the wheel zooms to the pointer; the left button is left for picking. */
export class Viewpoint {
    /**
     * @param {HTMLElement} element
     * @param {() => void} moved
     */
    constructor(element, moved) {
        this.deep = new PerspectiveCamera(40, 1, 0.1, 5000);
        this.flat = new OrthographicCamera(-1, 1, 1, -1, -1000, 1000);
        for (const camera of [this.deep, this.flat]) {
            camera.up.set(0, 0, 1);
            camera.position.set(46, -60, 40);
        }
        /** @type {PerspectiveCamera | OrthographicCamera} */
        this.camera = this.deep;
        this.aspect = 1;
        /** Shares of the width and height that are covered at each side. */
        this.free = { left: 0, top: 0, right: 0, bottom: 0 };
        /** @type {any} it takes either camera */
        this.controls = new OrbitControls(this.camera, element);
        this.controls.mouseButtons = { LEFT: null, MIDDLE: MOUSE.PAN, RIGHT: MOUSE.ROTATE };
        this.controls.touches = { ONE: TOUCH.ROTATE, TWO: TOUCH.DOLLY_PAN };
        this.controls.zoomToCursor = true;
        this.controls.zoomSpeed = 1.6;
        this.controls.screenSpacePanning = true;
        this.controls.addEventListener('change', () => this.changed());
        // Whoever turns it sets it upright: around a leaning axis nobody finds their way.
        element.addEventListener('pointerdown', (event) => event.button === 2 && this.straighten());
        this.moved = moved;
        this.all = new Box3();
        this.flight = 0;
        /** Milliseconds that it takes. */
        this.flightTime = 320;
        /** Where the camera is flying to. @type {Sight | null} */
        this.goal = null;
        this.held = false;
        /** Viewpoints that were rested at, and which of them this is. @type {Sight[]} */
        this.rests = [];
        this.at = -1;
        this.resting = 0;
    }

    get isParallel() {
        return this.camera === this.flat;
    }

    /** Metres that the picture is high at the target. */
    get tall() {
        if (this.isParallel) return (this.flat.top - this.flat.bottom) / this.flat.zoom;
        return 2 * this.deep.position.distanceTo(this.controls.target) * Math.tan((this.deep.fov * Math.PI) / 360);
    }

    changed() {
        this.moved();
        clearTimeout(this.resting);
        // On its way somewhere it does not rest, however slowly it gets there.
        this.resting = window.setTimeout(() => this.goal === null && this.rest(), 600);
    }

    /** Notes where the camera has come to rest, so that one can go back there. @param {Sight} [here] */
    rest(here = this.get()) {
        const last = this.rests[this.at];
        const near = (/** @type {number[]} */ a, /** @type {number[]} */ b) =>
            Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) < 1e-3 * (1 + Math.hypot(...a));
        if (
            last &&
            near(last.eye, here.eye) &&
            near(last.target, here.target) &&
            Math.abs((last.tall ?? 0) - (here.tall ?? 0)) < 1e-3 * (here.tall ?? 1)
        )
            return;
        this.rests.splice(this.at + 1);
        this.rests.push(here);
        if (this.rests.length > REMEMBERED) this.rests.shift();
        this.at = this.rests.length - 1;
        this.restChanged?.();
    }

    /** Goes to the viewpoint before or after this one. @param {number} way -1 or 1 @returns {boolean} whether there was one */
    step(way) {
        // Where it is, or is going, is a place to come back to, even if nobody has waited there.
        if (!this.held) this.rest(this.goal ?? this.get());
        const sight = this.rests[this.at + way];
        if (!sight || this.held) return false;
        this.at += way;
        this.set(sight);
        this.restChanged?.();
        return true;
    }

    /** Whether the camera is held once it is where it flies to. */
    holdsThere = false;

    /** @type {(() => void) | undefined} called when it is there and is to be held */
    arrived = undefined;

    /** @type {(() => void) | undefined} called when there is another viewpoint to go back or on to */
    restChanged = undefined;

    /** Keeps the camera where it is, whatever happens. @param {boolean} held */
    hold(held) {
        this.held = held;
        // A flight that is under way ends here.
        if (held) {
            this.flight++;
            this.goal = null;
        }
        this.controls.enabled = !held;
    }

    /**
     * @param {number} width
     * @param {number} height
     */
    resize(width, height) {
        const { tall } = this;
        this.aspect = width / height;
        this.deep.aspect = this.aspect;
        this.deep.updateProjectionMatrix();
        if (this.isParallel) this.stretch(tall);
    }

    /** @param {number} tall metres that the parallel picture is high */
    stretch(tall) {
        Object.assign(this.flat, {
            top: tall / 2,
            bottom: -tall / 2,
            left: (-tall / 2) * this.aspect,
            right: (tall / 2) * this.aspect,
            zoom: 1,
        });
        this.flat.updateProjectionMatrix();
    }

    /** Clip planes follow the model, so that near things are not cut and far things do not flicker. */
    clip(camera = this.camera) {
        const far = this.all.isEmpty()
            ? 1000
            : this.all.getSize(new Vector3()).length() + camera.position.distanceTo(this.all.getCenter(new Vector3()));
        if (camera instanceof OrthographicCamera) {
            // In parallel, what is behind the eye is seen as well.
            camera.near = -far * 1.2;
            camera.far = far * 1.2;
        } else {
            camera.far = Math.max(10, far * 1.2);
            camera.near = Math.max(0.02, camera.far / 20000);
        }
        camera.updateProjectionMatrix();
        camera.updateMatrixWorld();
    }

    /**
     * Goes there at once, for a picture of its own shape.
     * @param {Sight} sight
     * @param {number} aspect of the picture, width by height
     * @returns {PerspectiveCamera | OrthographicCamera} a camera that looks the same way
     */
    cameraOf(sight, aspect) {
        this.set(sight, true);
        const camera = this.camera.clone();
        if (camera instanceof OrthographicCamera) {
            camera.left = camera.bottom * aspect;
            camera.right = camera.top * aspect;
        } else camera.aspect = aspect;
        this.clip(camera);
        return camera;
    }

    /** @returns {Sight} metres, z up */
    get() {
        return {
            eye: this.camera.position.toArray(),
            target: this.controls.target.toArray(),
            fov: this.deep.fov,
            ...(this.isParallel ? { tall: this.tall } : {}),
            ...(this.leans ? { up: this.camera.up.toArray() } : {}),
        };
    }

    /** Whether it leans to a side: then it says where up is. */
    get leans() {
        return this.camera.up.z !== 1;
    }

    /**
     * Takes an up of its own, or stands upright. Looking straight down or up, that is told by a way that is hardly off the vertical.
     * @param {Sight} sight
     */
    lean({ eye, target, up }) {
        this.camera.up.set(0, 0, 1);
        if (!up) return;
        const way = new Vector3().fromArray(target).sub(new Vector3().fromArray(eye));
        const far = way.length();
        const wanted = new Vector3().fromArray(up).projectOnPlane(way.normalize());
        if (far < 1e-9 || wanted.length() < 1e-9) return;
        wanted.normalize();
        if (Math.abs(way.z) > 1 - 1e-9) this.camera.position.addScaledVector(wanted, (way.z < 0 ? -1 : 1) * STEEP * far);
        else if (wanted.dot(this.camera.up.clone().projectOnPlane(way).normalize()) < 1 - 1e-8) this.camera.up.copy(wanted);
    }

    /** The camera as the server needs it to find what a region catches. */
    sight() {
        this.camera.updateMatrixWorld();
        const m = this.camera.matrixWorld.elements;
        const eye = this.camera.position.toArray();
        return {
            eye,
            target: [eye[0] - m[8], eye[1] - m[9], eye[2] - m[10]],
            up: [m[4], m[5], m[6]],
            ...(this.isParallel ? { tall: this.tall } : { fov: this.deep.fov, near: this.deep.near }),
        };
    }

    straighten() {
        if (this.held || !this.leans) return;
        this.camera.up.set(0, 0, 1);
        this.controls.update();
        this.changed();
    }

    /** @param {boolean} parallel */
    project(parallel) {
        if (parallel === this.isParallel) return;
        const { tall } = this;
        const next = parallel ? this.flat : this.deep;
        next.position.copy(this.camera.position);
        next.up.copy(this.camera.up);
        if (parallel) this.stretch(tall);
        else {
            const way = this.camera.position.clone().sub(this.controls.target).normalize();
            next.position.copy(this.controls.target).addScaledVector(way, tall / (2 * Math.tan((this.deep.fov * Math.PI) / 360)));
        }
        this.camera = next;
        this.controls.object = next;
        this.controls.update();
        this.changed();
    }

    /**
     * @param {Sight} wanted
     * @param {boolean} [atOnce]
     */
    set(wanted, atOnce = false) {
        if (this.held) return;
        this.project(wanted.tall !== undefined);
        const from = this.get();
        const still = atOnce || matchMedia('(prefers-reduced-motion: reduce)').matches;
        const started = performance.now();
        const flight = ++this.flight;
        this.goal = wanted;
        const fly = () => {
            if (flight !== this.flight) return;
            const t = still ? 1 : Math.min(1, (performance.now() - started) / this.flightTime);
            if (t === 1) this.goal = null;
            if (t === 1 && this.holdsThere) this.arrived?.();
            const eased = t * t * (3 - 2 * t);
            const mix = (/** @type {number[]} */ a, /** @type {number[]} */ b) => a.map((value, axis) => value + (b[axis] - value) * eased);
            this.camera.position.fromArray(mix(from.eye, wanted.eye));
            this.controls.target.fromArray(mix(from.target, wanted.target));
            this.deep.fov = from.fov + (wanted.fov - from.fov) * eased;
            this.deep.updateProjectionMatrix();
            if (t === 1) this.lean(wanted);
            if (wanted.tall !== undefined) this.stretch((from.tall ?? wanted.tall) + (wanted.tall - (from.tall ?? wanted.tall)) * eased);
            this.controls.update();
            this.changed();
            if (t < 1) requestAnimationFrame(fly);
        };
        fly();
    }

    /**
     * Frames a box from the present direction, or from another one.
     * @param {Box3} box
     * @param {boolean} [atOnce]
     * @param {number[]} [from] the direction from the target to the eye
     */
    fit(box, atOnce = false, from = undefined) {
        if (!box.isEmpty()) this.set(this.fitted(box, from), atOnce);
    }

    /**
     * Where a box would be framed from, so that it fills the free part of the canvas. Each side of what is seen is a plane that all corners
     * must lie within; the eye is as near as two opposite planes allow, and between them.
     * @param {Box3} box
     * @param {number[]} [from] the direction from the target to the eye
     * @returns {Sight}
     */
    fitted(box, from = undefined) {
        const centre = box.getCenter(new Vector3());
        const way = from ? new Vector3(...from) : this.camera.position.clone().sub(this.controls.target);
        if (way.lengthSq() < 1e-9) way.set(1, -1, 0.6);
        way.normalize();
        const right = new Vector3().crossVectors(this.camera.up, way).normalize();
        if (right.lengthSq() < 0.5) right.set(1, 0, 0);
        const up = new Vector3().crossVectors(way, right);
        const points = [0, 1, 2, 3, 4, 5, 6, 7].map((corner) =>
            new Vector3(corner & 1 ? box.min.x : box.max.x, corner & 2 ? box.min.y : box.max.y, corner & 4 ? box.min.z : box.max.z).sub(
                centre,
            ),
        );
        const slope = Math.tan((this.deep.fov * Math.PI) / 360);
        const { free } = this;
        const across = span(points, right, way, slope * this.aspect * (1 - 2 * free.left), slope * this.aspect * (1 - 2 * free.right));
        const along = span(points, up, way, slope * (1 - 2 * free.bottom), slope * (1 - 2 * free.top));
        const distance = Math.max(0.1, across.distance, along.distance);
        const tall = Math.max(0.02, across.size / this.aspect / (1 - free.left - free.right), along.size / (1 - free.bottom - free.top));
        const [toRight, toTop] = this.isParallel
            ? [across.middle + ((free.right - free.left) / 2) * tall * this.aspect, along.middle + ((free.top - free.bottom) / 2) * tall]
            : [across.at(distance), along.at(distance)];
        const target = centre.clone().addScaledVector(right, toRight).addScaledVector(up, toTop);
        const eye = target.clone().addScaledVector(way, distance);
        return { eye: eye.toArray(), target: target.toArray(), fov: this.deep.fov, ...(this.isParallel ? { tall } : {}) };
    }

    /** Orbits, pans or zooms by a key. @param {KeyboardEvent} event @returns {boolean} whether the key meant something */
    key(event) {
        const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
        const zoom = { '+': 0.85, '=': 0.85, '-': 1 / 0.85 }[event.key];
        if (this.held || (!step && !zoom) || event.ctrlKey || event.altKey || event.metaKey) return false;
        const { target } = this.controls;
        const way = this.camera.position.clone().sub(target);
        if (zoom) {
            if (this.isParallel) this.stretch(this.tall * zoom);
            else this.camera.position.copy(target).addScaledVector(way, zoom);
        } else if (step && event.shiftKey) {
            const right = new Vector3().setFromMatrixColumn(this.camera.matrixWorld, 0);
            const up = new Vector3().setFromMatrixColumn(this.camera.matrixWorld, 1);
            const move = right
                .multiplyScalar(step[0])
                .addScaledVector(up, step[1])
                .multiplyScalar(this.tall * 0.08);
            this.camera.position.add(move);
            target.add(move);
        } else if (step) {
            way.applyAxisAngle(new Vector3(0, 0, 1), -step[0] * 0.12);
            const aside = new Vector3().crossVectors(new Vector3(0, 0, 1), way).normalize();
            const raised = way.clone().applyAxisAngle(aside, -step[1] * 0.12);
            // Not over the pole, where left and right change places.
            if (raised.x ** 2 + raised.y ** 2 > 0.0004 * raised.lengthSq()) way.copy(raised);
            this.camera.position.copy(target).add(way);
        }
        this.controls.update();
        this.changed();
        return true;
    }

    /** The plan or a side, in parallel. @param {string} side of SIDES @param {Box3} box what to frame */
    side(side, box) {
        if (this.held) return;
        this.project(true);
        this.fit(box, false, SIDES[side]);
    }
}

/**
 * How points lie between two opposite sides of what is seen.
 * @param {Vector3[]} points from where the eye looks at
 * @param {Vector3} side from the one side to the other
 * @param {Vector3} way from there to the eye
 * @param {number} low slope of the one side
 * @param {number} high slope of the other
 */
function span(points, side, way, low, high) {
    const above = Math.max(...points.map((point) => point.dot(side) + high * point.dot(way))) * ROOM;
    const below = Math.max(...points.map((point) => low * point.dot(way) - point.dot(side))) * ROOM;
    const places = points.map((point) => point.dot(side));
    return {
        /** From the eye to where it looks, at least. */
        distance: (above + below) / (low + high),
        /** How far the eye stands aside at a distance, so that as much room is seen on both sides. */
        at: (/** @type {number} */ distance) => {
            let [least, most] = [Math.min(...places) - high * distance, Math.max(...places) + low * distance];
            for (let step = 0; step < 40; step++) {
                const at = (least + most) / 2;
                const seen = points.map((point) => (point.dot(side) - at) / Math.max(1e-9, distance - point.dot(way)));
                if (Math.max(...seen) + Math.min(...seen) > high - low) least = at;
                else most = at;
            }
            return (least + most) / 2;
        },
        size: (Math.max(...places) - Math.min(...places)) * ROOM,
        middle: (Math.max(...places) + Math.min(...places)) / 2,
    };
}
