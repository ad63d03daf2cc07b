import { BufferAttribute, Camera, ColorManagement, InstancedBufferAttribute, Scene, WebGLRenderer } from 'three';
import { BOX, BOX_WEIGHT, CALL, Detail, DOT, DOT_WEIGHT, FINEST, here, wanted } from './detail.js';
import { Frames } from './frames.js';
import { Look } from './look.js';
import { Order } from './order.js';
import { Pace } from './pace.js';
import { Placed } from './placed.js';
import { SeeThrough } from './seethrough.js';

ColorManagement.enabled = false;

const SLICE_MS = 60;
/** The share of a moving picture that goes to the largest where not all can be drawn; the rest goes to dots from all over the model. */
const LARGEST = 0.5;
/** Pixels from the middle to the rim of what is drawn as such a dot at most. */
const LARGEST_DOT = 5;
/** Milliseconds for which the order of so many placements is still good enough while the camera moves. */
const ORDER_MS = 100;
const ORDER_MANY = 50000;
const SMOOTHING_MS = 3500;

/** The browser gives no means to draw in three dimensions. */
export class UnableToDraw extends Error {}

/** @param {import('./placements.js').MeshFacts} facts @param {number} level */
function trianglesOf(facts, level) {
    return level === BOX ? 12 : facts.levels[level].triangles;
}

/** @param {HTMLCanvasElement} canvas */
function rendererOn(canvas) {
    try {
        return new WebGLRenderer({
            canvas,
            antialias: false,
            alpha: false,
            preserveDrawingBuffer: true,
            powerPreference: 'high-performance',
        });
    } catch (error) {
        throw new UnableToDraw('There is no WebGL 2.', { cause: error });
    }
}

/**
 * Draws by importance within a time: while the camera moves one slice per frame, at rest slice after slice until everything in the
 * budget is there, then again with a shifted raster to smooth the edges. Beside the colours it keeps which object each pixel shows.
 */
export class Painter {
    /**
     * @param {import('./placements.js').Placements} placements
     * @param {import('./packs.js').Packs} packs
     * @param {{triangles: number, calls: number, megabytes: number}} budget at most
     * @param {number} smoothing times that a finished picture is drawn again
     * @param {number} [resolution] pixels that are drawn for each of the page, in each direction
     */
    constructor(placements, packs, budget, smoothing, resolution = 1) {
        this.smoothing = smoothing;
        this.resolution = resolution;
        this.placements = placements;
        this.packs = packs;
        this.budget = budget;
        /** @type {WebGLRenderer} */
        this.renderer = /** @type {any} */ (null);
        this.order = new Order();
        this.detail = new Detail();
        this.seeThrough = new SeeThrough(this);
        this.pixel = new Uint8Array(4);
        this.speed = 600; // triangles a millisecond; measured as it goes
        this.veilSpeed = 300; // of ghosts and glass, edges too
        this.sorting = 0; // milliseconds that putting placements in order takes: a mean while the camera moves
        this.lastSorting = 0;
        this.sortedAt = -Infinity;
        this.showing = 5; // milliseconds that putting the picture on the screen takes
        this.pace = new Pace();
        /** Whether the picture in front is one of a moving camera. */
        this.isMoving = false;
        this.frames = new Frames();
        /** Milliseconds that a picture may have taken and still be drawn again to smooth its edges. */
        this.patience = SMOOTHING_MS;
        this.pass = null;
        this.summary = { drawn: 0, calls: 0, coarser: 0, missing: 0, done: false };
        this.scene = new Scene();
        this.scene.matrixWorldAutoUpdate = false;
        this.look = new Look(placements, this.frames.screen.material.uniforms);
        this.boxes = new Placed(this.look.boxes.geometry, InstancedBufferAttribute);
        this.dots = new Placed(this.look.dots.geometry, BufferAttribute);
        /** Placements that were looked through for packs that they need. */
        this.surveyed = 0;
        /** Whether anything was drawn that can be seen. */
        this.hasPicture = false;
    }

