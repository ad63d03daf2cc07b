import { AddFile } from './addfile.js';
import { Again } from './again.js';
import { Canvas } from '../canvas/canvas.js';
import { settingsOf } from '../canvas/settings.js';
import { PickMarks } from '../canvas/pickmarks.js';
import { listenToColumns, listenToColumnsDialog } from './columns.js';
import { CommandBox } from './commandbox.js';
import { commandsOf } from './commands.js';
import { CommentMark } from './commentmark.js';
import { Details } from './details.js';
import { Dialogs } from './dialogs.js';
import { listenToDivider } from './divider.js';
import { Edges } from './edges.js';
import { listenToExports } from './exporting.js';
import { explain, listenToFailures, listenToLoss, sayUnable } from './failures.js';
import { Finder } from './finder.js';
import { listenToLedger } from './gestures.js';
import { Hints } from './hints.js';
import { inflated } from './inflated.js';
import { keyOf } from './keys.js';
import { Ledger } from './ledger.js';
import { OwnWindow } from './ownwindow.js';
import { Looking } from './looking.js';
import { Menus } from './menus.js';
import { Meter } from './meter.js';
import { Narrowing } from './narrowing.js';
import { listenToCanvas } from './pointing.js';
import { Portrait } from './portrait.js';
import { Regions } from './regions.js';
import { RungMarks } from './rungmarks.js';
import { keepRoom } from './room.js';
import { askForRow } from './newrow.js';
import { renameInPlace } from './rename.js';
import { SectionPanel } from './section.js';
import { Server } from './server.js';
import { listenToSharing } from './sharing.js';
import { Shelf } from './shelf.js';
import { Taking } from './taking.js';
import { Tint } from './tint.js';
import { TypedAhead } from './typedahead.js';
import { listenToCompare } from './compare.js';
import { Grid } from './grid.js';
import { listenToWide, listenToWideDialog, widen } from './wide.js';
import { Portraying } from './portraying.js';
import { listenToNesting, nameThere } from './nesting.js';
import { Screens } from './screens.js';
import { WeightPanel } from './weight.js';

/** @param {HTMLElement} element */
export function startWorkbench(element) {
    // For the browser tests, which must know when the picture is finished.
    Object.assign(window, { shelfBench: new Workbench(element) });
}

