import { Box3, MOUSE, PerspectiveCamera, TOUCH, Vector3 } from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';

/** The viewpoint: right button orbits, middle pans, the wheel zooms to the pointer; the left button is left for picking. */
export class Viewpoint {
    /**
     * @param {HTMLElement} element
     * @param {() => void} moved
     */
    constructor(element, moved) {
        this.camera = new PerspectiveCamera(40, 1, 0.1, 5000);
        this.camera.up.set(0, 0, 1);
        this.camera.position.set(46, -60, 40);
        this.controls = new OrbitControls(this.camera, element);
        this.controls.mouseButtons = { LEFT: null, MIDDLE: MOUSE.PAN, RIGHT: MOUSE.ROTATE };
        this.controls.touches = { ONE: TOUCH.ROTATE, TWO: TOUCH.DOLLY_PAN };
        this.controls.zoomToCursor = true;
        this.controls.zoomSpeed = 1.6;
        this.controls.screenSpacePanning = true;
        this.controls.addEventListener('change', moved);
        this.moved = moved;
        this.all = new Box3();
        this.flight = 0;
    }

    /**
     * @param {number} width
     * @param {number} height
     */
    resize(width, height) {
        this.camera.aspect = width / height;
        this.camera.updateProjectionMatrix();
    }

    /** Clip planes follow the model, so that near things are not cut and far things do not flicker. */
    clip() {
        const far = this.all.isEmpty() ? 1000 : this.all.getSize(new Vector3()).length() + this.camera.position.distanceTo(this.all.getCenter(new Vector3()));
        this.camera.far = Math.max(10, far * 1.2);
        this.camera.near = Math.max(0.02, this.camera.far / 20000);
        this.camera.updateProjectionMatrix();
        this.camera.updateMatrixWorld();
    }

    /** @returns {{eye: number[], target: number[], fov: number}} metres, z up */
    get() {
        return { eye: this.camera.position.toArray(), target: this.controls.target.toArray(), fov: this.camera.fov };
    }

    /**
     * @param {{eye: number[], target: number[], fov: number}} wanted
     * @param {boolean} [atOnce]
     */
    set(wanted, atOnce = false) {
        const from = this.get();
        const still = atOnce || matchMedia('(prefers-reduced-motion: reduce)').matches;
        const started = performance.now();
        const flight = ++this.flight;
        const fly = () => {
            if (flight !== this.flight) return;
            const t = still ? 1 : Math.min(1, (performance.now() - started) / 320);
            const eased = t * t * (3 - 2 * t);
            const mix = (/** @type {number[]} */ a, /** @type {number[]} */ b) => a.map((value, axis) => value + (b[axis] - value) * eased);
            this.camera.position.fromArray(mix(from.eye, wanted.eye));
            this.controls.target.fromArray(mix(from.target, wanted.target));
            this.camera.fov = from.fov + (wanted.fov - from.fov) * eased;
            this.camera.updateProjectionMatrix();
            this.controls.update();
            this.moved();
            if (t < 1) requestAnimationFrame(fly);
        };
        fly();
    }

    /**
     * Frames a box from the present direction.
     * @param {Box3} box
     * @param {boolean} [atOnce]
     */
    fit(box, atOnce = false) {
        if (box.isEmpty()) return;
        const centre = box.getCenter(new Vector3());
        const way = this.camera.position.clone().sub(this.controls.target);
        if (way.lengthSq() < 1e-9) way.set(1, -1, 0.6);
        way.normalize();
        const right = new Vector3().crossVectors(this.camera.up, way).normalize();
        if (right.lengthSq() < 0.5) right.set(1, 0, 0);
        const up = new Vector3().crossVectors(way, right);
        const tall = Math.tan((this.camera.fov * Math.PI) / 360) * 0.94;
        let distance = 0.1;
        for (let corner = 0; corner < 8; corner++) {
            const point = new Vector3(corner & 1 ? box.min.x : box.max.x, corner & 2 ? box.min.y : box.max.y, corner & 4 ? box.min.z : box.max.z).sub(centre);
            const across = Math.max(Math.abs(point.dot(right)) / (tall * this.camera.aspect), Math.abs(point.dot(up)) / tall);
            distance = Math.max(distance, across + point.dot(way));
        }
        const eye = centre.clone().addScaledVector(way, distance);
        this.set({ eye: eye.toArray(), target: centre.toArray(), fov: this.camera.fov }, atOnce);
    }
}