    get isOpen() {
        return this.renderer !== null;
    }

    /**
     * Makes the graphics card ready: a browser may need a second for that, and shows nothing new meanwhile.
     * @param {HTMLCanvasElement} canvas
     * @throws {UnableToDraw}
     */
    open(canvas) {
        this.renderer = rendererOn(canvas);
        this.renderer.autoClear = false;
        this.renderer.sortObjects = false;
        this.renderer.outputColorSpace = 'srgb-linear';
        this.renderer.setPixelRatio(1);
        // Asking whether a shader is right waits until it is compiled; using one that is not is said in the console all the same.
        this.renderer.debug.checkShaderErrors = false;
        this.frames.open(this.renderer);
        this.compileBoxes();
    }

    /** Boxes are the first that is drawn: their shader is compiled while the first placements are on their way. */
    compileBoxes() {
        this.renderer.setRenderTarget(this.frames.back);
        this.boxes.ready();
        this.scene.children = [this.look.boxes];
        this.renderer.compile(this.scene, new Camera());
    }

    get width() {
        return this.frames.width;
    }

    get height() {
        return this.frames.height;
    }

    /** @param {number} width pixels of the page @param {number} height */
    resize(width, height) {
        this.frames.resize(Math.round(width * this.resolution), Math.round(height * this.resolution));
    }

    /**
     * Starts a new picture.
     * @param {import('three').Camera} camera
     * @param {boolean} moving
     */
    begin(camera, moving) {
        const begun = performance.now();
        this.pace.begin(begun, moving);
        if (!moving || this.isOrderOld(begun)) {
            this.order.sort(this.placements, this.look.states, camera, this.frames.tall, this.look.cuts);
            this.sortedAt = begun;
        }
        this.packs.picture++;
        this.fit(moving);
        this.lastSorting = performance.now() - begun;
        this.sorting = moving ? this.sorting * 0.6 + this.lastSorting * 0.4 : this.lastSorting;
        this.packs.startWanting();
        if (!moving) this.wantAll();
        this.surveyed = this.placements.count;
        this.pass = { camera, moving, next: 0, round: 0, drawn: 0, calls: 0, coarser: 0, missing: 0, milliseconds: 0, shownBehind: false };
        this.summary = { ...this.summary, done: false };
        this.frames.smoothed = false;
        this.openPass(true);
    }

    /** Looks through what has come since the last picture was begun. @param {import('three').Camera} camera */
    survey(camera) {
        if (this.surveyed === this.placements.count) return;
        this.surveyed = this.placements.count;
        this.order.sort(this.placements, this.look.states, camera, this.frames.tall, this.look.cuts);
        this.fit(false);
        this.wantAll();
    }

    /** Of very many, the order is good for more than one picture of a moving camera. @param {number} now */
    isOrderOld(now) {
        return this.placements.count < ORDER_MANY || this.placements.count !== this.surveyed || now - this.sortedAt > ORDER_MS;
    }

    /** How far off what is drawn may be: in the budget, and while the camera moves in the time that there is. @param {boolean} moving */
    fit(moving) {
        const { triangles, calls } = this.budget;
        const weight = moving ? this.movingWeight : Infinity;
        this.detail.fit(this.placements, this.look.states, this.order, { triangles, calls, weight }, moving);
    }

    /** What is drawn while the camera moves, in triangles. */
    get movingWeight() {
        return this.speed * this.pace.left(this.showing + this.sorting);
    }

    /** Says at once which packs the picture needs: one that is found wanting at its end would have it drawn again. */
    wantAll() {
        const { placements, order, detail } = this;
        for (let next = 0; next < order.count; next++) {
            const index = order.list[next];
            const facts = placements.facts[placements.mesh[index]];
            const level = detail.wanted[index];
            if (level < BOX && !facts.levels[level].pieces) this.packs.want(facts.levels[level].pack, order.size[index] ** 2);
        }
    }

