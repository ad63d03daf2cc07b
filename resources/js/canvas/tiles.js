import { Color, WebGLRenderTarget } from 'three';
import { Frames } from './frames.js';

/** Pixels of a tile's sides at most. */
const SIDE = 1024;

/** Pixels around a tile that are drawn with it: lines between objects go by their neighbours. */
const RIM = 2;

/** Milliseconds for which packs may stay away. */
const AWAY_MS = 60_000;

/** What a picture is drawn on in order to find out where nothing is: the same on black and on white. */
const GROUNDS = [0x000000, 0xffffff];

/** Drawing was ended by whoever had begun it. */
export class Ended extends Error {}

/** The part of a larger picture that is being drawn; it never comes to the screen. */
class Part extends Frames {
    /** @param {Frames} seen what the page shows */
    constructor(seen) {
        super(seen);
        this.seen = seen;
        this.edges = seen.edges;
        this.renderer = seen.renderer;
        this.sheet = new WebGLRenderTarget(1, 1, { depthBuffer: false });
    }

    /** The screen has the size that it has. @param {number} width @param {number} height */
    resize(width, height) {
        this.width = width;
        this.height = height;
        this.targets.forEach((target) => target.setSize(width, height));
        this.mean.setSize(width, height);
        this.sheet.setSize(width, height);
        this.screen.material.uniforms.size.value.set(width, height);
    }

    /** @returns {Uint8Array} four bytes a pixel, the lowest row first */
    read() {
        this.compose(this.sheet, 0);
        const bytes = new Uint8Array(this.width * this.height * 4);
        this.renderer.readRenderTargetPixels(this.sheet, 0, 0, this.width, this.height, bytes);
        return bytes;
    }

    dispose() {
        [...this.targets, this.mean, this.sheet].forEach((target) => {
            target.depthTexture?.dispose();
            target.dispose();
        });
        this.screen.material.uniforms.size.value.set(this.seen.width, this.seen.height);
    }
}

/** Draws pictures of what a canvas has, of any size, tile by tile, while the canvas itself stands still. */
export class Tiles {
    /** @param {import('./canvas.js').Canvas} canvas */
    constructor(canvas) {
        this.canvas = canvas;
        /** Objects that were drawn coarser than they may be, in any tile of the last picture. */
        this.coarser = 0;
        this.side = SIDE;
    }

    /**
     * @param {import('./camera.js').Sight} sight
     * @param {number} width pixels
     * @param {number} height
     * @param {boolean} clear whether there is nothing behind the model
     * @param {AbortSignal} signal ends it
     * @param {(share: number) => void} [progress] from 0 to 1
     * @returns {Promise<HTMLCanvasElement>}
     * @throws {Ended}
     */
    async draw(sight, width, height, clear, signal, progress) {
        const { canvas } = this;
        const { painter } = canvas;
        const { frames, patience, look } = painter;
        const { backdrop } = look;
        const picture = Object.assign(document.createElement('canvas'), { width, height });
        const pen = picture.getContext('2d');
        if (!pen) throw new Error('The browser has no room for a picture of this size.');
        const part = new Part(frames);
        canvas.isAside = true;
        // What the canvas was drawing is given up.
        painter.pass = null;
        painter.frames = part;
        painter.patience = Infinity;
        this.coarser = 0;
        const camera = canvas.viewpoint.cameraOf(sight, width / height);
        const tiles = tilesOf(width, height, this.side);
        const grounds = clear ? GROUNDS.map((hex) => backdrop.map(() => new Color(hex))) : [backdrop];
        try {
            for (const [at, tile] of tiles.entries()) {
                const drawn = [];
                for (const ground of grounds) {
                    look.backdrop = ground;
                    drawn.push(await this.tile(part, camera, tile, width, height, signal));
                    progress?.((at + drawn.length / grounds.length) / tiles.length);
                }
                const { left, top } = tile;
                pen.putImageData(cropped(clear ? apart(drawn[0], drawn[1]) : drawn[0], part.width, part.height, tile), left, top);
            }
        } finally {
            painter.pass = null;
            look.backdrop = backdrop;
            part.dispose();
            Object.assign(painter, { frames, patience });
            canvas.isAside = false;
            canvas.resize();
        }
        return picture;
    }

    /**
     * @param {Part} part
     * @param {any} camera
     * @param {Tile} tile
     * @param {number} width pixels of the whole picture
     * @param {number} height
     * @param {AbortSignal} signal
     * @returns {Promise<Uint8Array>} of the tile with its rim
     */
    async tile(part, camera, { left, top, wide, high }, width, height, signal) {
        const { painter } = this.canvas;
        part.resize(wide + 2 * RIM, high + 2 * RIM);
        part.tall = height;
        part.below = height - top - high - RIM;
        camera.setViewOffset(width, height, left - RIM, top - RIM, part.width, part.height);
        camera.updateProjectionMatrix();
        const late = performance.now() + AWAY_MS;
        for (;;) {
            painter.begin(camera, false);
            painter.packs.fetchNext();
            while (painter.step()) await this.breathe(signal);
            if (painter.packs.missing === 0) break;
            while (painter.packs.coming.size > 0) {
                await this.breathe(signal, 20);
                if (performance.now() > late) throw new Error('Parts of the model do not come.');
            }
        }
        this.coarser = Math.max(this.coarser, painter.summary.coarser);
        const bytes = part.read();
        painter.giveBack();
        return bytes;
    }

    /** The page can answer in between. @param {AbortSignal} signal @param {number} [milliseconds] */
    async breathe(signal, milliseconds = 0) {
        await new Promise((resolve) => setTimeout(resolve, milliseconds));
        if (signal.aborted) throw new Ended();
        if (this.canvas.painter.renderer.getContext().isContextLost()) throw new Error('The graphics card was lost.');
    }
}

/** @typedef {{left: number, top: number, wide: number, high: number}} Tile pixels from the top left */

/**
 * @param {number} width
 * @param {number} height
 * @param {number} side of a tile at most
 * @returns {Tile[]} that cover it, without a pixel twice
 */
export function tilesOf(width, height, side) {
    const tiles = [];
    for (let top = 0; top < height; top += side)
        for (let left = 0; left < width; left += side)
            tiles.push({ left, top, wide: Math.min(side, width - left), high: Math.min(side, height - top) });
    return tiles;
}

/**
 * What stands before a black ground and before a white one, without a ground: what lets the white through is clear.
 * @param {Uint8Array} black four bytes a pixel
 * @param {Uint8Array} white
 * @returns {Uint8Array} colours as they are, not weakened by what is clear
 */
export function apart(black, white) {
    const both = new Uint8Array(black.length);
    for (let at = 0; at < black.length; at += 4) {
        let through = 0;
        for (let channel = 0; channel < 3; channel++) through = Math.max(through, white[at + channel] - black[at + channel]);
        const solid = 255 - through;
        for (let channel = 0; channel < 3; channel++)
            both[at + channel] = solid === 0 ? 0 : Math.min(255, Math.round((black[at + channel] * 255) / solid));
        both[at + 3] = solid;
    }
    return both;
}

/**
 * @param {Uint8Array} bytes of a tile with its rim, the lowest row first
 * @param {number} width pixels of it
 * @param {number} height
 * @param {Tile} tile
 */
function cropped(bytes, width, height, { wide, high }) {
    const image = new ImageData(wide, high);
    for (let row = 0; row < high; row++) {
        const from = ((height - 1 - RIM - row) * width + RIM) * 4;
        image.data.set(bytes.subarray(from, from + wide * 4), row * wide * 4);
    }
    return image;
}
