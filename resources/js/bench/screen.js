/**
 * A screen above the canvas that the server draws: sorting rules, history, tidy. What its buttons do stands in the page:
 * data-pick picks what a number counts, data-act does something, data-open asks in a dialog, data-go shows something else of it,
 * data-read asks with a file.
 */
export class Screen {
    /**
     * @param {import('./workbench.js').Workbench} bench
     * @param {string} path below the workbench's address
     * @param {Record<string, (of: string) => any[]>} [menus] what the menus in it offer
     */
    constructor(bench, path, menus = {}) {
        this.bench = bench;
        this.path = path;
        this.menus = menus;
        this.work = /** @type {HTMLElement} */ (document.getElementById('work'));
        this.panel = /** @type {HTMLElement} */ (document.getElementById(path.slice(1)));
        /** @type {Record<string, string>} */
        this.asked = {};
        this.revision = '';
        /** What was drawn last, below its head. */
        this.rest = '';
        /** Counts what was asked for: what comes late is not shown any more. */
        this.turn = 0;
        this.opener = /** @type {HTMLElement | null} */ (null);
        this.panel.addEventListener('click', (event) => this.clicked(event));
        this.panel.addEventListener('change', (event) => this.changed(/** @type {HTMLInputElement} */ (event.target)));
        this.panel.addEventListener('keydown', (event) => this.key(event));
    }

    get isOpen() {
        return !this.panel.hidden;
    }

    /** @param {Record<string, string>} [asked] what of it is shown */
    async toggle(asked = {}) {
        if (this.isOpen && Object.keys(asked).length === 0) return this.close();
        if (!this.isOpen) {
            this.bench.screens.close();
            this.opener = /** @type {HTMLElement | null} */ (document.activeElement);
            this.panel.hidden = false;
            this.work.classList.add('has-weight', 'has-screen');
        }
        this.asked = asked;
        await this.draw();
        /** @type {HTMLElement | null} */ (
            this.panel.querySelector('[data-first], .button.primary:not(:disabled), .button, [data-panel=close]')
        )?.focus();
        return undefined;
    }

    close() {
        if (!this.isOpen) return;
        const had = this.panel.contains(document.activeElement);
        this.panel.hidden = true;
        this.work.classList.remove('has-weight', 'has-screen');
        if (had && this.opener?.isConnected) this.opener.focus();
    }

    /** Something has changed: what is shown may be another now. @param {string} now revision and pick */
    hears(now) {
        if (this.isOpen && now !== this.revision) this.draw();
        this.revision = now;
    }

    async draw() {
        const turn = ++this.turn;
        const html = await this.bench.server.html(`${this.path}?${new URLSearchParams(this.asked)}`);
        if (turn !== this.turn || html === null) return;
        const drawn = document.createElement('template');
        drawn.innerHTML = html;
        const [head, ...others] = drawn.content.children;
        const rest = others.map((one) => one.outerHTML).join('');
        const focused = this.focused();
        // What is the same stays: somebody may be about to click there.
        if (rest === this.rest && head && this.panel.firstElementChild) this.panel.firstElementChild.replaceWith(head);
        else this.replace(html);
        this.rest = rest;
        const on = document.activeElement;
        if (focused !== '' && (!on || !this.panel.contains(on)))
            /** @type {HTMLElement | null} */ (this.panel.querySelector(focused))?.focus();
        this.drawAgain();
    }

    /** All of it anew; what was open, and how far it was scrolled, stays. @param {string} html */
    replace(html) {
        const top = this.panel.querySelector('.screen-list')?.scrollTop ?? 0;
        const folds = /** @type {HTMLDetailsElement[]} */ ([...this.panel.querySelectorAll('details[data-line]')]);
        const open = new Set(folds.filter((one) => one.open).map((one) => one.dataset.line ?? ''));
        this.panel.innerHTML = html;
        for (const one of /** @type {NodeListOf<HTMLDetailsElement>} */ (this.panel.querySelectorAll('details[data-line]')))
            one.open = open.size === 0 ? one.open : open.has(one.dataset.line ?? '');
        const list = this.panel.querySelector('.screen-list');
        if (list) list.scrollTop = top;
    }

