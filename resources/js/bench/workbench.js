import { Canvas } from '../canvas/canvas.js';
import { Dialogs } from './dialogs.js';
import { listenToLedger } from './gestures.js';
import { Ledger } from './ledger.js';
import { Menus } from './menus.js';
import { renameInPlace } from './rename.js';
import { Server } from './server.js';

/** @param {HTMLElement} element */
export function startWorkbench(element) {
    const bench = new Workbench(element);
    // For the browser tests, which must know when the picture is finished.
    Object.assign(window, { shelfBench: bench });
}

/** Ties the ledger, the canvas and the shelf together. */
export class Workbench {
    /** @param {HTMLElement} element */
    constructor(element) {
        this.element = element;
        const base = new URL(element.dataset.base ?? '').pathname;
        this.server = new Server(base, () => this.ledger.window);
        this.ledger = new Ledger(/** @type {HTMLElement} */ (element.querySelector('.ledger')), this.server);
        this.canvas = new Canvas(/** @type {HTMLElement} */ (document.getElementById('canvas')), {
            records: `${base}/records`,
            packs: `${base}/packs`,
            textures: `${base}/textures`,
            budget: Number(element.dataset.budget),
            materials: JSON.parse(document.getElementById('materials')?.textContent ?? '{}'),
            csrf: /** @type {HTMLMetaElement} */ (document.querySelector('meta[name=csrf-token]')).content,
        });
        this.dialogs = new Dialogs(this);
        this.menus = new Menus(this);
        this.picked = 0;
        this.listen();
        listenToLedger(this);
        this.readState().then(() => this.canvas.load(this.remembered()));
        new MutationObserver(() => this.readState()).observe(/** @type {HTMLElement} */ (document.getElementById('canvas-state')), { childList: true });
        new MutationObserver(() => this.said()).observe(/** @type {HTMLElement} */ (document.getElementById('message')), { childList: true });
        this.pulse();
    }

    /** What the server last said about rungs, locks and the pick, and what the page should do about it. */
    async readState() {
        const state = /** @type {HTMLElement | null} */ (document.getElementById('state'));
        if (!state) return;
        const { revision, desk, states, pick, picked, more } = state.dataset;
        this.revisions = { revision: Number(revision), desk: Number(desk) };
        this.picked = Number(picked);
        const wanted = JSON.parse(more ?? '[]');
        this.canvas.setState(await inflated(states ?? ''), await inflated(pick ?? ''));
        if (wanted.camera) this.canvas.viewpoint.set(wanted.camera);
        if (wanted.focus) {
            if (wanted.focus.startsWith('L')) this.ledger.selected = new Set([wanted.focus]);
            this.ledger.show(wanted.focus, true);
        }
        if (wanted.shelf) document.querySelector(`.view[data-view="${wanted.shelf}"]`)?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
    }

    /** Hears what other people, and this person elsewhere, have changed. */
    async pulse() {
        for (;;) {
            await new Promise((resolve) => setTimeout(resolve, 1500));
            if (document.hidden || !this.revisions) continue;
            const { revision, desk } = this.revisions;
            await this.server.ask('GET', '/pulse', { revision, desk });
        }
    }

    /** A line that was answered goes by itself, but not while somebody is about to use it. */
    said() {
        clearTimeout(this.saidTimer);
        const message = /** @type {HTMLElement} */ (document.getElementById('message'));
        if (message.childElementCount === 0) return;
        const leave = () => {
            if (message.matches(':hover, :focus-within')) this.saidTimer = window.setTimeout(leave, 2000);
            else message.replaceChildren();
        };
        this.saidTimer = window.setTimeout(leave, message.querySelector('.warns') ? 12000 : 7000);
    }

    /** @param {Record<string, any>} values @param {boolean} [follow] whether the ledger shows what was picked */
    async pick(values, follow = true) {
        await this.server.ask('POST', '/pick', values);
        const key = String(values.keys ?? '');
        if (follow && key.startsWith('O') && !key.includes(',')) this.ledger.show(key);
    }

    /** @param {string[]} keys @param {number} rung */
    setRung(keys, rung) {
        return this.server.ask('POST', '/rungs', { keys: keys.join(','), rung });
    }

    /** @param {string[]} keys @param {number} lock */
    setLock(keys, lock) {
        return this.server.ask('POST', '/locks', { keys: keys.join(','), lock });
    }

    /** @param {number} layer */
    async deleteLayer(layer) {
        if (layer === 1) return this.say('Unsorted is always there; it cannot be deleted.');
        this.openDialog(`/layers/${layer}/delete`);
    }