/** Ties the ledger, the canvas and the shelf together. */
export class Workbench {
    /** @param {HTMLElement} element */
    constructor(element) {
        this.element = element;
        const base = new URL(element.dataset.base ?? '').pathname;
        this.server = new Server(base, () => ({ ...this.ledger.window, shelf: this.shelf?.stamp ?? '' }));
        this.again = new Again(this);
        this.ledger = new Ledger(/** @type {HTMLElement} */ (element.querySelector('.ledger')), this.server);
        this.own = new OwnWindow(this.server, this.ledger.rowsNow.rule ?? '');
        this.canvas = new Canvas(/** @type {HTMLElement} */ (document.getElementById('canvas')), settingsOf(element, base));
        this.dialogs = new Dialogs(this);
        listenToExports(this, this.dialogs.element);
        this.menus = new Menus(this);
        this.typedAhead = new TypedAhead();
        this.pickMarks = new PickMarks(this.canvas, /** @type {SVGElement} */ (/** @type {any} */ (document.getElementById('pick-marks'))));
        this.shelf = new Shelf(this);
        this.picked = 0;
        this.mayChange = element.dataset.mayChange === '1';
        /** States that were heard of and are not applied yet: one after the other, however long each takes to unpack. */
        this.unread = 0;
        this.reading = Promise.resolve();
        document.body.classList.toggle('may-only-look', !this.mayChange);
        this.finder = new Finder(this);
        this.narrowing = new Narrowing(this.ledger);
        this.regions = new Regions(this);
        this.tint = new Tint(this);
        this.edges = new Edges(this);
        this.meter = new Meter(this);
        this.weight = new WeightPanel(this);
        this.screens = new Screens(this);
        this.portraying = new Portraying(this);
        this.taking = new Taking(this);
        this.portrait = new Portrait(this);
        this.details = new Details(this);
        this.commandBox = new CommandBox(this);
        this.looking = new Looking(this);
        this.section = new SectionPanel(this);
        if (element.dataset.wantsPicture === '1') this.sendPicture();
        this.commands = commandsOf(this);
        this.byId = new Map(this.commands.map((command) => [command.id, command]));
        this.byKey = new Map(
            this.commands.flatMap((command) => (command.keys === '' ? [] : command.keys.split(' ').map((key) => [key, command]))),
        );
        this.listen();
        listenToFailures();
        listenToLoss(this.canvas.surface);
        this.canvas.element.addEventListener('shelf:unable', () => sayUnable(element));
        this.canvas.element.addEventListener('shelf:failed', (event) => explain(/** @type {CustomEvent} */ (event).detail.response));
        // What does not fit beside the tools stands in a menu.
        new ResizeObserver(() => this.markLens()).observe(/** @type {Element} */ (element.querySelector('.lenses')));
        listenToLedger(this);
        listenToColumns(this);
        listenToColumnsDialog(this, this.dialogs.element);
        listenToWide(this);
        this.marks = new RungMarks(this);
        this.grid = new Grid(this);
        listenToCompare(this, this.dialogs.element);
        listenToSharing(this, this.dialogs.element);
        listenToNesting(this, this.dialogs.element);
        this.commentMark = new CommentMark(this);
        listenToWideDialog(this, this.dialogs.element);
        widen(this);
        this.addFile = new AddFile(this);
        new Hints(this);
        this.isAlone = element.classList.contains('ledger-alone');
        this.readState().then(() => (this.isAlone ? undefined : this.canvas.load(this.looking.remembered())));
        new MutationObserver(() => this.readState()).observe(/** @type {HTMLElement} */ (document.getElementById('canvas-state')), {
            childList: true,
        });
        new MutationObserver(() => this.said()).observe(/** @type {HTMLElement} */ (document.getElementById('message')), {
            childList: true,
        });
        if (this.ledger.rowsNow.rule) this.finder.search(this.ledger.rowsNow.rule);
        this.pulse();
        // The report of a take-in leads here.
        if (this.mayChange && new URLSearchParams(location.search).has('review')) this.openDialog('/views/review');
    }

    /** What the server last said about rungs, locks and the pick, and what the page should do about it. */
    readState() {
        const state = document.getElementById('state');
        if (!state) return this.reading;
        const said = { ...state.dataset };
        this.revisions = { revision: Number(said.revision), desk: Number(said.desk) };
        this.ledger.hears(this.revisions);
        this.picked = Number(said.picked);
        this.unread++;
        return (this.reading = this.reading
            .catch(() => undefined)
            .then(() => this.apply(said))
            .finally(() => this.unread--));
    }

