import {
    ColorManagement,
    DepthTexture,
    HalfFloatType,
    InstancedBufferAttribute,
    NearestFilter,
    Scene,
    WebGLRenderTarget,
    WebGLRenderer,
} from 'three';
import { BANDS, Look } from './look.js';
import { Order } from './order.js';
import { makeScreen } from './screen.js';

ColorManagement.enabled = false;

/** Milliseconds that one picture may take while the camera moves, with sorting and showing it. */
const MOVING_MS = 78;
const SLICE_MS = 60;
/** The highest bit of a number marks it as glass. */
const GLASS = 8388608;
const SMOOTHING_MS = 3500;

/**
 * Draws by importance within a time: while the camera moves one slice per frame, at rest slice after slice until everything in the
 * budget is there, then again with a shifted raster to smooth the edges. Beside the colours it keeps which object each pixel shows.
 */
export class Painter {
    /**
     * @param {HTMLCanvasElement} canvas
     * @param {import('./placements.js').Placements} placements
     * @param {import('./packs.js').Packs} packs
     * @param {number} budget triangles
     * @param {number} smoothing times that a finished picture is drawn again
     */
    constructor(canvas, placements, packs, budget, smoothing) {
        this.smoothing = smoothing;
        this.placements = placements;
        this.packs = packs;
        this.budget = budget;
        this.renderer = new WebGLRenderer({
            canvas,
            antialias: false,
            alpha: false,
            preserveDrawingBuffer: true,
            powerPreference: 'high-performance',
        });
        this.renderer.autoClear = false;
        this.renderer.sortObjects = false;
        this.renderer.outputColorSpace = 'srgb-linear';
        this.renderer.setPixelRatio(1);
        this.order = new Order();
        this.pixel = new Uint8Array(4);
        this.speed = 600; // triangles a millisecond; measured as it goes
        this.sorting = 0;
        this.showing = 5; // milliseconds that putting the picture on the screen takes
        this.targets = [0, 1].map(() => this.makeTarget());
        this.mean = new WebGLRenderTarget(1, 1, { type: HalfFloatType, depthBuffer: false });
        this.front = 0;
        this.smoothed = false;
        this.pass = null;
        this.summary = { drawn: 0, boxes: 0, missing: 0, done: false };
        this.scene = new Scene();
        this.scene.matrixWorldAutoUpdate = false;
        const { screen, blend, flat } = makeScreen();
        this.screen = screen;
        this.blend = blend;
        this.flat = flat;
        this.look = new Look(placements, screen.material.uniforms);
    }

    makeTarget() {
        const target = new WebGLRenderTarget(1, 1, {
            count: 3,
            minFilter: NearestFilter,
            magFilter: NearestFilter,
            depthTexture: new DepthTexture(1, 1),
        });
        return target;
    }

    /**
     * @param {number} width
     * @param {number} height
     */
    resize(width, height) {
        this.width = Math.max(1, width);
        this.height = Math.max(1, height);
        this.renderer.setSize(this.width, this.height, false);
        this.targets.forEach((target) => target.setSize(this.width, this.height));
        this.mean.setSize(this.width, this.height);
        this.screen.material.uniforms.size.value.set(this.width, this.height);
    }

    /**
     * Starts a new picture.
     * @param {import('three').Camera} camera
     * @param {boolean} moving
     */
    begin(camera, moving) {
        const sorted = performance.now();
        this.order.sort(this.placements, this.look.states, camera, this.height);
        this.sorting = performance.now() - sorted;
        this.packs.startWanting();
        this.pass = { camera, moving, next: 0, round: 0, drawn: 0, boxes: 0, missing: 0, milliseconds: 0, shownBehind: false };
        this.summary = { ...this.summary, done: false };
        this.smoothed = false;
        this.openPass(true);
    }

