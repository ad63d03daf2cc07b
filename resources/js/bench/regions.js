const MOST_POINTS = 500;
const BRUSH = 18;

/**
 * Drawing regions in the canvas: the shape goes to the server with the camera, and what it catches comes back as the pick. While it
 * is drawn, the server is asked now and then how many that would be.
 */
export class Regions {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        this.surface = bench.canvas.surface;
        this.sketch = /** @type {SVGElement} */ (/** @type {unknown} */ (document.getElementById('sketch')));
        this.counter = /** @type {HTMLElement} */ (document.getElementById('region-count'));
        this.tool = 'click';
        this.inside = false;
        /** Whether a region asks what is there, rather than picking it. */
        this.asks = false;
        /** @type {number[][]} pixels from the canvas's upper left corner */
        this.points = [];
        this.mode = 'replace';
        this.radius = BRUSH;
        /** Where somebody draws by keyboard. @type {number[] | undefined} */
        this.cross = undefined;
        this.listen();
    }

    /** @param {string} tool */
    choose(tool) {
        this.cancel();
        this.tool = tool;
        this.bench.canvas.clicks = tool === 'click';
        this.surface.style.cursor = tool === 'click' ? '' : 'crosshair';
        for (const button of document.querySelectorAll('[data-tool]'))
            button.setAttribute('aria-pressed', String(button.getAttribute('data-tool') === tool));
    }

    /** What can be set for all of them. @param {HTMLElement} button */
    openSettings(button) {
        const choice = (/** @type {string} */ label, /** @type {boolean} */ inside) => [
            label,
            this.inside === inside ? '✓' : '',
            () => this.setInside(inside),
        ];
        this.bench.menus.back = button;
        this.bench.menus.show(button, undefined, [
            choice('What the region touches', false),
            choice('Only what is fully inside', true),
            null,
            ['It picks what it catches', this.asks ? '' : '✓', () => (this.asks = false)],
            ['It asks what is here', this.asks ? '✓' : '', () => (this.asks = true)],
        ]);
    }

    /** @param {boolean} inside */
    setInside(inside) {
        this.inside = inside;
        const words = /** @type {HTMLElement} */ (document.getElementById('touching'));
        words.textContent = inside ? 'Fully inside' : 'Touching';
        if (this.points.length > 0) this.draw();
    }

    listen() {
        this.surface.addEventListener('pointerdown', (event) => event.button === 0 && this.down(event));
        this.surface.addEventListener('pointermove', (event) => this.move(event));
        this.surface.addEventListener('pointerup', (event) => event.button === 0 && this.up(event));
        this.surface.addEventListener('pointercancel', () => this.cancel());
        this.surface.addEventListener('dblclick', () => this.tool === 'polygon' && this.finish());
        this.surface.addEventListener(
            'wheel',
            (event) => {
                if (this.tool !== 'brush' || !event.altKey) return;
                event.preventDefault();
                event.stopImmediatePropagation();
                this.radius = Math.max(3, Math.min(200, this.radius * (event.deltaY > 0 ? 0.9 : 1.1)));
                this.draw();
            },
            { capture: true, passive: false },
        );
        addEventListener('keydown', (event) => this.key(event), true);
    }

    /**
     * Drawing without a pointer, in the canvas that has the focus: arrow keys move a cross, Space sets a corner or begins and ends a
     * stroke, Enter closes the region.
     * @param {KeyboardEvent} event
     * @returns {boolean} whether the key meant something
     */
    steer(event) {
        if (this.tool === 'click' || event.target !== this.surface || event.ctrlKey || event.metaKey) return false;
        const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
        const { clientWidth, clientHeight } = this.surface;
        const cross = this.cross ?? [clientWidth / 2, clientHeight / 2];
        if (step) {
            const far = event.shiftKey ? 40 : 8;
            this.cross = this.pointer = [
                Math.max(0, Math.min(clientWidth, cross[0] + step[0] * far)),
                Math.max(0, Math.min(clientHeight, cross[1] + step[1] * far)),
            ];
            if (this.points.length > 0 && this.tool !== 'polygon') this.stretch(this.cross);
            this.draw();
            return true;
        }
        if (event.key === ' ' && (this.points.length === 0 || this.tool === 'polygon')) {
            this.cross = this.pointer = cross;
            this.points.push(cross);
            this.draw();
            return true;
        }
        if ((event.key === ' ' || event.key === 'Enter') && this.points.length > 0) {
            this.mode = modeOf(event);
            this.finish();
            return true;
        }
        return false;
    }

    /** @param {KeyboardEvent} event */
    key(event) {
        if (/** @type {Element} */ (event.target).closest?.('input, textarea, dialog, [popover]')) return;
        if (this.steer(event)) {
            event.preventDefault();
            event.stopPropagation();
            return;
        }
        if (this.points.length === 0) {
            if (event.key === 'Escape' && this.tool !== 'click') {
                event.stopPropagation();
                this.choose('click');
            }
            return;
        }
        if (event.key === 'Escape') this.cancel();
        else if (event.key === 'Enter' && this.tool === 'polygon') this.finish();
        else if (event.key === 'Backspace' && this.tool === 'polygon') {
            this.points.pop();
            this.draw();
        } else return;
        event.preventDefault();
        event.stopPropagation();
    }

    /** @param {PointerEvent} event @returns {number[]} */
    place(event) {
        const { left, top } = this.surface.getBoundingClientRect();
        return [Math.round((event.clientX - left) * 10) / 10, Math.round((event.clientY - top) * 10) / 10];
    }

    /** @param {PointerEvent} event */
    down(event) {
        const place = this.place(event);
        if (this.tool === 'polygon') {
            const [first] = this.points;
            if (first && this.points.length > 2 && Math.hypot(first[0] - place[0], first[1] - place[1]) < 10) return this.finish();
            if (this.points.length === 0) this.mode = modeOf(event);
            this.points.push(place);
            return this.draw();
        }
        this.mode = modeOf(event);
        this.points = [place];
        this.dragging = true;
        this.surface.setPointerCapture(event.pointerId);
    }

    /** @param {PointerEvent} event */
    move(event) {
        this.pointer = this.place(event);
        this.cross = undefined;
        if (this.tool === 'polygon' && this.points.length > 0) return this.draw();
        if (this.tool === 'brush' && !this.dragging) return this.draw();
        if (!this.dragging || this.points.length === 0) return;
        if (this.stretch(this.pointer)) this.draw();
    }

    /** Takes the shape that is being drawn on to a place. @param {number[]} place @returns {boolean} whether that changed it */
    stretch(place) {
        const last = this.points[this.points.length - 1];
        if (this.tool === 'lasso' || this.tool === 'brush') {
            if (Math.hypot(last[0] - place[0], last[1] - place[1]) < (this.tool === 'brush' ? Math.max(3, this.radius / 3) : 3))
                return false;
            this.points.push(place);
            // A long way is kept by leaving out every other point.
            if (this.points.length > MOST_POINTS)
                this.points = this.points.filter((_, index) => index % 2 === 0 || index === this.points.length - 1);
        } else this.points[1] = place;
        return true;
    }

    /** @param {PointerEvent} event */
    up(event) {
        if (this.tool === 'polygon' || !this.dragging) return;
        this.dragging = false;
        const [first] = this.points;
        const end = this.place(event);
        const far = Math.max(
            ...this.points.map(([x, y]) => Math.hypot(x - first[0], y - first[1])),
            Math.hypot(end[0] - first[0], end[1] - first[1]),
        );
        if (far < 5 && this.tool !== 'brush') return this.cancel();
        if (this.tool === 'click' || this.tool === 'rectangle' || this.tool === 'circle') this.points[1] = end;
        this.finish();
    }

    /** The shape as the server takes it. */
    get region() {
        const { clientWidth, clientHeight } = this.bench.canvas.element;
        return JSON.stringify({
            shape: this.tool === 'click' ? 'rectangle' : this.tool,
            inside: this.inside,
            points: this.points,
            radius: this.radius,
            width: clientWidth,
            height: clientHeight,
            ...this.bench.canvas.viewpoint.sight(),
        });
    }

    async finish() {
        if (this.points.length === 0 || (this.tool === 'polygon' && this.points.length < 3)) return this.cancel();
        const { region, mode } = this;
        this.points = [];
        this.sketch.classList.add('asked');
        if (this.asks) await this.ask(region);
        else await this.bench.server.ask('POST', '/pick/region', { region, mode, ...this.bench.taking.values });
        this.sketch.classList.remove('asked');
        const { cross } = this;
        this.cancel();
        // Whoever draws by keyboard goes on from there.
        this.cross = cross;
        if (cross) this.draw();
    }

    /** Shows everything in a region. @param {string} region */
    async ask(region) {
        const html = await this.bench.server.htmlOf('/here', { region });
        if (html) this.bench.dialogs.open(html);
    }

    /** Shows everything at a place of the canvas. @param {number} x pixels from its left @param {number} y from its top */
    askAt(x, y) {
        const { clientWidth, clientHeight } = this.bench.canvas.element;
        return this.ask(
            JSON.stringify({
                shape: 'circle',
                inside: false,
                points: [
                    [x, y],
                    [x + 3, y],
                ],
                width: clientWidth,
                height: clientHeight,
                ...this.bench.canvas.viewpoint.sight(),
            }),
        );
    }

    cancel() {
        this.cross = undefined;
        this.points = [];
        this.dragging = false;
        this.sketch.replaceChildren();
        this.counter.textContent = '';
    }

    draw() {
        const shape = (/** @type {string} */ name, /** @type {Record<string, any>} */ values) => {
            const element = document.createElementNS('http://www.w3.org/2000/svg', name);
            for (const [key, value] of Object.entries(values)) element.setAttribute(key, String(value));
            return element;
        };
        const [[x, y] = [0, 0], [u, v] = [x, y]] = this.points;
        const drawn = [];
        const kind = `mode-${this.mode} ${this.inside ? 'inside' : 'touching'}`;
        if (this.points.length > 0) {
            if (this.tool === 'circle') drawn.push(shape('circle', { class: kind, cx: x, cy: y, r: Math.hypot(u - x, v - y) }));
            else if (this.tool === 'brush')
                drawn.push(
                    shape('polyline', {
                        class: `${kind} brush`,
                        points: (this.points.length === 1 ? [...this.points, [x + 0.1, y]] : this.points).join(' '),
                        'stroke-width': this.radius * 2,
                    }),
                );
            else if (this.tool === 'polygon')
                drawn.push(
                    shape('polygon', { class: kind, points: [...this.points, this.pointer ?? [x, y]].join(' ') }),
                    ...this.points.map(([a, b]) => shape('circle', { class: 'corner', cx: a, cy: b, r: 3 })),
                );
            else if (this.tool === 'lasso') drawn.push(shape('polygon', { class: kind, points: this.points.join(' ') }));
            else
                drawn.push(
                    shape('rect', { class: kind, x: Math.min(x, u), y: Math.min(y, v), width: Math.abs(u - x), height: Math.abs(v - y) }),
                );
            this.count();
        } else if (this.tool === 'brush' && this.pointer)
            drawn.push(shape('circle', { class: 'touching', cx: this.pointer[0], cy: this.pointer[1], r: this.radius }));
        if (this.cross)
            drawn.push(
                shape('path', { class: 'cross', d: `M${this.cross[0] - 9} ${this.cross[1]}h18M${this.cross[0]} ${this.cross[1] - 9}v18` }),
            );
        this.sketch.replaceChildren(...drawn);
    }

    /** Asks how many the region would catch, one question at a time. */
    async count() {
        if (this.counting || this.points.length < (this.tool === 'polygon' ? 3 : 2)) return;
        this.counting = true;
        const asked = this.region;
        const started = performance.now();
        const answer = await this.bench.server.post('/pick/region', { region: asked, count: 1, ...this.bench.taking.values });
        if (this.points.length > 0 && answer)
            this.counter.textContent = `${answer.count.toLocaleString('en')} ${answer.count === 1 ? 'object' : 'objects'}`;
        // A slow answer is asked for less often.
        setTimeout(
            () => {
                this.counting = false;
                if (this.points.length > 0 && this.region !== asked) this.count();
            },
            Math.min(1500, (performance.now() - started) * 1.5),
        );
    }
}

/** @param {{shiftKey: boolean, altKey: boolean}} event */
function modeOf(event) {
    return event.shiftKey ? 'add' : event.altKey ? 'remove' : 'replace';
}
