import { Box3 } from 'three';
import { Walk } from '../canvas/walk.js';
import { Frame } from './frame.js';
import { remember, remembered } from './ownwindow.js';

/** How a person looks at the model: what is framed, the kind of camera, walking; and the buttons that say so. */
export class Looking {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        /** Whether a view that was applied holds the camera. */
        this.heldByView = false;
        this.frame = new Frame(bench);
        this.walk = new Walk(
            bench.canvas.viewpoint,
            (from, way) => bench.server.post('/pick/meet', { 'from[]': from, 'way[]': way }),
            () => this.walkEnded(),
        );
    }

    /** Frames the pick; what is hidden as well, since the server knows where it is. */
    async framePick() {
        if (this.bench.picked === 0) return this.bench.canvas.framing.all();
        const found = await this.bench.server.json('/find/frame');
        this.bench.canvas.framing.box(found?.box ?? null);
    }

    /** @param {number} object */
    async frameObject(object) {
        const found = await this.bench.server.json(`/find/frame?object=${object}`);
        return this.bench.finder.approach(object, found?.box ?? null);
    }

    /** What a side view frames: the pick, or everything that is shown. */
    framed() {
        const { canvas } = this.bench;
        const box = new Box3().union(canvas.placements.bounds((index) => canvas.pick[canvas.placements.object[index]] === 1));
        return box.isEmpty() ? canvas.viewpoint.all : box;
    }

    /** Brings the camera's buttons up to date. */
    show() {
        const { viewpoint } = this.bench.canvas;
        const press = (/** @type {string} */ id, /** @type {boolean} */ on) =>
            document.querySelector(`.tools [data-command=${id}]`)?.setAttribute('aria-pressed', String(on));
        press('parallel', viewpoint.isParallel);
        press('hold', viewpoint.held);
        press('walk', this.walk.on);
        /** @type {[string, number][]} */ ([
            ['viewpoint-back', -1],
            ['viewpoint-next', 1],
        ]).forEach(([id, way]) =>
            document.querySelector(`.tools [data-command=${id}]`)?.toggleAttribute('disabled', !viewpoint.rests[viewpoint.at + way]),
        );
    }

    /** @param {boolean} parallel */
    setParallel(parallel) {
        this.walk.end();
        this.bench.canvas.viewpoint.project(parallel);
        this.show();
        this.bench.say(parallel ? 'Parallel.' : 'Perspective.');
    }

    /** @param {boolean} held */
    setHold(held) {
        this.heldByView = false;
        this.bench.canvas.viewpoint.hold(held);
        this.show();
        this.bench.say(held ? 'The camera is held. H lets it go.' : 'The camera is free.');
    }

    /** @param {boolean} on */
    async setWalk(on) {
        if (!on) return this.walk.end();
        const wrong = await this.walk.start();
        this.show();
        this.bench.say(wrong || 'Walking: arrow keys or W A S D, right button to look around, Esc to stop.');
    }

    walkEnded() {
        this.show();
        this.bench.say('Walking has ended.');
    }

    /**
     * Goes where a view was kept from. A camera that a view holds is held when it is there, and let go by the next view.
     * @param {import('../canvas/camera.js').Sight} sight
     * @param {boolean} held
     */
    goTo(sight, held) {
        const { viewpoint } = this.bench.canvas;
        if (this.heldByView) viewpoint.hold(false);
        this.heldByView = held && !viewpoint.held;
        viewpoint.holdsThere = this.heldByView;
        viewpoint.arrived = () => {
            viewpoint.holdsThere = false;
            viewpoint.hold(true);
            this.show();
        };
        this.frame.of(sight.aspect ?? 0);
        viewpoint.set(this.frame.fitted(sight));
        this.show();
    }

    /**
     * @param {{object: number, eye: number[], way: number[], up?: number[], fov: number, tall?: number, name: string}} camera
     * of the model
     */
    lookThrough(camera) {
        const target = camera.eye.map((value, axis) => value + camera.way[axis] * 5);
        this.bench.canvas.viewpoint.set({
            eye: camera.eye,
            target,
            fov: camera.fov,
            ...(camera.tall ? { tall: camera.tall } : {}),
            ...(camera.up ? { up: camera.up } : {}),
        });
        this.show();
        this.bench.say(`Seen through ${camera.name}.`);
    }

    /** A view of the camera and nothing else. */
    keepCamera() {
        const { server, canvas } = this.bench;
        return server.ask('POST', '/views', {
            name: '',
            keep_camera: 1,
            camera: JSON.stringify(canvas.sight()),
            picture: canvas.picture(),
        });
    }

    /** Asks how many cameras are to go around the pick, as far from it as shows all of it. */
    async askAround() {
        const found = await this.bench.server.json('/find/frame');
        const html = await this.bench.server.html('/cameras/around');
        const box = found?.box ?? null;
        if (!html || box === null) return;
        this.bench.dialogs.open(html);
        const { viewpoint } = this.bench.canvas;
        const sight = viewpoint.fitted(new Box3().setFromArray([...box]));
        const field = /** @type {HTMLInputElement | null} */ (this.bench.dialogs.element.querySelector('[name=camera]'));
        if (field) field.value = JSON.stringify({ ...sight, aspect: viewpoint.aspect });
    }

    /** The camera is this person's own, in this browser. */
    remember() {
        if (this.bench.canvas.framing.framed)
            remember(`camera:${this.bench.server.base}`, JSON.stringify(this.bench.canvas.viewpoint.get()));
    }

    remembered() {
        try {
            return JSON.parse(remembered(`camera:${this.bench.server.base}`) ?? 'null');
        } catch {
            return null;
        }
    }
}