    /** @param {number} object */
    why(object) {
        return this.openDialog(`/why/${object}`);
    }

    /** @param {string} path */
    async openDialog(path) {
        const html = await this.server.html(path);
        if (html) this.dialogs.open(html);
    }

    /** @param {string} sentence */
    say(sentence) {
        const line = document.createElement('p');
        line.append(Object.assign(document.createElement('span'), { textContent: sentence }));
        document.getElementById('message')?.replaceChildren(line);
    }

    /** @param {HTMLElement} row @param {HTMLElement | null} button @param {MouseEvent} [event] */
    openRowMenu(row, button, event) {
        this.menus.openRow(row, button, event);
    }

    /** Renames in place; Enter keeps, Escape leaves it. @param {HTMLElement} row */
    rename(row) {
        const key = row.dataset.key ?? '';
        if (key === 'L1') return this.say('Unsorted keeps its name.');
        row.draggable = false;
        renameInPlace(/** @type {HTMLElement} */ (row.querySelector('.name > .label')), row.dataset.name ?? '', {
            className: 'rename',
            length: 500,
            after: () => {
                row.draggable = true;
                this.ledger.focus(row);
            },
            keep: (name) => this.server.ask('PATCH', key.startsWith('L') ? `/layers/${key.slice(1)}` : `/objects/${key.slice(1)}`, { name }),
        });
    }

    /** A layer by typing its name in a dialog. @param {boolean} fromPick */
    newLayer(fromPick) {
        if (fromPick && this.picked === 0) return this.say('Nothing is picked; pick objects first.');
        const parent = [...this.ledger.selected][0] ?? (this.ledger.focusKey.startsWith('L') ? this.ledger.focusKey : '');
        const inside = parent !== '' && parent !== 'L1' && !fromPick ? this.ledger.row(parent)?.dataset.name : undefined;
        const form = document.createElement('form');
        form.className = 'ask';
        form.dataset.submit = 'post';
        form.dataset.address = `${this.server.base}/layers`;
        form.innerHTML = '<h2 id="dialog-title"></h2><label for="layer-name">Name</label><input id="layer-name" name="name" maxlength="200" autofocus><label class="tick" hidden><input type="checkbox" name="parent" checked> <span></span></label><p class="error" role="alert" hidden></p><p class="acts"><button class="button primary">Create</button> <button type="button" class="button" data-close>Cancel</button></p>';
        /** @type {HTMLElement} */ (form.querySelector('h2')).textContent = fromPick ? `New layer from ${this.picked.toLocaleString('en')} picked` : 'New layer';
        if (inside) {
            const tick = /** @type {HTMLElement} */ (form.querySelector('.tick'));
            tick.hidden = false;
            /** @type {HTMLInputElement} */ (tick.querySelector('input')).value = parent.slice(1);
            /** @type {HTMLElement} */ (tick.querySelector('span')).textContent = `inside ${inside}`;
        } else form.querySelector('.tick')?.remove();
        if (fromPick) form.append(Object.assign(document.createElement('input'), { type: 'hidden', name: 'from_pick', value: '1' }));
        this.dialogs.open('');
        this.dialogs.element.append(form);
        /** @type {HTMLElement} */ (form.querySelector('#layer-name')).focus();
    }

    /** @param {string} command @param {HTMLElement} [from] the button that gave it */
    command(command, from) {
        const view = Number(from?.dataset.view);
        const ask = this.server.ask.bind(this.server);
        /** @type {Record<string, () => any>} */
        const commands = {
            undo: () => ask('POST', '/undo'),
            redo: () => ask('POST', '/redo'),
            'desk-undo': () => ask('POST', '/desk/undo'),
            'desk-redo': () => ask('POST', '/desk/redo'),
            'fit-all': () => this.canvas.fitAll(),
            'fit-pick': () => this.canvas.fitPick(),
            'clear-pick': () => this.picked > 0 && this.pick({ mode: 'replace' }),
            'file-under': () => (this.picked > 0 ? this.openDialog('/file') : this.say('Nothing is picked; pick objects first.')),
            'new-layer': () => this.newLayer(false),
            'new-layer-from-pick': () => this.newLayer(true),
            'rung-pick': () => ask('POST', '/rungs', { on: 'pick', rung: from?.dataset.rung }),
            'lock-pick': () => this.lockPick(),
            why: () => this.why(Number(from?.dataset.object)),
            'unfold-all': () => this.ledger.foldAll(true),
            'fold-all': () => this.ledger.foldAll(false),
            'keep-view': () => this.openDialog('/views/new'),
            'apply-view': () => ask('POST', `/views/${view}/apply`),
            'view-menu': () => this.menus.openView(/** @type {HTMLElement} */ (from?.closest('.view')), /** @type {HTMLElement} */ (from)),
            keys: () => this.dialogs.open(document.getElementById('keys-sheet')?.innerHTML ?? ''),
        };
        return commands[command]?.();
    }