    /** @param {boolean} shown whether the pass is to be seen while it is drawn */
    openPass(shown) {
        const pass = this.pass;
        pass.next = 0;
        pass.drawn = pass.calls = pass.coarser = pass.missing = 0;
        pass.first = true;
        pass.isSolid = pass.veiled = false;
        pass.weight = 0;
        this.seeThrough.begin();
        pass.shown = shown;
        this.frames.clear(this.look.backdrop);
        this.look.shared.places.value = this.placements.place;
        this.look.shared.meshes.value = this.placements.meshes;
        this.look.shared.screenSize.value.set(this.width, this.height);
    }

    /** Draws one more slice. @returns {boolean} whether there is more to draw */
    step() {
        const pass = this.pass;
        if (!pass) return false;
        // What was put on the screen before must be finished, or its time would count as this slice's.
        const begun = performance.now();
        this.synchronize();
        const started = performance.now();
        this.showing = this.showing * 0.6 + 0.4 * (started - begun);
        const finished = this.drawSome();
        this.synchronize();
        const spent = performance.now() - started;
        pass.milliseconds += spent;
        // How quickly what is solid is drawn says little about ghosts and their edges.
        const by = pass.veiled ? 'veilSpeed' : 'speed';
        if (pass.weight > 3000) this[by] = Math.max(60, this[by] * 0.6 + 0.4 * (pass.weight / Math.max(0.5, spent)));
        if (pass.shown && pass.first) {
            this.frames.swap();
            this.hasPicture = true;
            pass.first = false;
            pass.inFront = true;
        }
        this.isMoving = pass.moving;
        if (pass.moving) {
            this.pace.took(this.lastSorting + performance.now() - begun);
            this.finishPass(false);
            return false;
        }
        if (!finished) return true;
        return this.finishPass(true);
    }

    /**
     * What is solid first, then what is seen through, in slices when the camera rests: a model of nothing but ghosts must not hold up the
     * page either.
     * @returns {boolean} whether nothing is left to draw
     */
    drawSome() {
        const pass = this.pass;
        const allowance = pass.moving ? this.movingWeight : this.speed * SLICE_MS;
        pass.veiled = pass.isSolid && !pass.moving;
        pass.weight = 0;
        if (pass.veiled) return this.drawSeeThrough(this.veilSpeed * SLICE_MS);
        pass.isSolid = this.drawSlice(allowance);
        if (pass.moving) return (this.drawSeeThrough(allowance * 0.3), pass.isSolid);
        return pass.isSolid && this.drawSeeThrough(Math.max(allowance * 0.3, allowance - pass.weight));
    }

    /** @param {number} allowance triangles @returns {boolean} whether nothing is left of it */
    drawSeeThrough(allowance) {
        const { done, spent } = this.seeThrough.draw(allowance, this.pass.moving);
        if (!this.pass.moving) this.pass.weight += spent;
        return done;
    }

    /** Whether the screen should be brought up to date while a picture is under way: not so often that showing costs more than drawing. */
    get worthShowing() {
        return !this.pass || this.pass.moving || (this.pass.inFront && performance.now() - (this.shownAt ?? 0) > this.showing * 4);
    }

    /** @param {boolean} whole */
    finishPass(whole) {
        const pass = this.pass;
        if (!pass.inFront) this.frames.swap();
        pass.inFront = false;
        this.hasPicture = true;
        this.sum(whole);
        if (!whole) {
            this.pass = null;
            return false;
        }
        // The very first picture is put on the screen as it is: what works it into a mean is made ready after it.
        if (this.shownAt !== undefined) this.frames.smooth(pass.round);
        this.look.shared.jitter.value.set(0, 0);
        // A picture that takes long is not drawn again only to smooth its edges, nor one that will be drawn anew when more has come.
        if (
            this.packs.missing > 0 ||
            pass.round >= this.smoothing ||
            pass.milliseconds * ((pass.round + 2) / (pass.round + 1)) > this.patience
        ) {
            this.pass = null;
            return false;
        }
        pass.round++;
        const [x, y] = [
            [0, 0],
            [0.37, 0.21],
            [-0.29, 0.4],
            [-0.42, -0.19],
            [0.16, -0.43],
            [0.05, 0.07],
        ][pass.round];
        this.look.shared.jitter.value.set((x * 2) / this.width, (y * 2) / this.height);
        this.openPass(false);
        return true;
    }

