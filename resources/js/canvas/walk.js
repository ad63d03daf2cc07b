import { Vector3 } from 'three';

/** Metres above the floor. */
const EYE_HEIGHT = 1.65;
/** Metres a second. */
const PACE = 1.8;
const KEYS = /** @type {Record<string, string>} */ ({
    w: 'ahead',
    ArrowUp: 'ahead',
    s: 'back',
    ArrowDown: 'back',
    a: 'left',
    d: 'right',
    ArrowLeft: 'turnLeft',
    ArrowRight: 'turnRight',
});

/** Walking inside the model: at eye height over whatever floor is below. The server says where floors are. */
export class Walk {
    /**
     * @param {import('./camera.js').Viewpoint} viewpoint
     * @param {(from: number[], way: number[]) => Promise<{object: number, at?: number[]} | null>} meet where a ray first meets the model
     * @param {() => void} ended
     */
    constructor(viewpoint, meet, ended) {
        this.viewpoint = viewpoint;
        this.meet = meet;
        this.ended = ended;
        this.on = false;
        /** @type {Set<string>} */
        this.pressed = new Set();
        this.floor = 0;
        addEventListener('keydown', (event) => this.key(event, true), true);
        addEventListener('keyup', (event) => this.key(event, false), true);
        addEventListener('blur', () => this.pressed.clear());
    }

    /** Stands where the middle of the picture shows something. @returns {Promise<string>} what went wrong, empty if nothing */
    async start() {
        const { viewpoint } = this;
        if (viewpoint.held) return 'The camera is held; let it go first (H).';
        viewpoint.project(false);
        const eye = viewpoint.camera.position.clone();
        const way = viewpoint.controls.target.clone().sub(eye).normalize();
        const met = await this.meet(eye.toArray(), way.toArray());
        if (!met?.at) return 'There is nothing in the middle of the picture to stand on; turn towards the model first.';
        const place = new Vector3(...met.at).addScaledVector(way, -0.4);
        const below = await this.meet([place.x, place.y, place.z + 0.3], [0, 0, -1]);
        this.floor = below?.at ? below.at[2] : met.at[2];
        way.z = 0;
        if (way.lengthSq() < 1e-6) way.set(0, 1, 0);
        way.normalize();
        place.z = this.floor + EYE_HEIGHT;
        viewpoint.set({
            eye: place.toArray(),
            target: place.clone().addScaledVector(way, 2).toArray(),
            fov: Math.max(55, viewpoint.deep.fov),
        });
        viewpoint.controls.enableZoom = false;
        this.on = true;
        this.last = 0;
        requestAnimationFrame((now) => this.stride(now));
        return '';
    }

    end() {
        if (!this.on) return;
        this.on = false;
        this.pressed.clear();
        this.viewpoint.controls.enableZoom = true;
        this.ended();
    }

    /** @param {KeyboardEvent} event @param {boolean} down */
    key(event, down) {
        if (
            !this.on ||
            event.ctrlKey ||
            event.altKey ||
            event.metaKey ||
            /** @type {Element} */ (event.target).closest?.('input, textarea, dialog, [popover]')
        )
            return;
        const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
        if (key === 'Escape' && down) this.end();
        else if (KEYS[key] && down) this.pressed.add(KEYS[key]);
        else if (KEYS[key]) this.pressed.delete(KEYS[key]);
        else return;
        this.fast = event.shiftKey;
        event.preventDefault();
        event.stopPropagation();
    }

    /** @param {number} now */
    stride(now) {
        if (!this.on) return;
        requestAnimationFrame((later) => this.stride(later));
        const seconds = Math.min(0.12, (now - (this.last || now)) / 1000);
        this.last = now;
        const { camera, controls } = this.viewpoint;
        const rise = this.floor + EYE_HEIGHT - camera.position.z;
        if (this.pressed.size === 0 && Math.abs(rise) < 0.005) return;
        const way = controls.target.clone().sub(camera.position);
        const turn = ((this.pressed.has('turnLeft') ? 1 : 0) - (this.pressed.has('turnRight') ? 1 : 0)) * seconds * 1.2;
        way.applyAxisAngle(new Vector3(0, 0, 1), turn);
        const ahead = way.clone().setZ(0).normalize();
        const aside = new Vector3(ahead.y, -ahead.x, 0);
        const step = new Vector3()
            .addScaledVector(ahead, (this.pressed.has('ahead') ? 1 : 0) - (this.pressed.has('back') ? 1 : 0))
            .addScaledVector(aside, (this.pressed.has('right') ? 1 : 0) - (this.pressed.has('left') ? 1 : 0));
        if (step.lengthSq() > 0) step.normalize().multiplyScalar(PACE * (this.fast ? 3 : 1) * seconds);
        step.z = Math.sign(rise) * Math.min(Math.abs(rise), seconds * 3);
        camera.position.add(step);
        controls.target.copy(camera.position).add(way);
        controls.update();
        this.viewpoint.changed();
        this.feel();
    }

    /** Asks for the floor under the feet, one question at a time. */
    async feel() {
        if (this.feeling) return;
        this.feeling = true;
        const { x, y, z } = this.viewpoint.camera.position;
        const below = await this.meet([x, y, z], [0, 0, -1]);
        if (below?.at && this.on) this.floor = below.at[2];
        setTimeout(() => (this.feeling = false), 120);
    }
}
