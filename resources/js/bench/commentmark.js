import { spotOf } from '../canvas/spot.js';

/** What a guest said, at the place in the canvas that it was said of. */
export class CommentMark {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        /** Metres as the canvas counts. @type {number[] | null} */
        this.place = null;
        this.element = /** @type {HTMLElement} */ (document.getElementById('comment-mark'));
        this.element.querySelector('button')?.addEventListener('click', () => this.end());
        this.element.addEventListener('keydown', (event) => event.key === 'Escape' && this.end());
        bench.canvas.element.addEventListener('shelf:sight', () => this.draw());
    }

    /**
     * Goes to where something was said, as the view shows it.
     * @param {number} view
     * @param {number[]} place metres as the canvas counts
     * @param {string} by
     * @param {string} words
     */
    async show(view, place, by, words) {
        const { server, canvas, shelf } = this.bench;
        await server.ask('POST', `/views/${view}/apply`);
        this.place = place;
        const [who, what] = this.element.querySelectorAll('strong, .words');
        who.textContent = by;
        what.textContent = words;
        const keepsCamera = shelf.items().some((item) => item.dataset.view === String(view) && item.dataset.camera);
        if (!keepsCamera) {
            const sight = canvas.viewpoint.get();
            canvas.viewpoint.set({ ...sight, target: place, eye: place.map((at, axis) => at + sight.eye[axis] - sight.target[axis]) });
        }
        this.draw();
        this.element.querySelector('button')?.focus();
    }

    end() {
        this.place = null;
        this.draw();
        this.bench.canvas.surface.focus();
    }

    draw() {
        const { canvas } = this.bench;
        const spot = this.place && spotOf(canvas, this.place);
        this.element.hidden = !spot;
        if (!spot) return;
        const { clientWidth: width, clientHeight: height } = canvas.element;
        // Its point is at the place; its words stay in the canvas.
        const [x, y] = [Math.max(0, Math.min(width, spot[0])), Math.max(0, Math.min(height, spot[1]))];
        this.element.style.setProperty('--room', `${Math.max(x, width - x) - 24}px`);
        this.element.style.translate = `${x}px ${y}px`;
        this.element.classList.toggle('to-left', x > width / 2);
        this.element.classList.toggle('upwards', y > height / 2);
    }
}