    /** What was drawn, beside what may be. @param {boolean} whole */
    sum(whole) {
        const { drawn, calls, coarser, moving } = this.pass;
        // While the camera moves, it is the time that is short.
        const last = moving ? this.summary.coarser : coarser;
        this.summary = { drawn, calls, coarser: last, missing: this.packs.missing, done: whole };
    }

    /** @returns {number[]} objects of which something is drawn coarser than it may be, for the budget's sake, ascending */
    coarser() {
        const { placements, order, detail } = this;
        const objects = new Set();
        for (let next = 0; next < order.count; next++) {
            const index = order.list[next];
            const object = placements.object[index];
            const rung = this.look.states[object] & 15;
            const level = wanted(placements.facts[placements.mesh[index]], rung, order.size[index], FINEST);
            if (rung > 1 && detail.level[index] > level) objects.add(object);
        }
        return [...objects].sort((a, b) => a - b);
    }

    /** Bytes on the graphics card, as far as they are known. */
    get bytes() {
        return this.packs.bytes + this.placements.bytes + this.look.bytes + this.frames.bytes;
    }

    /** Gives back what the graphics card holds beyond the budget, as far as this picture does not need it. */
    giveBack() {
        this.packs.giveBack(this.budget.megabytes * 1e6 - (this.bytes - this.packs.bytes));
    }

    /** @param {number} allowance triangles @returns {boolean} whether the order is used up */
    drawSlice(allowance) {
        const pass = this.pass;
        const { order, boxes, dots } = this;
        for (const page of this.packs.pages) page.clear();
        boxes.clear();
        dots.clear();
        const isFirst = pass.next === 0;
        let weight = 0;
        const isTooMuch = pass.moving && !this.detail.fits;
        const most = isTooMuch ? allowance * LARGEST : allowance;
        while (pass.next < order.count && weight < most) weight += this.put(order.list[pass.next++]);
        if (isTooMuch) weight += this.putScattered(allowance - weight);
        boxes.ready();
        dots.ready();
        pass.weight += weight;
        this.render((page) => (page.kind === 'triangles' ? this.look.materials.solid : this.look.materials.unlit), true, isFirst);
        boxes.clear();
        dots.clear();
        return pass.next >= order.count;
    }

    /**
     * Of what is not reached, some from everywhere as dots, the same in every picture: the model keeps its shape while it is turned.
     * @param {number} allowance triangles
     * @returns {number} what they cost
     */
    putScattered(allowance) {
        const { order, dots, look, placements } = this;
        let from = this.pass.next;
        // A large dot looks like nothing that is there.
        while (from < order.count && order.size[order.list[from]] > LARGEST_DOT) from++;
        const least = 2 ** 32 * Math.min(1, Math.max(0, allowance) / DOT_WEIGHT / Math.max(1, order.count - from));
        let count = 0;
        for (let next = from; next < order.count; next++) {
            const index = order.list[next];
            if (Math.imul(index, 2654435761) >>> 0 >= least) continue;
            const rung = look.states[placements.object[index]] & 15;
            if (rung === 0 || rung === 2) continue;
            dots.add(index);
            count++;
        }
        return count * DOT_WEIGHT;
    }

