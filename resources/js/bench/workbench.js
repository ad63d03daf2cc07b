import { Box3 } from 'three';
import { Canvas } from '../canvas/canvas.js';
import { Walk } from '../canvas/walk.js';
import { listenToColumns, listenToColumnsDialog } from './columns.js';
import { CommandBox } from './commandbox.js';
import { GESTURES, commandsOf, keyOf, shownKey } from './commands.js';
import { Dialogs } from './dialogs.js';
import { Finder } from './finder.js';
import { listenToLedger } from './gestures.js';
import { inflated } from './inflated.js';
import { Ledger } from './ledger.js';
import { Menus } from './menus.js';
import { Regions } from './regions.js';
import { renameInPlace } from './rename.js';
import { Server } from './server.js';
import { Tint } from './tint.js';

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
            smoothing: Number(element.dataset.smoothing),
            materials: JSON.parse(document.getElementById('materials')?.textContent ?? '{}'),
            csrf: /** @type {HTMLMetaElement} */ (document.querySelector('meta[name=csrf-token]')).content,
        });
        this.dialogs = new Dialogs(this);
        this.menus = new Menus(this);
        this.picked = 0;
        this.mayChange = element.dataset.mayChange === '1';
        document.body.classList.toggle('may-only-look', !this.mayChange);
        this.finder = new Finder(this);
        this.regions = new Regions(this);
        this.tint = new Tint(this);
        this.commandBox = new CommandBox(this);
        this.walk = new Walk(this.canvas.viewpoint, (from, way) => this.server.post('/pick/meet', { 'from[]': from, 'way[]': way }), () => this.walkEnded());
        this.commands = commandsOf(this);
        this.byId = new Map(this.commands.map((command) => [command.id, command]));
        this.byKey = new Map(this.commands.flatMap((command) => (command.keys === '' ? [] : command.keys.split(' ').map((key) => [key, command]))));
        this.listen();
        listenToLedger(this);
        listenToColumns(this);
        listenToColumnsDialog(this, this.dialogs.element);
        this.readState().then(() => this.canvas.load(this.remembered()));
        new MutationObserver(() => this.readState()).observe(/** @type {HTMLElement} */ (document.getElementById('canvas-state')), { childList: true });
        new MutationObserver(() => this.said()).observe(/** @type {HTMLElement} */ (document.getElementById('message')), { childList: true });
        this.pulse();
    }

    /** What the server last said about rungs, locks and the pick, and what the page should do about it. */
    async readState() {
        const state = /** @type {HTMLElement | null} */ (document.getElementById('state'));
        if (!state) return;
        const { revision, desk, states, pick, picked, tint, more } = state.dataset;
        this.revisions = { revision: Number(revision), desk: Number(desk) };
        this.picked = Number(picked);
        const wanted = JSON.parse(more ?? '[]');
        this.canvas.setState(await inflated(states ?? ''), await inflated(pick ?? ''));
        this.tint.read(tint ?? '');
        if (wanted.camera) {
            this.canvas.viewpoint.set(wanted.camera);
            this.showCamera();
        }
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
        if (follow && this.ledger.follows && key.startsWith('O') && !key.includes(',')) this.ledger.show(key);
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
        this.dialogs.show(form);
    }

    /** @param {string} id of a command @param {HTMLElement} [from] the button that gave it */
    command(id, from = document.body) {
        const command = this.byId.get(id);
        if (command?.changes && !this.mayChange) return this.say('You may look at this project, not change it.');
        return command?.run(from);
    }

    /** Frames the pick; what is hidden as well, since the server knows where it is. */
    async framePick() {
        if (this.picked === 0) return this.canvas.fitAll();
        const found = await this.server.json('/find/frame');
        this.canvas.frameBox(found?.box ?? null);
    }

    /** @param {number} object */
    async frameObject(object) {
        const found = await this.server.json(`/find/frame?object=${object}`);
        this.canvas.frameBox(found?.box ?? null);
    }

    /** What a side view frames: the pick, or everything that is shown. */
    framed() {
        const { canvas } = this;
        const box = new Box3().union(canvas.placements.bounds((index) => canvas.pick[canvas.placements.object[index]] === 1));
        return box.isEmpty() ? canvas.viewpoint.all : box;
    }

    /** Brings the camera's buttons up to date. */
    showCamera() {
        const { viewpoint } = this.canvas;
        const press = (/** @type {string} */ id, /** @type {boolean} */ on) => document.querySelector(`.tools [data-command=${id}]`)?.setAttribute('aria-pressed', String(on));
        press('parallel', viewpoint.isParallel);
        press('hold', viewpoint.held);
        press('walk', this.walk.on);
        /** @type {[string, number][]} */ ([['viewpoint-back', -1], ['viewpoint-next', 1]]).forEach(([id, way]) => document.querySelector(`.tools [data-command=${id}]`)?.toggleAttribute('disabled', !viewpoint.rests[viewpoint.at + way]));
    }

    /** @param {boolean} parallel */
    setParallel(parallel) {
        this.walk.end();
        this.canvas.viewpoint.project(parallel);
        this.showCamera();
        this.say(parallel ? 'Parallel.' : 'Perspective.');
    }

    /** @param {boolean} held */
    setHold(held) {
        this.canvas.viewpoint.hold(held);
        this.showCamera();
        this.say(held ? 'The camera is held. H lets it go.' : 'The camera is free.');
    }

    /** @param {boolean} on */
    async setWalk(on) {
        if (!on) return this.walk.end();
        const wrong = await this.walk.start();
        this.showCamera();
        this.say(wrong || 'Walking: arrow keys or W A S D, right button to look around, Esc to stop.');
    }

    walkEnded() {
        this.showCamera();
        this.say('Walking has ended.');
    }

    /** @param {{object: number, eye: number[], way: number[], fov: number, tall?: number, name: string}} camera of the model */
    lookThrough(camera) {
        const target = camera.eye.map((value, axis) => value + camera.way[axis] * 5);
        this.canvas.viewpoint.set({ eye: camera.eye, target, fov: camera.fov, ...(camera.tall ? { tall: camera.tall } : {}) });
        this.showCamera();
        this.say(`Seen through ${camera.name}.`);
    }

    /** A click on a slot parks the pick in an empty one and recalls a full one. @param {number} slot @param {number} count */
    useSlot(slot, count) {
        if (count > 0) return this.server.ask('POST', `/parked/${slot}/recall`, { mode: 'replace' });
        if (this.picked === 0) return this.say(`Slot ${slot} is empty, and nothing is picked to park there.`);
        return this.server.ask('POST', `/parked/${slot}`);
    }

    /** @param {number} object 0 for the one that is picked */
    whyPicked(object) {
        const picked = Number(/** @type {HTMLElement | null} */ (document.querySelector('#card [data-command=why]'))?.dataset.object ?? 0);
        if (object || picked) return this.why(object || picked);
        this.say(this.picked === 0 ? 'Nothing is picked; pick one object first.' : 'Several objects are picked; pick one to ask why.');
    }

    /** The sheet of keys, made from the commands themselves. */
    openKeys() {
        const sheet = document.createElement('form');
        sheet.method = 'dialog';
        sheet.className = 'keys';
        sheet.innerHTML = '<h2 id="dialog-title">Keys</h2><div></div><p class="acts"><button class="button" value="close">Close</button></p>';
        /** @type {Map<string, [string, string][]>} */
        const parts = new Map(Object.entries(GESTURES).map(([part, keys]) => [part, [...keys]]));
        for (const { part, name, keys } of this.commands) {
            if (keys === '' || part === 'Parked picks' || /^[0-5]$/.test(keys)) continue;
            parts.set(part, [...(parts.get(part) ?? []), [keys.split(' ').map(shownKey).join(', '), name]]);
        }
        parts.get('Pick')?.push(['5 … 0', 'Full, Plain, Coarse, Ghost, Box, Hidden']);
        parts.set('Parked picks', [['Alt + 1 … 9', 'recall'], ['Alt + ⇧ 1 … 9', 'park the pick']]);
        for (const [part, keys] of parts) {
            const section = document.createElement('section');
            const list = document.createElement('dl');
            for (const [key, name] of keys) list.append(Object.assign(document.createElement('dt'), { textContent: key }), Object.assign(document.createElement('dd'), { textContent: name }));
            section.append(Object.assign(document.createElement('h3'), { textContent: part }), list);
            sheet.querySelector('div')?.append(section);
        }
        this.dialogs.show(sheet);
    }

    /** Typing ahead: the next row whose name starts with what is typed gets the focus. */
    jump() {
        const field = Object.assign(document.createElement('input'), { className: 'jump', placeholder: 'Jump to a name' });
        field.setAttribute('aria-label', 'Jump to a row by the start of its name');
        let over = false;
        const leave = () => {
            // Taking the field away makes it lose the focus, which would take it away again.
            if (over) return;
            over = true;
            field.remove();
        };
        const end = () => {
            leave();
            const row = this.ledger.row(this.ledger.focusKey);
            if (row) this.ledger.focus(row);
        };
        let last = 0;
        const go = async (/** @type {number} */ from) => {
            const words = field.value.toLowerCase();
            const asked = ++last;
            if (words === '') return;
            const { lens, words: rule } = this.ledger;
            const found = await this.server.json(`/ledger/ahead?lens=${lens}&words=${encodeURIComponent(rule)}&starts=${encodeURIComponent(words)}&after=${from}`);
            // What was typed since overtakes the answer.
            if (asked !== last) return;
            if (!found || found.place === null) return void field.setAttribute('aria-invalid', 'true');
            field.removeAttribute('aria-invalid');
            await this.ledger.focusPlace(found.place, true);
        };
        const here = () => {
            const row = this.ledger.row(this.ledger.focusKey);
            return row ? this.ledger.place(row) : -1;
        };
        field.addEventListener('input', () => go(here() - 1));
        field.addEventListener('keydown', (event) => {
            event.stopPropagation();
            if (event.key === 'ArrowDown') go(here());
            else if (['Enter', 'Escape', 'Tab'].includes(event.key)) end();
            else return;
            event.preventDefault();
        });
        field.addEventListener('blur', leave);
        this.element.querySelector('.ledger')?.append(field);
        field.focus();
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
        this.canvas.viewpoint.restChanged = () => this.showCamera();
        document.getElementById('parked')?.addEventListener('contextmenu', (event) => {
            const slot = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-slot]'));
            event.preventDefault();
            if (slot) this.menus.openSlot(slot, event);
        });
        document.getElementById('shelf')?.addEventListener('keydown', (event) => this.stepShelf(event));
        this.listenToCanvas();
        this.listenToDivider();
    }

    /** @param {HTMLElement | null} tab */
    turn(tab) {
        if (!tab) return;
        const turned = this.ledger.turn(tab.dataset.lens ?? 'layers');
        this.markLens();
        return turned;
    }

    markLens() {
        for (const tab of /** @type {NodeListOf<HTMLElement>} */ (this.element.querySelectorAll('[data-lens][role=tab]'))) {
            const open = tab.dataset.lens === this.ledger.lens;
            tab.setAttribute('aria-selected', String(open));
            tab.setAttribute('tabindex', open ? '0' : '-1');
        }
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
        const key = keyOf(event);
        // The command box opens from everywhere but another dialog.
        if (on.closest('dialog, [popover]') || (on.closest('input, select, textarea') && key !== 'Ctrl+k')) return;
        if (event.defaultPrevented) return;
        const command = this.byKey.get(key);
        if (!command) return;
        // The browser's own keys go on where a command has nothing to act on.
        if (/^([0-5]|l)$/.test(key) && this.picked === 0) return;
        this.command(command.id);
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
        element.addEventListener('shelf:menu', (event) => {
            const { number, x, y } = /** @type {CustomEvent} */ (event).detail;
            this.menus.openCanvas(number, x, y);
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
