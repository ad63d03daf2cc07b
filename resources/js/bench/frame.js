/** The frame of the view that the canvas looks through: what its picture has, whatever shape the canvas is. */
export class Frame {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        this.element = /** @type {SVGElement} */ (/** @type {any} */ (document.getElementById('view-frame')));
        this.isOn = localStorage.getItem('view-frame') === '1';
        /** How much wider than high the picture is, 0 where no view says so. */
        this.aspect = 0;
        new ResizeObserver(() => this.draw()).observe(bench.canvas.element);
    }

    turn() {
        this.isOn = !this.isOn;
        localStorage.setItem('view-frame', this.isOn ? '1' : '0');
        this.draw();
        const says = this.aspect === 0 ? 'The frame shows once a view with a camera is applied.' : 'The frame of the view is shown.';
        this.bench.say(this.isOn ? says : 'No frame.');
    }

    /** @param {number} aspect of the view that was applied */
    of(aspect) {
        this.aspect = aspect;
        this.draw();
    }

    /**
     * A sight so that all of the frame is seen, where the canvas is narrower than the picture.
     * @param {import('../canvas/camera.js').Sight} sight
     */
    fitted(sight) {
        const { clientWidth: width, clientHeight: height } = this.bench.canvas.element;
        return this.isOn ? whole(sight, width / Math.max(1, height)) : sight;
    }

    draw() {
        const { clientWidth: width, clientHeight: height } = this.bench.canvas.element;
        drawFrame(this.element, this.isOn ? this.aspect : 0, width, height);
    }
}

/**
 * Dims what a picture would not have.
 * @param {SVGElement} element that covers the canvas
 * @param {number} aspect of the picture, width by height; 0 for none
 * @param {number} width pixels of the canvas
 * @param {number} height
 */
export function drawFrame(element, aspect, width, height) {
    const [wide, tall] = inside(aspect, width, height);
    const [x, y] = [(width - wide) / 2, (height - tall) / 2];
    element.innerHTML =
        wide === 0
            ? ''
            : `<path class="dim" fill-rule="evenodd" d="M0 0H${width}V${height}H0Z M${x} ${y}H${x + wide}V${y + tall}H${x}Z"/>` +
              `<rect x="${x + 0.5}" y="${y + 0.5}" width="${Math.max(0, wide - 1)}" height="${Math.max(0, tall - 1)}"/>`;
}

/**
 * The largest picture of a shape in a canvas.
 * @param {number} aspect width by height, 0 for none
 * @param {number} width pixels of the canvas
 * @param {number} height
 * @returns {[number, number]} pixels
 */
export function inside(aspect, width, height) {
    if (!(aspect > 0) || width <= 0 || height <= 0) return [0, 0];
    return width / height > aspect ? [height * aspect, height] : [width, width / aspect];
}

/**
 * A sight so that all of what its picture had is seen, where the page is narrower.
 * @param {import('../canvas/camera.js').Sight} sight
 * @param {number} aspect of the page
 * @returns {import('../canvas/camera.js').Sight}
 */
export function whole(sight, aspect) {
    const more = (sight.aspect ?? 0) / aspect;
    if (!(more > 1)) return sight;
    const fov = (Math.atan(Math.tan((sight.fov * Math.PI) / 360) * more) * 360) / Math.PI;
    return { ...sight, fov, ...(sight.tall ? { tall: sight.tall * more } : {}) };
}
