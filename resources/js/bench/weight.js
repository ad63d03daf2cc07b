import { hearPick, listenToLightening } from './lighten.js';

const START = { show: 'map', by: 'layers', size: 'triangles', colour: 'own', inside: '', per: '', least: '', sort: 'triangles' };

/** What weighs what, above the canvas: a map whose parts open, lists beside it, and from each a pick. */
export class WeightPanel {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        this.work = /** @type {HTMLElement} */ (document.getElementById('work'));
        this.panel = /** @type {HTMLElement} */ (document.getElementById('weight'));
        this.asked = { ...START };
        this.revision = 0;
        /** Counts what was asked for: what comes late is not shown any more. */
        this.turn = 0;
        this.opener = /** @type {HTMLElement | null} */ (null);
        this.panel.addEventListener('click', (event) => this.clicked(event));
        listenToLightening(bench, this.panel);
        this.panel.addEventListener('change', (event) => {
            const select = /** @type {HTMLSelectElement} */ (event.target);
            if (select.dataset.fine) this.count(select);
            if (!select.dataset.weight) return;
            const what = /** @type {'by' | 'size' | 'colour'} */ (select.dataset.weight);
            this.go({ [what]: select.value, ...(what === 'by' ? { inside: '' } : {}) }, `[data-weight="${what}"]`);
        });
        this.panel.addEventListener('keydown', (event) => this.key(event));
        new ResizeObserver(() => this.resized()).observe(this.panel);
    }

    get isOpen() {
        return !this.panel.hidden;
    }

    /** Shows what can be lightened, or closes the panel when it does. */
    async lighten() {
        if (this.isOpen && this.asked.show === 'lighten') return this.close();
        this.asked.show = 'lighten';
        if (this.isOpen) await this.draw();
        else await this.toggle();
        return /** @type {HTMLElement | null} */ (this.panel.querySelector('#lighten-triangles'))?.focus();
    }

    async toggle() {
        if (this.isOpen) return this.close();
        this.bench.screens.close();
        this.opener = /** @type {HTMLElement | null} */ (document.activeElement);
        this.panel.hidden = false;
        this.work.classList.add('has-weight');
        await this.draw();
        /** @type {HTMLElement | null} */ (this.panel.querySelector('[aria-selected="true"]'))?.focus();
    }

    close() {
        this.panel.hidden = true;
        this.work.classList.remove('has-weight', 'has-lighten');
        // The one that opened it may have been drawn anew since.
        (this.opener?.isConnected ? this.opener : /** @type {HTMLElement | null} */ (document.querySelector('.meter')))?.focus();
    }

    /** Something has changed: what is shown may weigh something else. @param {number} revision */
    hears(revision) {
        // What somebody fills in stays as it is.
        if (this.asked.show === 'lighten') hearPick(this.bench, this.panel);
        else if (this.isOpen && revision !== this.revision) this.draw();
        this.revision = revision;
    }

    resized() {
        const { clientWidth } = this.panel;
        if (!this.isOpen || this.asked.show === 'lighten' || Math.abs(clientWidth - (this.width ?? clientWidth)) < 2) return;
        clearTimeout(this.timer);
        this.timer = window.setTimeout(() => this.draw(), 120);
    }

    /** Shows something else. @param {Partial<typeof START>} what @param {string} [focus] what has the focus then */
    async go(what, focus) {
        Object.assign(this.asked, what);
        await this.draw();
        if (focus) /** @type {HTMLElement | null} */ (this.panel.querySelector(focus))?.focus();
    }

    async draw() {
        this.work.classList.toggle('has-lighten', this.asked.show === 'lighten');
        this.width = this.panel.clientWidth;
        const width = Math.max(200, Math.min(4000, this.width - 16));
        const height = Math.max(80, this.panel.clientHeight - 84);
        const turn = ++this.turn;
        const html = await this.bench.server.html(
            `/weight?${new URLSearchParams({ ...this.asked, width: `${width}`, height: `${height}` })}`,
        );
        if (turn !== this.turn) return;
        if (html !== null) {
            this.panel.innerHTML = html;
            this.panel.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
        } else if (this.asked.inside !== '') {
            // What it stood inside may be gone.
            this.asked.inside = '';
            this.panel.replaceChildren();
        }
    }

    /** @param {MouseEvent} event */
    clicked(event) {
        const part = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('.weight-part'));
        if (part) return this.open(part, event);
        const doing = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-mesh-do]'));
        if (doing) return this.change(doing);
        const button = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-weight]'));
        if (!button || button instanceof HTMLSelectElement) return undefined;
        const { weight, value = '' } = button.dataset;
        if (weight === 'close') return this.close();
        if (weight === 'pick') return this.pick(value, event);
        if (weight === 'apply') return this.bench.server.ask('POST', `/views/${value}/apply`, {});
        if (weight === 'sort') return this.go({ sort: value }, `[data-weight=sort][data-value=${value}]`);
        if (weight === 'inside' && value !== '') this.pick(value, event);
        return this.go(
            { [/** @type {'show' | 'inside'} */ (weight)]: value },
            weight === 'show' ? '[aria-selected="true"]' : '.weight-part',
        );
    }

    /** Picks a part, and shows what is in it. @param {HTMLElement} part @param {MouseEvent | KeyboardEvent} event */
    open(part, event) {
        const { key = '', deep } = part.dataset;
        const adds = event.shiftKey || event.altKey;
        this.pick(key, event);
        if (deep === '1' && !adds) this.go({ inside: key }, '.weight-part');
    }

    /** Counts otherwise what is too fine. @param {HTMLSelectElement | HTMLInputElement} changed */
    count(changed) {
        const way = /** @type {HTMLSelectElement} */ (this.panel.querySelector('#fine-by')).value;
        const least = /** @type {HTMLInputElement} */ (this.panel.querySelector('#fine-least')).value;
        this.go({ per: way, least: changed.id === 'fine-by' ? '' : least }, `#${changed.id}`);
    }

    /** Puts meshes in place of others. @param {HTMLElement} button */
    async change(button) {
        const { meshDo: what, meshes, hashes } = button.dataset;
        const values = hashes === undefined ? { meshes: meshes ?? '' } : { hashes };
        const status = await this.bench.server.ask('POST', `/meshes/${what}`, values);
        // What hears of the change draws this anew; the focus stays in the list.
        if (status === 200) await this.go({}, '.weight-list');
    }

    /** @param {string} key @param {MouseEvent | KeyboardEvent} event */
    pick(key, event) {
        const mode = event.shiftKey ? 'add' : event.altKey ? 'remove' : 'replace';
        return this.bench.server.ask('POST', '/weight/pick', { key, mode });
    }

    /** @param {KeyboardEvent} event */
    key(event) {
        const target = /** @type {HTMLElement} */ (event.target);
        const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
        if (event.key === 'Escape') {
            if (this.asked.show === 'map' && this.asked.inside !== '') this.up();
            else this.close();
        } else if (target.matches('.weight-part') && (event.key === 'Enter' || event.key === ' ')) this.open(target, event);
        else if (target.matches('.weight-part') && event.key === 'Backspace') this.up();
        else if (step && target.matches('.weight-part, [role="tab"]')) this.step(target, step);
        else return;
        event.preventDefault();
        event.stopPropagation();
    }

    up() {
        const trail = /** @type {NodeListOf<HTMLElement>} */ (this.panel.querySelectorAll('.weight-trail button'));
        this.go({ inside: trail[trail.length - 2]?.dataset.value ?? '' }, '.weight-part');
    }

    /** @param {HTMLElement} from @param {number} by */
    step(from, by) {
        const all = /** @type {HTMLElement[]} */ ([
            ...this.panel.querySelectorAll(from.matches('[role="tab"]') ? '[role="tab"]' : '.weight-part'),
        ]);
        const next = all[(all.indexOf(from) + by + all.length) % all.length];
        for (const one of all) one.tabIndex = one === next ? 0 : -1;
        next.focus();
    }
}