    /** @param {boolean} shown whether the pass is to be seen while it is drawn */
    openPass(shown) {
        const pass = this.pass;
        pass.next = 0;
        pass.drawn = pass.boxes = pass.missing = 0;
        pass.first = true;
        pass.shown = shown;
        /** @type {number[]} */
        pass.seeThrough = [];
        /** @type {number[]} */
        pass.ghosts = [];
        const back = this.targets[1 - this.front];
        this.renderer.setRenderTarget(back);
        this.renderer.setClearColor(0x000000, 0);
        this.renderer.clear();
        this.clearToBackdrop();
        this.look.shared.places.value = this.placements.place;
        this.look.shared.meshes.value = this.placements.meshes;
    }

    /** A quiet gradient, in bands that are each one step of colour: clearing costs far less than drawing. */
    clearToBackdrop() {
        const gl = /** @type {WebGL2RenderingContext} */ (this.renderer.getContext());
        gl.enable(gl.SCISSOR_TEST);
        this.look.backdrop.forEach(({ r, g, b }, band) => {
            const from = Math.floor((this.height * band) / BANDS);
            gl.scissor(0, from, this.width, Math.floor((this.height * (band + 1)) / BANDS) - from);
            gl.clearBufferfv(gl.COLOR, 0, [r, g, b, 1]);
        });
        gl.disable(gl.SCISSOR_TEST);
        this.renderer.resetState();
        this.renderer.setRenderTarget(this.targets[1 - this.front]);
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
        const allowance = this.speed * (pass.moving ? Math.max(12, MOVING_MS - this.showing - this.sorting) : SLICE_MS);
        const finished = this.drawSlice(allowance);
        if (finished || pass.moving) this.drawSeeThrough(pass.moving ? allowance * 0.3 : Infinity);
        this.synchronize();
        const spent = performance.now() - started;
        pass.milliseconds += spent;
        if (pass.sliceWeight > 3000) this.speed = Math.max(60, this.speed * 0.6 + 0.4 * (pass.sliceWeight / Math.max(0.5, spent)));
        if (pass.shown && pass.first) {
            this.front = 1 - this.front;
            pass.first = false;
            pass.inFront = true;
        }
        if (pass.moving) {
            this.finishPass(false);
            return false;
        }
        if (!finished) return true;
        return this.finishPass(true);
    }

    /** Whether the screen should be brought up to date while a picture is under way: not so often that showing costs more than drawing. */
    get worthShowing() {
        return !this.pass || this.pass.moving || (this.pass.inFront && performance.now() - (this.shownAt ?? 0) > this.showing * 4);
    }

