import { DepthTexture, HalfFloatType, NearestFilter, WebGLRenderTarget } from 'three';
import { BANDS } from './look.js';
import { makeScreen } from './screen.js';

/** The highest bit of a number marks it as glass. */
const GLASS = 8388608;

/**
 * The picture that is seen and the one that is being drawn behind it, each with the objects that its pixels show; the mean of finished
 * ones; and how they come to the screen.
 */
export class Frames {
    /** @param {import('./screen.js').Screen} [screen] how they come to the screen, where others do already */
    constructor({ screen, dress, blend, flat } = makeScreen()) {
        /** @type {import('three').WebGLRenderer} */
        this.renderer = /** @type {any} */ (null);
        this.width = this.height = 1;
        this.targets = [0, 1].map(() => this.makeTarget());
        this.mean = new WebGLRenderTarget(1, 1, { type: HalfFloatType, depthBuffer: false });
        this.front = 0;
        /** Whether the mean is what is seen. */
        this.smoothed = false;
        /** How edges are drawn. */
        this.edges = 'own';
        this.screen = screen;
        this.dress = dress;
        this.blend = blend;
        this.flat = flat;
        /** Pixels that the whole picture is high, and at which of them from below this part of it begins. */
        this.tall = 1;
        this.below = 0;
    }

    /** @param {import('three').WebGLRenderer} renderer */
    open(renderer) {
        this.renderer = renderer;
        renderer.setSize(this.width, this.height, false);
    }

    get back() {
        return this.targets[1 - this.front];
    }

    /** Bytes on the graphics card: twice three colours and a depth, and the mean. */
    get bytes() {
        return this.width * this.height * (2 * 4 * 4 + 8);
    }

    swap() {
        this.front = 1 - this.front;
    }

    makeTarget() {
        return new WebGLRenderTarget(1, 1, {
            count: 3,
            minFilter: NearestFilter,
            magFilter: NearestFilter,
            depthTexture: new DepthTexture(1, 1),
        });
    }

    /**
     * @param {number} width
     * @param {number} height
     */
    resize(width, height) {
        this.width = Math.max(1, width);
        this.height = this.tall = Math.max(1, height);
        this.renderer?.setSize(this.width, this.height, false);
        this.targets.forEach((target) => target.setSize(this.width, this.height));
        this.mean.setSize(this.width, this.height);
        this.screen.material.uniforms.size.value.set(this.width, this.height);
    }

    /**
     * Empties the frame at the back: a quiet gradient, in bands that are each one step of colour; clearing costs far less than drawing.
     * @param {{r: number, g: number, b: number}[]} backdrop from below
     */
    clear(backdrop) {
        this.renderer.setRenderTarget(this.back);
        this.renderer.setClearColor(0x000000, 0);
        this.renderer.clear();
        const gl = /** @type {WebGL2RenderingContext} */ (this.renderer.getContext());
        gl.enable(gl.SCISSOR_TEST);
        backdrop.forEach(({ r, g, b }, band) => {
            const from = Math.max(0, Math.floor((this.tall * band) / BANDS) - this.below);
            const to = Math.floor((this.tall * (band + 1)) / BANDS) - this.below;
            if (to <= from) return;
            gl.scissor(0, from, this.width, to - from);
            gl.clearBufferfv(gl.COLOR, 0, [r, g, b, 1]);
        });
        gl.disable(gl.SCISSOR_TEST);
        this.renderer.resetState();
        this.renderer.setRenderTarget(this.back);
    }

    /** Works the frame in front into the mean of those before it. @param {number} round */
    smooth(round) {
        this.blend.material.uniforms.colours.value = this.targets[this.front].textures[0];
        this.blend.material.uniforms.share.value = 1 / (round + 1);
        this.renderer.setRenderTarget(this.mean);
        this.renderer.render(this.blend, this.flat);
        this.smoothed = true;
    }

    /**
     * Puts what has been drawn so far on the screen.
     * @param {number} hovered object number, 0 for none
     * @param {boolean} [moving] whether the camera moves: the pick is tinted then, and not outlined
     */
    show(hovered, moving = false) {
        const front = this.targets[this.front];
        const { uniforms } = this.screen.material;
        if (!this.smoothed && hovered === 0 && uniforms.anyPick.value === 0 && this.edges !== 'only') return this.copyToScreen(front);
        return this.compose(null, hovered, moving);
    }

    /** @param {WebGLRenderTarget | null} onto null for the screen @param {number} hovered @param {boolean} [moving] */
    compose(onto, hovered, moving = false) {
        const front = this.targets[this.front];
        const { uniforms } = this.screen.material;
        uniforms.colours.value = this.smoothed ? this.mean.texture : front.textures[0];
        uniforms.numbers.value = front.textures[1];
        uniforms.ghosts.value = front.textures[2];
        uniforms.hovered.value = hovered;
        uniforms.inked.value = { none: 0, only: 0.75 }[this.edges] ?? (this.smoothed ? 0.3 : 0);
        this.dress(moving);
        this.renderer.setRenderTarget(onto);
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

    /** @returns {Uint8Array[]} which objects every pixel shows: of what is solid, then of ghosts and glass; four bytes a pixel */
    numbers() {
        return [1, 2].map((attachment) => {
            const bytes = new Uint8Array(this.width * this.height * 4);
            const target = this.targets[this.front];
            this.renderer.readRenderTargetPixels(target, 0, 0, this.width, this.height, bytes, undefined, attachment);
            return bytes;
        });
    }

    /**
     * What a click would pick: glass before what is solid, what is solid before a ghost.
     * @param {number} x pixels from the left
     * @param {number} y pixels from the top
     * @param {(object: number) => boolean} guarded
     * @returns {number} object number, 0 for none
     */
    numberAt(x, y, guarded) {
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
        if (glass > 0 && !guarded(glass)) return glass;
        const solid = read(1);
        if (solid > 0) return solid;
        return over > 0 && over < GLASS && !guarded(over) ? over : glass;
    }
}