    /** Puts one placement where it is drawn from. @param {number} index @returns {number} what it costs, in triangles */
    put(index) {
        const pass = this.pass;
        const { placements, detail, look } = this;
        const object = placements.object[index];
        const rung = look.states[object] & 15;
        // It may have been hidden since the order was made.
        if (rung === 0) return 0;
        const facts = placements.facts[placements.mesh[index]];
        const pixels = this.order.size[index];
        let level = detail.chosen(index, facts, rung, pixels);
        if (level < BOX) level = this.found(facts, level, rung, pixels);
        // More is on show than even its coarsest would fit: nothing is left out, but what comes last is dots.
        if (level !== DOT && rung !== 2 && pass.drawn + trianglesOf(facts, level) > this.budget.triangles) level = DOT;
        if (rung > 1 && level > wanted(facts, rung, pixels, FINEST) && detail.allowed > FINEST) pass.coarser++;
        detail.level[index] = level;
        if (level === DOT) return (this.dots.add(index), DOT_WEIGHT);
        if (level === BOX) return (this.boxes.add(index), (pass.drawn += 12), BOX_WEIGHT);
        if (rung === 2) return (this.seeThrough.ghosts.push(index), (pass.drawn += facts.levels[level].triangles), 0);
        return this.putPieces(index, object, facts.levels[level]);
    }

    /** @param {number} index @param {number} object @param {import('./placements.js').Level} level @returns {number} */
    putPieces(index, object, level) {
        let clear = false;
        for (const piece of /** @type {import('./pages.js').Piece[]} */ (level.pieces)) {
            if (this.look.surfaces.get(piece.material)?.[2] === 1 && piece.page.kind === 'triangles') clear = true;
            else piece.page.draw(index, piece);
        }
        if (clear) this.seeThrough.glass.push(index);
        if (this.look.hasLines(object)) this.seeThrough.edged.push(index);
        this.pass.drawn += level.triangles;
        this.pass.calls++;
        return level.triangles + CALL;
    }

    /**
     * What there is of a level that should be drawn.
     * @param {import('./placements.js').MeshFacts} facts
     * @param {number} level
     * @param {number} rung
     * @param {number} pixels
     * @returns {number} BOX where nothing has come yet
     */
    found(facts, level, rung, pixels) {
        const pass = this.pass;
        if (!facts.levels[level].pieces && pass.moving) this.packs.want(facts.levels[level].pack, pixels * pixels);
        const found = here(facts, level, rung);
        if (found >= 0) return found;
        pass.missing++;
        return BOX;
    }

    /**
     * @param {(page: import('./pages.js').Page) => import('three').ShaderMaterial} materialOf
     * @param {boolean} withBoxes whether boxes and dots are drawn as well
     * @param {boolean} [withCaps] whether cut faces are
     */
    render(materialOf, withBoxes, withCaps = false) {
        this.scene.children = [];
        if (withBoxes && this.boxes.count > 0) this.scene.children.push(this.look.boxes);
        if (withBoxes && this.dots.count > 0) this.scene.children.push(this.look.dots);
        if (withCaps && this.look.caps.visible) this.scene.children.push(this.look.caps);
        for (const page of this.packs.pages) {
            if (!page.ready()) continue;
            page.picture = this.packs.picture;
            const material = materialOf(page);
            page.object.material = material;
            page.object.onBeforeRender = () => {
                this.look.shared.entries.value = page.entries;
                material.uniformsNeedUpdate = true;
            };
            this.scene.children.push(/** @type {any} */ (page.object));
        }
        if (this.scene.children.length === 0) return;
        this.renderer.setRenderTarget(this.target);
        this.renderer.render(this.scene, this.pass.camera);
    }

    /** Waits until the graphics card has drawn, so that the time it took is known. */
    synchronize() {
        this.renderer.readRenderTargetPixels(this.target, 0, 0, 1, 1, this.pixel, undefined, 1);
    }

    /** The frame that is drawn to. */
    get target() {
        return this.pass.inFront ? this.frames.targets[this.frames.front] : this.frames.back;
    }

    /** Puts what has been drawn so far on the screen. @param {number} hovered object number, 0 for none */
    show(hovered) {
        this.shownAt = performance.now();
        this.frames.show(hovered, this.isMoving);
    }

    /** What a click would pick. @param {number} x pixels of the page @param {number} y @returns {number} object number, 0 for none */
    numberAt(x, y) {
        // Guarded glass and guarded ghosts let the pointer through to what is behind them.
        const { frames, look, resolution } = this;
        return frames.numberAt(x * resolution, y * resolution, (object) => (look.states[object] & 16) > 0);
    }
}
