import { renameInPlace } from './rename.js';

/** Menus of rows and views: the same commands that keys and buttons give. */
export class Menus {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        this.element = /** @type {HTMLElement} */ (document.getElementById('row-menu'));
        this.element.addEventListener('keydown', (event) => this.step(event));
        this.element.addEventListener('toggle', (event) => {
            if (/** @type {ToggleEvent} */ (event).newState === 'closed') this.back?.focus?.();
        });
    }

    /** @param {HTMLElement} row @param {HTMLElement | null} button @param {MouseEvent} [event] */
    openRow(row, button, event) {
        const { bench } = this;
        const key = row.dataset.key ?? '';
        const number = Number(key.slice(1));
        const layer = key.startsWith('L');
        this.back = row;
        this.show(button, event, [
            layer ? ['Pick its objects', 'Enter', () => bench.pick({ keys: key, mode: 'replace' }, false)] : ['Pick', 'Enter', () => bench.pick({ keys: key, mode: 'replace' }, false)],
            ['Add to the pick', '', () => bench.pick({ keys: key, mode: 'add' }, false)],
            null,
            ...(layer
                ? [
                    number === 1 ? null : ['Rename', 'F2', () => bench.rename(/** @type {HTMLElement} */ (bench.ledger.row(key)))],
                    ['Colour…', '', () => this.colour(row, number)],
                    bench.picked > 0 ? ['File the pick here', '', () => bench.server.ask('POST', '/file', { layer: number })] : null,
                    ['New layer inside', 'N', () => { bench.ledger.selected = new Set([key]); bench.newLayer(false); }],
                    ['New objects land here', '', () => bench.server.ask('POST', '/landing', { layer: number })],
                    number === 1 ? null : ['Delete…', 'Del', () => bench.deleteLayer(number)],
                ]
                : [
                    ['Rename', 'F2', () => bench.rename(/** @type {HTMLElement} */ (bench.ledger.row(key)))],
                    ['Frame it', '', () => bench.canvas.frameObject(number)],
                    ['Why', 'Y', () => bench.why(number)],
                ]),
            null,
            ...[['Full', 5], ['Plain', 4], ['Ghost', 2], ['Box', 1], ['Hidden', 0]].map(([label, rung]) => [label, String(rung), () => bench.setRung([key], Number(rung))]),
            null,
            ...['Open', 'Guarded', 'Locked'].map((label, lock) => (Number(row.dataset.lock) === lock ? null : [label, '', () => bench.setLock([key], lock)])),
        ]);
    }

    /** @param {HTMLElement} view @param {HTMLElement} button */
    openView(view, button) {
        const { bench } = this;
        const number = Number(view.dataset.view);
        const set = (/** @type {Record<string, any>} */ values) => bench.server.ask('PATCH', `/views/${number}`, values);
        const newcomers = Number(view.dataset.newcomers);
        this.back = button;
        this.show(button, undefined, [
            ['Apply', '', () => bench.server.ask('POST', `/views/${number}/apply`)],
            ['Update from the desk…', '', () => bench.openDialog(`/views/${number}/update`)],
            ['Rename', 'F2', () => this.renameView(view)],
            null,
            ...(/** @type {[number, string][]} */ ([[0, 'Newcomers: hidden'], [5, 'Newcomers: full'], [-1, 'Newcomers: as the desk']])).map(([value, label]) => [label, newcomers === value ? '✓' : '', () => set({ newcomers: value })]),
            Number(view.dataset.new) > 0 ? ['Newcomers are reviewed', '', () => set({ reviewed: 1 })] : null,
            null,
            ['Delete', 'Del', () => bench.server.ask('DELETE', `/views/${number}`)],
        ]);
    }

    /** @param {HTMLElement} view */
    renameView(view) {
        renameInPlace(/** @type {HTMLElement} */ (view.querySelector('.view-name .label')), view.dataset.name ?? '', {
            className: 'rename',
            length: 120,
            after: () => /** @type {HTMLElement} */ (view.querySelector('.view-picture')).focus(),
            keep: (name) => this.bench.server.ask('PATCH', `/views/${view.dataset.view}`, { name }),
        });
    }

    /** @param {HTMLElement} row @param {number} layer */
    colour(row, layer) {
        const input = Object.assign(document.createElement('input'), { type: 'color', value: row.dataset.colour ?? '#888888', className: 'unseen' });
        input.setAttribute('aria-label', 'Colour of the layer');
        row.append(input);
        input.addEventListener('change', () => {
            this.bench.server.ask('PATCH', `/layers/${layer}`, { colour: input.value });
            input.remove();
        });
        input.click();
    }

    /**
     * @param {HTMLElement | null} button
     * @param {MouseEvent | undefined} event
     * @param {any[]} items label, key, act; null for a line
     */
    show(button, event, items) {
        this.element.replaceChildren();
        let line = false;
        for (const item of items) {
            if (item === null) {
                line = this.element.childElementCount > 0;
                continue;
            }
            if (line) this.element.append(document.createElement('hr'));
            line = false;
            const [label, key, act] = item;
            const entry = Object.assign(document.createElement('button'), { className: 'item', type: 'button' });
            entry.setAttribute('role', 'menuitem');
            entry.append(label);
            if (key) entry.append(Object.assign(document.createElement('kbd'), { textContent: key }));
            entry.addEventListener('click', () => {
                this.element.hidePopover();
                act();
            });
            this.element.append(entry);
        }
        this.element.showPopover();
        const at = button?.getBoundingClientRect();
        const { width, height } = this.element.getBoundingClientRect();
        const x = event ? event.clientX : (at?.right ?? 0) - width;
        const y = event ? event.clientY : (at?.bottom ?? 0) + 2;
        this.element.style.inset = `${Math.max(4, Math.min(y, innerHeight - height - 6))}px auto auto ${Math.max(4, Math.min(x, innerWidth - width - 6))}px`;
        /** @type {HTMLElement | null} */ (this.element.querySelector('button'))?.focus();
    }

    /** @param {KeyboardEvent} event */
    step(event) {
        if (!['ArrowDown', 'ArrowUp', 'Tab'].includes(event.key)) return;
        event.preventDefault();
        const entries = /** @type {HTMLElement[]} */ ([...this.element.querySelectorAll('button')]);
        const at = entries.indexOf(/** @type {HTMLElement} */ (document.activeElement));
        entries[(at + (event.key === 'ArrowUp' || event.shiftKey ? entries.length - 1 : 1)) % entries.length].focus();
    }
}