    /** @param {DOMStringMap} said */
    async apply({ revision, packs, meshed, states, pick, tint, edges, edgeMode, section, view, differs, more }) {
        const wanted = JSON.parse(more ?? '[]');
        this.canvas.setState(await inflated(states ?? ''), await inflated(pick ?? ''));
        this.canvas.hearPacks(Number(packs));
        this.canvas.meshed.hear(Number(meshed));
        this.tint.read(tint ?? '');
        this.edges.read(edges ?? '');
        this.edges.turn(edgeMode ?? 'own');
        this.section.read(section ?? '', `${revision} ${states}`);
        this.taking.hears(this.revisions.revision);
        this.details.hears(this.revisions);
        this.shelf.hears(view ?? '0', differs ?? '');
        this.weight.hears(this.revisions.revision);
        this.screens.hears(`${this.revisions.revision} ${pick}`);
        this.portraying.hears(wanted.portray);
        if (wanted.camera) this.looking.goTo(wanted.camera, wanted.hold === true);
        if (wanted.focus) {
            if (!wanted.focus.startsWith('O')) this.ledger.selected = new Set(wanted.selected ?? [wanted.focus]);
            this.ledger.show(wanted.focus, true);
        }
        if (wanted.nesting) nameThere(this, wanted.nesting);
        if (wanted.shelf)
            document.querySelector(`#shelf [data-key="${wanted.shelf}"]`)?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
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

    /** What pictures show of rows. @param {string[]} keys @param {string} output a rung, "none", "desk" or "never" */
    setOutput(keys, output) {
        return this.may() && this.server.ask('POST', '/output', { keys: keys.join(','), output });
    }

    /** @param {string[]} keys @param {number} lock */
    setLock(keys, lock) {
        return this.may() && this.server.ask('POST', '/locks', { keys: keys.join(','), lock });
    }

    /** @param {string[]} keys of layers, tags, folders or sets */
    deleteRows(keys) {
        const [first = ''] = keys;
        if (!this.may() || !/^[LTFE]/.test(first)) return undefined;
        if (keys.includes('L1')) return this.say('Unsorted is always there; it cannot be deleted. Choose the others without it.');
        const layers = keys.filter((key) => key.startsWith('L'));
        if (layers.length > 1) return this.openDialog(`/layers/delete?keys=${layers.join(',')}`);
        if (first.startsWith('L')) return this.openDialog(`/layers/${first.slice(1)}/delete`);
        return this.openDialog(`/rows/delete?keys=${keys.filter((key) => /^[TFE]/.test(key)).join(',')}`);
    }

    /** @param {string[]} keys */
    moveRows(keys) {
        const those = keys.filter((key) => /^[LTFE]/.test(key) && key !== 'L1');
        if (those.length === 0) return this.say('Layers, tags, sets and folders can move; choose some first.');
        return this.openDialog(`/rows/move?keys=${those.join(',')}`);
    }

    /** The number of the layer that is selected, 0 for none. */
    chosenLayer() {
        const [chosen = ''] = this.ledger.selected;
        return chosen.startsWith('L') ? Number(chosen.slice(1)) : 0;
    }

    /** What is new in the lens that is open. */
    newHere() {
        const { lens } = this.ledger;
        if (lens === 'sets') return this.keepSet();
        return askForRow(this, lens === 'tags' ? 'tag' : 'layer');
    }

    /** Asks what a new set is to hold. @param {string} [of] "pick", "hits", "rule" or "nothing" */
    keepSet(of = '') {
        const [chosen = ''] = this.ledger.selected;
        const folder = chosen.startsWith('F') ? chosen.slice(1) : '';
        const { lens, words } = this.ledger;
        return this.openDialog(`/sets/new?lens=${lens}&words=${encodeURIComponent(words)}&of=${of}&folder=${folder}`);
    }

    /** Shows the next of what is shown one at a time. @param {number} way @param {string} [row] the focused one otherwise */
    turnNext(way, row = this.ledger.focusKey) {
        if (!/^[LTF]/.test(row)) return this.say('Go to a layer, a folder or one of its members first.');
        return this.server.ask('POST', '/rungs/turn', { row, way });
    }

    /** What the canvas shows: "desk" or "output". */
    get side() {
        return document.querySelector('#isolated .showing-output') ? 'output' : 'desk';
    }

    /** @param {number} object */
    why(object) {
        return this.openDialog(`/why/${object}?side=${this.side}`);
    }

    /** @param {string} path */
    async openDialog(path) {
        const html = await this.typedAhead.until(this.server.html(path));
        if (html && !this.typedAhead.isLeft) {
            this.dialogs.open(html);
            this.typedAhead.write(this.dialogs.element);
        }
        this.typedAhead.forget();
    }

    /** @param {string} sentence @param {HTMLElement} [more] what stands behind it */
    say(sentence, more) {
        const line = document.createElement('p');
        line.append(Object.assign(document.createElement('span'), { textContent: sentence }));
        if (more) line.append(more);
        document.getElementById('message')?.replaceChildren(line);
    }

    /** @param {HTMLElement} row @param {HTMLElement | null} button @param {MouseEvent} [event] */
    openRowMenu(row, button, event) {
        this.menus.openRow(row, button, event);
    }

    /** Renames in place; Enter keeps, Escape leaves it. @param {HTMLElement} row */
    rename(row) {
        const key = row.dataset.key ?? '';
        if (!this.may()) return;
        if (key === 'L1') return this.say('Unsorted keeps its name.');
        if (row.dataset.locked === '1') return this.say(`${row.dataset.name} is locked; open it first.`);
        row.draggable = false;
        renameInPlace(/** @type {HTMLElement} */ (row.querySelector('.name > .label')), row.dataset.name ?? '', {
            className: 'rename',
            length: 500,
            after: () => {
                row.draggable = true;
                this.ledger.focus(row);
            },
            keep: (name) => this.server.ask('PATCH', key.startsWith('O') ? `/objects/${key.slice(1)}` : `/rows/${key}`, { name }),
            leave: this.freshener(),
        });
    }

    /** @returns {() => void} asks for what is shown anew, if something was heard since */
    freshener() {
        const before = this.revisions;
        return () => {
            if (this.revisions !== before) this.server.ask('GET', '/pulse', { revision: 0, desk: 0 });
        };
    }

    /**
     * @param {string} id of a command
     * @param {HTMLElement} [from] the button that gave it; its own button when a key or the command box did
     */
    command(id, from = this.element.querySelector(`[data-command="${id}"]`) ?? document.body) {
        const command = this.byId.get(id);
        if (command?.changes && !this.may()) return undefined;
        return command?.run(from);
    }

    /** What is drawn first, once it is whole, stands for the project until it has a view. */
    sendPicture() {
        const drawn = (/** @type {Event} */ event) => {
            const { done, missing, loading } = /** @type {CustomEvent} */ (event).detail;
            if (!done || missing > 0 || loading) return;
            this.canvas.element.removeEventListener('shelf:drawn', drawn);
            this.server.ask('POST', '/picture', { picture: this.canvas.picture() });
        };
        this.canvas.element.addEventListener('shelf:drawn', drawn);
    }

    /** Shows a layer, a tag, a folder of tags or a set in its lens. @param {string} key */
    async showRow(key) {
        const lens = { L: 'layers', E: 'sets' }[key[0]] ?? 'tags';
        if (this.ledger.lens !== lens) await this.turn(document.getElementById(`lens-${lens}`));
        this.ledger.selected = new Set([key]);
        this.ledger.show(key, true);
    }

    /** A click on something pinned picks its objects. @param {HTMLElement} pin @param {string} [mode] */
    pickPin(pin, mode = 'replace') {
        const { pin: what = '', rule = '' } = pin.dataset;
        return this.pick(rule === '' ? { keys: what, mode } : { found: 1, words: rule, mode });
    }

    /** A click on a slot parks the pick in an empty one and recalls a full one. @param {number} slot @param {number} count */
    useSlot(slot, count) {
        if (count > 0) return this.server.ask('POST', `/parked/${slot}/recall`, { mode: 'replace' });
        if (this.picked === 0) return this.say(`Slot ${slot} is empty, and nothing is picked to park there.`);
        return this.server.ask('POST', `/parked/${slot}`);
    }

    /** Why rows show as they do: one object, or what holds the objects of several rows. @param {string[]} keys */
    whyRows(keys) {
        const [key = ''] = keys;
        if (keys.length === 1 && key.startsWith('O')) return this.why(Number(key.slice(1)));
        return this.openDialog(`/why?side=${this.side}&keys=${keys.join(',')}`);
    }

    /** What still holds what was to be raised. @param {Record<string, string>} asked rows, or "pick" or "found" */
    whyHeld(asked) {
        return this.openDialog(`/why?${new URLSearchParams(asked)}`);
    }

    /** @param {number} object 0 for what is picked */
    whyPicked(object) {
        const picked = Number(
            /** @type {HTMLElement | null} */ (document.querySelector('#card [data-command=why][data-object]'))?.dataset.object ?? 0,
        );
        if (object || picked) return this.why(object || picked);
        if (this.picked === 0) return this.say('Nothing is picked; pick something first.');
        return this.openDialog(`/why?side=${this.side}`);
    }

    /** The whole pick goes one step on: open, guarded, locked, open. The card knows which step that is. */
    lockPick() {
        const button = /** @type {HTMLElement | null} */ (document.querySelector('#card [data-command=lock-pick]'));
        if (button) this.server.ask('POST', '/locks', { lock: button.dataset.lock });
    }

    /** Whether the person may change the project; says so if not. */
    may() {
        if (!this.mayChange) this.say('You may look at this project, not change it.');
        return this.mayChange;
    }

    listen() {
        document.addEventListener('click', (event) => {
            const button = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-command]'));
            if (button && !button.hasAttribute('disabled')) this.command(button.dataset.command ?? '', button);
        });
        document.addEventListener('keydown', (event) => this.onKey(event));
        this.element
            .querySelector('.lenses')
            ?.addEventListener('click', (event) =>
                this.turn(/** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-lens]'))),
            );
        this.element.querySelector('.lenses')?.addEventListener('keydown', (event) => this.stepLens(/** @type {KeyboardEvent} */ (event)));
        this.canvas.viewpoint.restChanged = () => this.looking.show();
        document.getElementById('parked')?.addEventListener('contextmenu', (event) => {
            const slot = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-slot]'));
            const pin = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-pin]'));
            event.preventDefault();
            if (pin) this.menus.openPin(pin, event);
            if (slot) this.menus.openSlot(slot, event);
        });
        listenToCanvas(this);
        listenToDivider(/** @type {HTMLElement} */ (this.element.querySelector('.divider')));
        keepRoom(this.canvas.element);
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
        const more = /** @type {HTMLElement} */ (document.getElementById('more-lenses'));
        const isAmongMore = document.getElementById(`lens-${this.ledger.lens}`)?.offsetParent === null;
        more.classList.toggle('is-open', isAmongMore);
        more.textContent = isAmongMore ? (document.getElementById(`lens-${this.ledger.lens}`)?.textContent?.trim() ?? 'More') : 'More';
    }

    /** @param {KeyboardEvent} event */
    stepLens(event) {
        const tab = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-lens]'));
        if (!tab || !['ArrowLeft', 'ArrowRight'].includes(event.key)) return;
        const tabs = /** @type {HTMLElement[]} */ ([...this.element.querySelectorAll('[role=tab]')]).filter((each) => each.offsetParent);
        const next = tabs[(tabs.indexOf(tab) + (event.key === 'ArrowRight' ? 1 : tabs.length - 1)) % tabs.length];
        event.preventDefault();
        next.focus();
        this.turn(next);
    }

    /** @param {KeyboardEvent} event */
    onKey(event) {
        const on = /** @type {Element} */ (event.target);
        const key = keyOf(event);
        // The command box opens from everywhere but another dialog. A dialog that has just been closed may have the keyboard for a moment.
        const isShut = on.closest('dialog:not([open])') !== null;
        if (!isShut && (on.closest('dialog, [popover]') || (on.closest('input, select, textarea') && key !== 'Ctrl+k'))) return;
        if (event.defaultPrevented) return;
        const command = this.byKey.get(key);
        if (!command) return;
        // The browser's own keys go on where a command has nothing to act on.
        if (/^([0-5]|l)$/.test(key) && this.picked === 0) return;
        this.command(command.id);
        event.preventDefault();
    }
}