    /** @param {boolean} whole */
    finishPass(whole) {
        const pass = this.pass;
        if (!pass.inFront) this.front = 1 - this.front;
        pass.inFront = false;
        this.summary = { drawn: pass.drawn, boxes: pass.boxes, missing: this.packs.missing, done: whole };
        if (!whole) {
            this.pass = null;
            return false;
        }
        this.smooth(pass.round);
        // A picture that takes long is not drawn again only to smooth its edges, nor one that will be drawn anew when more has come.
        if (
            this.packs.missing > 0 ||
            pass.round >= this.smoothing ||
            pass.milliseconds * ((pass.round + 2) / (pass.round + 1)) > SMOOTHING_MS
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

    /** @param {number} round */
    smooth(round) {
        this.blend.material.uniforms.colours.value = this.targets[this.front].textures[0];
        this.blend.material.uniforms.share.value = 1 / (round + 1);
        this.renderer.setRenderTarget(this.mean);
        this.renderer.render(this.blend, this.flat);
        this.smoothed = true;
        this.look.shared.jitter.value.set(0, 0);
    }

    /** @param {number} allowance triangles @returns {boolean} whether the order is used up */
    drawSlice(allowance) {
        const pass = this.pass;
        const { placements, order } = this;
        const { states } = this.look;
        for (const page of this.packs.pages) page.clear();
        const boxes = /** @type {any} */ (this.look.boxes.geometry);
        let ids = boxes.getAttribute('placement').array;
        let boxCount = 0;
        let weight = 0;
        while (pass.next < order.count && weight < allowance) {
            const index = order.list[pass.next++];
            const rung = states[placements.object[index]] & 15;
            const facts = placements.facts[placements.mesh[index]];
            const pixels = order.size[index];
            let asBox = rung === 1;
            if (!asBox && !facts.pieces) {
                this.packs.want(facts.pack, pixels * pixels);
                pass.missing++;
                asBox = true;
                if (pixels < 2) continue;
            }
            if (rung === 2 && !asBox) {
                pass.ghosts.push(index);
                continue;
            }
            if (!asBox && pass.drawn + facts.triangles > this.budget) {
                if (pixels < 1.5) continue;
                asBox = true;
                pass.boxes++;
            }
            // What is only a few pixels large is not worth its triangles while the camera moves.
            if (!asBox && pass.moving && facts.triangles > 12 && facts.triangles > pixels * pixels * 0.35) asBox = true;
            if (asBox) {
                if (boxCount >= ids.length) {
                    const larger = new Uint32Array(ids.length * 2);
                    larger.set(ids);
                    boxes.setAttribute('placement', new InstancedBufferAttribute(larger, 1));
                    ids = larger;
                }
                ids[boxCount++] = index;
                weight += 40;
                continue;
            }
            let clear = false;
            for (const piece of /** @type {import('./pages.js').Piece[]} */ (facts.pieces)) {
                if (this.look.surfaces.get(piece.material)?.[2] === 1 && piece.page.kind === 'triangles') clear = true;
                else piece.page.draw(index, piece);
            }
            if (clear) pass.seeThrough.push(index);
            pass.drawn += facts.triangles;
            weight += facts.triangles + 30;
        }
        const attribute = boxes.getAttribute('placement');
        attribute.needsUpdate = boxCount > 0;
        boxes.instanceCount = boxCount;
        pass.sliceWeight = weight;
        this.render((page) => (page.kind === 'triangles' ? this.look.materials.solid : this.look.materials.unlit), boxCount > 0);
        boxes.instanceCount = 0;
        return pass.next >= order.count;
    }

    /** Glass after everything solid, far before near; then ghosts with their edges. */
    drawSeeThrough(/** @type {number} */ allowance) {
        const pass = this.pass;
        const { placements } = this;
        const { x, y, z } = this.order.eye;
        const far = (/** @type {number} */ at) =>
            (placements.sphere[at * 4] - x) ** 2 + (placements.sphere[at * 4 + 1] - y) ** 2 + (placements.sphere[at * 4 + 2] - z) ** 2;
        const draw = (/** @type {number[]} */ list, /** @type {(index: number) => number} */ put, /** @type {any} */ material) => {
            if (list.length === 0) return;
            for (const page of this.packs.pages) page.clear();
            let left = allowance;
            for (const index of list) {
                left -= put(index) + 30;
                if (left < 0) break;
            }
            this.render(() => material, false);
        };
        const pieces = (/** @type {number} */ index) => placements.facts[placements.mesh[index]].pieces ?? [];
        pass.seeThrough.sort((a, b) => far(b) - far(a));
        draw(
            pass.seeThrough,
            (index) => {
                let triangles = 0;
                for (const piece of pieces(index)) {
                    if (this.look.surfaces.get(piece.material)?.[2] !== 1 || piece.page.kind !== 'triangles') continue;
                    piece.page.draw(index, piece);
                    triangles += piece.triangles;
                }
                return triangles;
            },
            this.look.materials.seeThrough,
        );
        draw(
            pass.ghosts,
            (index) => {
                let triangles = 0;
                for (const piece of pieces(index)) {
                    if (piece.page.kind !== 'triangles') continue;
                    piece.page.draw(index, piece);
                    triangles += piece.triangles;
                }
                return triangles;
            },
            this.look.materials.ghost,
        );
        draw(
            pass.ghosts,
            (index) => {
                let lines = 0;
                for (const piece of this.packs.edges(placements.facts[placements.mesh[index]])) {
                    piece.page.draw(index, piece);
                    lines += piece.count / 2;
                }
                for (const piece of pieces(index)) {
                    if (piece.page.kind === 'triangles') continue;
                    piece.page.draw(index, piece);
                }
                return lines;
            },
            this.look.materials.line,
        );
    }

    /**
     * @param {(page: import('./pages.js').Page) => import('three').ShaderMaterial} materialOf
     * @param {boolean} withBoxes
     */
    render(materialOf, withBoxes) {
        this.scene.children = withBoxes ? [this.look.boxes] : [];
        for (const page of this.packs.pages) {
            if (!page.ready()) continue;
            const material = materialOf(page);
            page.object.material = material;
            page.object.onBeforeRender = () => {
                this.look.shared.entries.value = page.entries;
                material.uniformsNeedUpdate = true;
            };
            this.scene.children.push(/** @type {any} */ (page.object));
        }
        if (this.scene.children.length === 0) return;
        this.renderer.setRenderTarget(this.pass.inFront ? this.targets[this.front] : this.targets[1 - this.front]);
        this.renderer.render(this.scene, this.pass.camera);
    }

    /** Waits until the graphics card has drawn, so that the time it took is known. */
    synchronize() {
        const target = this.pass.inFront ? this.targets[this.front] : this.targets[1 - this.front];
        this.renderer.readRenderTargetPixels(target, 0, 0, 1, 1, this.pixel, undefined, 1);
    }

    /** Puts what has been drawn so far on the screen. @param {number} hovered object number, 0 for none */
    show(hovered) {
        const front = this.targets[this.front];
        const { uniforms } = this.screen.material;
        this.shownAt = performance.now();
        if (!this.smoothed && hovered === 0 && uniforms.anyPick.value === 0) return this.copyToScreen(front);
        uniforms.colours.value = this.smoothed ? this.mean.texture : front.textures[0];
        uniforms.numbers.value = front.textures[1];
        uniforms.ghosts.value = front.textures[2];
        uniforms.hovered.value = hovered;
        uniforms.inked.value = this.smoothed ? 0.3 : 0;
        this.renderer.setRenderTarget(null);
        this.renderer.render(this.screen, this.flat);
    }

    /** Nothing is picked and nothing outlined: the colours go to the screen as they are. @param {WebGLRenderTarget} target */
    copyToScreen(target) {
        const gl = /** @type {WebGL2RenderingContext} */ (this.renderer.getContext());
        const buffer = /** @type {any} */ (this.renderer.properties.get(target)).__webglFramebuffer;
        // Before the first picture there is nothing to copy.
        if (!buffer) return;
        gl.bindFramebuffer(gl.READ_FRAMEBUFFER, buffer);
        gl.readBuffer(gl.COLOR_ATTACHMENT0);
        gl.bindFramebuffer(gl.DRAW_FRAMEBUFFER, null);
        gl.blitFramebuffer(0, 0, this.width, this.height, 0, 0, this.width, this.height, gl.COLOR_BUFFER_BIT, gl.NEAREST);
        gl.bindFramebuffer(gl.READ_FRAMEBUFFER, null);
        this.renderer.resetState();
    }

    /** What a click would pick: glass before what is solid, what is solid before a ghost. @returns {number} object number, 0 for none */
    numberAt(/** @type {number} */ x, /** @type {number} */ y) {
        if (x < 0 || y < 0 || x >= this.width || y >= this.height) return 0;
        const read = (/** @type {number} */ attachment) => {
            const bytes = new Uint8Array(4);
            this.renderer.readRenderTargetPixels(
                this.targets[this.front],
                Math.floor(x),
                this.height - 1 - Math.floor(y),
                1,
                1,
                bytes,
                undefined,
                attachment,
            );
            return bytes[0] | (bytes[1] << 8) | (bytes[2] << 16);
        };
        const over = read(2);
        const glass = over >= GLASS ? over - GLASS : 0;
        // Guarded glass and guarded ghosts let the pointer through to what is behind them.
        if (glass > 0 && !(this.look.states[glass] & 16)) return glass;
        const solid = read(1);
        if (solid > 0) return solid;
        return over > 0 && over < GLASS && !(this.look.states[over] & 16) ? over : glass;
    }
}