    /** What is still being worked out is shown anew after a while. */
    drawAgain() {
        clearTimeout(this.timer);
        const again = /** @type {HTMLElement | null} */ (this.panel.querySelector('[data-again]'));
        if (again && this.isOpen) this.timer = window.setTimeout(() => this.draw(), Number(again.dataset.again));
    }

    /** How what has the focus is found again once the screen was drawn anew. */
    focused() {
        const on = /** @type {HTMLElement | null} */ (document.activeElement);
        if (!on || !this.panel.contains(on)) return '';
        for (const name of ['data-act', 'data-pick', 'data-open', 'data-go', 'data-menu', 'aria-label']) {
            const value = on.getAttribute(name);
            const line = on.closest('[data-line]')?.getAttribute('data-line');
            if (value !== null) return `${line ? `[data-line="${line}"] ` : ''}[${name}="${CSS.escape(value)}"]`;
        }
        return '.screen-list';
    }

    /** @param {MouseEvent} event */
    clicked(event) {
        const on = /** @type {HTMLElement | null} */ (
            /** @type {Element} */ (event.target).closest(
                '[data-pick], [data-act], [data-open], [data-go], [data-read], [data-panel], [data-menu], [data-show-key]',
            )
        );
        if (!on || on instanceof HTMLInputElement || on instanceof HTMLSelectElement) return undefined;
        const { pick, act, open, go, read, panel, menu } = on.dataset;
        if (panel === 'close') return this.close();
        if (on.dataset.showKey) return this.bench.showRow(on.dataset.showKey);
        if (pick !== undefined) {
            const mode = event.shiftKey ? 'add' : event.altKey ? 'remove' : 'replace';
            return this.bench.server.ask('POST', `${this.path}/pick`, { ...Object.fromEntries(new URLSearchParams(pick)), mode });
        }
        if (act !== undefined) return this.act(act, on.dataset.values ?? '');
        if (open !== undefined) return this.bench.openDialog(open);
        if (go !== undefined) return this.go(go);
        if (read !== undefined) return this.read(read, on.dataset.accept ?? '');
        if (menu !== undefined) return this.bench.menus.openFor(on, event, this.menus[menu](on.dataset.of ?? ''));
        return undefined;
    }

    /** @param {HTMLInputElement} input */
    changed(input) {
        const { act, go, ticked, value } = input.dataset;
        const said = encodeURIComponent(input.type === 'checkbox' ? (input.checked ? '1' : '') : input.value);
        // Something else is counted from its first page on.
        if (go !== undefined) return this.go(`${go}=${said}${go === 'page' ? '' : '&page='}`);
        if (act === undefined) return undefined;
        if (ticked) return this.act(act, `${ticked}=${input.checked ? 1 : 0}`);
        return this.act(act, value ? `${value}=${said}` : (input.dataset.values ?? ''));
    }

    /** @param {string} what a method and a path @param {string} values */
    async act(what, values) {
        const [method, path] = what.split(' ');
        await this.bench.server.ask(/** @type {any} */ (method), path, Object.fromEntries(new URLSearchParams(values)));
        await this.draw();
    }

    /** @param {string} query what else of it is shown */
    async go(query) {
        Object.assign(this.asked, Object.fromEntries(new URLSearchParams(query)));
        await this.draw();
    }

    /** Asks with what is in a file. @param {string} path @param {string} accept */
    read(path, accept) {
        const input = Object.assign(document.createElement('input'), { type: 'file', accept });
        input.className = 'unseen';
        this.panel.append(input);
        input.addEventListener('change', async () => {
            const file = input.files?.[0];
            input.remove();
            if (!file) return;
            const html = await this.bench.server.htmlOf(path, { list: await file.text() });
            if (html !== null) this.bench.dialogs.open(html);
        });
        input.click();
    }

    /** @param {KeyboardEvent} event */
    key(event) {
        const line = /** @type {HTMLElement | null} */ (/** @type {HTMLElement} */ (event.target).closest('tr[data-line]'));
        const way = { ArrowUp: 'up', ArrowDown: 'down' }[event.key];
        if (event.key === 'Escape') this.close();
        else if (event.altKey && way && line) {
            const button = /** @type {HTMLButtonElement | null} */ (line.querySelector(`[data-act$="/${way}"]`));
            if (button && !button.disabled) button.click();
        } else return;
        event.preventDefault();
        event.stopPropagation();
    }
}