    /** The pick goes one step on: open, guarded, locked, open. */
    lockPick() {
        const locked = Number(document.querySelector('.rows .row.picked')?.getAttribute('data-lock') ?? 0);
        if (this.picked > 0) this.server.ask('POST', '/locks', { lock: (locked + 1) % 3 });
    }

    listen() {
        document.addEventListener('click', (event) => {
            const button = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-command]'));
            if (button && !button.hasAttribute('disabled')) this.command(button.dataset.command ?? '', button);
        });
        document.addEventListener('keydown', (event) => this.onKey(event));
        this.element.querySelector('.lenses')?.addEventListener('click', (event) => this.turn(/** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-lens]'))));
        this.element.querySelector('.lenses')?.addEventListener('keydown', (event) => this.stepLens(/** @type {KeyboardEvent} */ (event)));
        document.getElementById('pick-found')?.addEventListener('click', () => this.pick({ found: 1, mode: 'replace' }));
        document.getElementById('shelf')?.addEventListener('keydown', (event) => this.stepShelf(event));
        this.listenToCanvas();
        this.listenToDivider();
    }

    /** @param {HTMLElement | null} tab */
    turn(tab) {
        if (!tab) return;
        for (const other of this.element.querySelectorAll('[data-lens][role=tab]')) {
            other.setAttribute('aria-selected', String(other === tab));
            other.setAttribute('tabindex', other === tab ? '0' : '-1');
        }
        this.ledger.turn(tab.dataset.lens ?? 'layers');
    }

    /** @param {KeyboardEvent} event */
    stepLens(event) {
        const tab = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-lens]'));
        if (!tab || !['ArrowLeft', 'ArrowRight'].includes(event.key)) return;
        const tabs = /** @type {HTMLElement[]} */ ([...this.element.querySelectorAll('[role=tab]')]);
        const next = tabs[(tabs.indexOf(tab) + (event.key === 'ArrowRight' ? 1 : tabs.length - 1)) % tabs.length];
        event.preventDefault();
        next.focus();
        this.turn(next);
    }

    /** @param {KeyboardEvent} event */
    stepShelf(event) {
        if (!['ArrowLeft', 'ArrowRight', 'Delete', 'F2'].includes(event.key)) return;
        const buttons = /** @type {HTMLElement[]} */ ([...document.querySelectorAll('.view-picture')]);
        const at = buttons.indexOf(/** @type {HTMLElement} */ (event.target));
        if (at < 0) return;
        event.preventDefault();
        const view = /** @type {HTMLElement} */ (buttons[at].closest('.view'));
        if (event.key === 'F2') return this.menus.renameView(view);
        if (event.key === 'Delete') return void this.server.ask('DELETE', `/views/${view.dataset.view}`);
        const next = buttons[Math.max(0, Math.min(buttons.length - 1, at + (event.key === 'ArrowRight' ? 1 : -1)))];
        next.focus();
        this.command('apply-view', next);
    }

    /** @param {KeyboardEvent} event */
    onKey(event) {
        const on = /** @type {Element} */ (event.target);
        if (on.closest('input, select, textarea, dialog, [popover]')) {
            if (event.key === 'Escape' && on.id === 'words') {
                this.ledger.input.value = '';
                this.ledger.search('');
            }
            if (event.key === 'ArrowDown' && on.id === 'words') this.ledger.focusPlace(0);
            return;
        }
        if (event.defaultPrevented) return;
        const control = event.ctrlKey || event.metaKey;
        const name = `${control ? 'Ctrl+' : ''}${event.shiftKey && event.key.length === 1 && /[a-z]/i.test(event.key) ? 'Shift+' : ''}${event.key.length === 1 ? event.key.toLowerCase() : event.key}`;
        /** @type {Record<string, string>} */
        const keys = {
            'Ctrl+z': 'undo', 'Ctrl+y': 'redo', 'Ctrl+Shift+z': 'redo', z: 'desk-undo', 'Shift+z': 'desk-redo', a: 'fit-all', f: 'fit-pick', Escape: 'clear-pick',
            u: 'file-under', n: 'new-layer', 'Shift+n': 'new-layer-from-pick', v: 'keep-view', '?': 'keys',
        };
        if (event.altKey) return;
        const button = /** @type {HTMLElement | null} */ (document.querySelector('#card [data-command=why]'));
        if (keys[name]) this.command(keys[name]);
        else if (name === 'y' && button) this.command('why', button);
        else if (name === 'l' && this.picked > 0) this.lockPick();
        else if (/^[0-5]$/.test(name) && this.picked > 0) this.server.ask('POST', '/rungs', { on: 'pick', rung: name });
        else if (name === '/') this.ledger.input.focus();
        else return;
        event.preventDefault();
    }

    listenToCanvas() {
        const element = /** @type {HTMLElement} */ (document.getElementById('canvas'));
        const tag = /** @type {HTMLElement} */ (document.getElementById('hover-name'));
        /** @type {Map<number, {name: string, layer: string}>} */
        const names = new Map();
        element.addEventListener('pointermove', (event) => {
            const { left, top, width } = element.getBoundingClientRect();
            const x = event.clientX - left;
            tag.style.left = x > width - 240 ? '' : `${x + 14}px`;
            tag.style.right = x > width - 240 ? `${width - x + 10}px` : '';
            tag.style.top = `${event.clientY - top + 16}px`;
        });
        element.addEventListener('shelf:hover', async (event) => {
            const { number, guarded } = /** @type {CustomEvent} */ (event).detail;
            const asked = (this.hoverAsked = number);
            if (number === 0) return void (tag.hidden = true);
            await new Promise((resolve) => setTimeout(resolve, 60));
            if (asked !== this.hoverAsked) return;
            if (!names.has(number)) names.set(number, await this.server.json(`/objects/${number}`));
            const about = names.get(number);
            if (asked !== this.hoverAsked || !about) return;
            tag.replaceChildren(about.name, ' ', Object.assign(document.createElement('small'), { textContent: `${about.layer}${guarded ? ' · guarded' : ''}` }));
            tag.hidden = false;
        });
        element.addEventListener('shelf:pick', (event) => {
            const { number, mode, guarded } = /** @type {CustomEvent} */ (event).detail;
            if (guarded) return this.say('That object is guarded: pick it in the ledger, or open it first.');
            if (number === 0) return this.command('clear-pick');
            this.pick({ keys: `O${number}`, mode });
        });
        element.addEventListener('shelf:drawn', (event) => {
            const { boxes, missing, done, loading } = /** @type {CustomEvent} */ (event).detail;
            const line = /** @type {HTMLElement} */ (document.getElementById('on-its-way'));
            const words = missing > 0 || loading ? (missing > 0 ? `${missing.toLocaleString('en')} packs on their way` : 'more objects on their way')
                : boxes > 0 ? `${boxes.toLocaleString('en')} objects stand as boxes, to keep within the budget` : done ? 'everything is here' : 'drawing';
            if (line.textContent !== words) line.textContent = words;
        });
        addEventListener('pagehide', () => this.remember());
        document.addEventListener('visibilitychange', () => document.hidden && this.remember());
    }

    /** The camera is this person's own, in this browser. */
    remember() {
        if (this.canvas.framed) localStorage.setItem(`camera:${this.server.base}`, JSON.stringify(this.canvas.viewpoint.get()));
    }

    remembered() {
        try {
            return JSON.parse(localStorage.getItem(`camera:${this.server.base}`) ?? 'null');
        } catch {
            return null;
        }
    }

    listenToDivider() {
        const divider = /** @type {HTMLElement} */ (this.element.querySelector('.divider'));
        const set = (/** @type {number} */ width) => {
            const kept = Math.round(Math.max(360, Math.min(900, innerWidth - 280, width)));
            document.documentElement.style.setProperty('--ledger', `${kept}px`);
            divider.setAttribute('aria-valuenow', String(kept));
            localStorage.setItem('ledger-width', String(kept));
        };
        const kept = Number(localStorage.getItem('ledger-width'));
        if (kept) set(kept);
        divider.addEventListener('pointerdown', (event) => divider.setPointerCapture(event.pointerId));
        divider.addEventListener('pointermove', (event) => divider.hasPointerCapture(event.pointerId) && set(event.clientX));
        divider.addEventListener('keydown', (event) => {
            const step = { ArrowLeft: -24, ArrowRight: 24 }[event.key];
            if (!step) return;
            event.preventDefault();
            event.stopPropagation();
            set(Number(divider.getAttribute('aria-valuenow')) + step);
        });
    }
}

/** @param {string} text deflated bytes in base64 @returns {Promise<Uint8Array>} */
async function inflated(text) {
    const packed = Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
    const stream = new Blob([packed]).stream().pipeThrough(new DecompressionStream('deflate-raw'));
    return new Uint8Array(await new Response(stream).arrayBuffer());
}
