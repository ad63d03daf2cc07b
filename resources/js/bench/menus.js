import { rowItems } from './rowmenu.js';

/** Menus of rows and views: the same commands that keys and buttons give. */
export class Menus {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        this.element = /** @type {HTMLElement} */ (document.getElementById('row-menu'));
        /** Whether what is done to rows is done to what is nested in them as well. */
        this.nested = false;
        this.element.addEventListener('keydown', (event) => this.step(event));
        this.element.addEventListener('toggle', (event) => {
            if (/** @type {ToggleEvent} */ (event).newState === 'closed') this.back?.focus?.();
        });
    }

    /** @param {HTMLElement} button @param {MouseEvent} event @param {any[]} items */
    openFor(button, event, items) {
        this.back = button;
        this.show(button, event, items);
    }

    /** @param {HTMLElement} row @param {HTMLElement | null} button @param {MouseEvent} [event] */
    openRow(row, button, event) {
        this.back = row;
        this.nested = false;
        this.show(button, event, rowItems(this.bench, row));
    }

    /** What the menu of a row does next is done to what is nested in the rows as well, or no longer. @param {HTMLElement} row */
    withNested(row) {
        this.nested = !this.nested;
        const there = this.bench.ledger.row(row.dataset.key ?? '') ?? row;
        this.show(there.querySelector('.more-button'), undefined, rowItems(this.bench, there));
    }

    /**
     * The menu of what is under the pointer in the canvas.
     * @param {number} number object, 0 for none
     * @param {number} x
     * @param {number} y
     */
    openCanvas(number, x, y) {
        const { bench } = this;
        const event = /** @type {MouseEvent} */ ({ clientX: x, clientY: y });
        const key = `O${number}`;
        const change = bench.mayChange;
        this.back = bench.canvas.surface;
        this.show(null, event, [
            ...(number > 0
                ? [
                      ['Pick', '', () => bench.pick({ keys: key, mode: 'replace' })],
                      ['Add to the pick', '', () => bench.pick({ keys: key, mode: 'add' })],
                      ['Show in the ledger', '', () => bench.ledger.show(key, true)],
                      ['Frame it', '', () => bench.looking.frameObject(number)],
                      ['Why', '', () => bench.why(number)],
                      ['Hide it', '', () => bench.setRung([key], 0)],
                      ['Make it a ghost', '', () => bench.setRung([key], 2)],
                      ['Isolate it', '', () => bench.server.ask('POST', '/isolate', { keys: key })],
                  ]
                : []),
            null,
            ...(bench.picked > 0
                ? [
                      ['Reach from the pick…', 'E', () => bench.command('reach')],
                      ['Isolate the pick', 'I', () => bench.command('isolate')],
                      ['Hide the pick', '0', () => bench.command('rung-0')],
                      change ? ['File the pick under…', 'U', () => bench.command('file-under')] : null,
                      change ? ['Tag the pick…', 'G', () => bench.command('tag-pick')] : null,
                      change ? ['Keep the pick as a set…', 'S', () => bench.command('keep-set')] : null,
                      change ? ['Rename the pick…', '⇧R', () => bench.command('rename-pick')] : null,
                      change ? ['Group the pick', '⌥G', () => bench.command('group')] : null,
                      change ? ['Copy the pick…', '⌥K', () => bench.command('copy')] : null,
                      change ? ['Delete the pick', '', () => bench.command('delete-pick')] : null,
                      ['Export the pick…', '', () => bench.command('export')],
                      ['Clear the pick', 'Esc', () => bench.command('clear-pick')],
                  ]
                : []),
            null,
            [
                'What is here?',
                'D',
                () => {
                    const { left, top } = bench.canvas.surface.getBoundingClientRect();
                    bench.regions.askAt(x - left, y - top);
                },
            ],
            ['Fit all', 'A', () => bench.command('fit-all')],
            ['Fit the pick', 'F', () => bench.command('fit-pick')],
        ]);
    }

    /** @param {HTMLElement} slot @param {MouseEvent} event */
    openSlot(slot, event) {
        const { bench } = this;
        const number = Number(slot.dataset.slot);
        const full = Number(slot.dataset.count) > 0;
        const recall = (/** @type {string} */ mode) => bench.server.ask('POST', `/parked/${number}/recall`, { mode });
        this.back = slot;
        this.show(slot, event, [
            ...(full
                ? [
                      ['Recall', '', () => recall('replace')],
                      ['Add to the pick', '', () => recall('add')],
                      ['Take from the pick', '', () => recall('remove')],
                  ]
                : []),
            null,
            bench.picked > 0
                ? [full ? 'Park the pick here instead' : 'Park the pick here', '', () => bench.server.ask('POST', `/parked/${number}`)]
                : null,
            full ? ['Empty the slot', '', () => bench.server.ask('POST', `/parked/${number}`, { clear: 1 })] : null,
            ...(bench.picked === 0 && !full ? [['Pick objects to park them here', '', () => undefined]] : []),
        ]);
    }

    /** @param {HTMLElement} pin @param {MouseEvent} event */
    openPin(pin, event) {
        const { bench } = this;
        const { pin: what = '', rule = '' } = pin.dataset;
        this.back = pin;
        this.show(pin, event, [
            ['Pick its objects', '', () => bench.pickPin(pin)],
            ['Add to the pick', '', () => bench.pickPin(pin, 'add')],
            ['Take from the pick', '', () => bench.pickPin(pin, 'remove')],
            ...(rule === ''
                ? [
                      ['Isolate', '', () => bench.server.ask('POST', '/isolate', { keys: what })],
                      ['Show in the ledger', '', () => bench.showRow(what)],
                  ]
                : [['Into the line', '', () => bench.finder.search(rule)]]),
            null,
            ['Take the pin off', '', () => bench.server.ask('POST', '/pins', { what, on: 0 })],
        ]);
    }

    /** The files that the project is made of. @param {HTMLElement} from */
    openSources(from) {
        const place = /** @type {HTMLElement} */ (document.getElementById('sources'));
        /** @type {{name: string, report: string}[]} */
        const sources = JSON.parse(place.dataset.sources ?? '[]');
        this.back = from;
        this.show(from === document.body ? place : from, undefined, [
            ...sources.map(({ name, report }) => [name, '', () => location.assign(report)]),
            null,
            this.bench.mayChange ? ['Add a file…', '', () => this.bench.command('add-file')] : null,
        ]);
    }

    /** @param {HTMLElement} from */
    openSides(from) {
        this.back = from;
        this.show(from, undefined, [
            ['Plan', '', () => this.bench.command('side-plan')],
            null,
            ...['front', 'back', 'left', 'right'].map((side) => [`From the ${side}`, '', () => this.bench.command(`side-${side}`)]),
            null,
            ['Perspective', 'K', () => this.bench.looking.setParallel(false)],
        ]);
    }

    /** @param {HTMLElement} from */
    async openCameras(from) {
        /** @type {any[]} */
        const cameras = (await this.bench.server.json('/cameras')) ?? [];
        this.back = from;
        this.show(
            from,
            undefined,
            cameras.length > 0
                ? [
                      ...cameras.map((camera) => [camera.name, '', () => this.bench.looking.lookThrough(camera)]),
                      null,
                      ['All of them as views', '', () => this.bench.command('cameras-keep')],
                  ]
                : [['This model brought no cameras', '', () => undefined]],
        );
    }

    /** @param {HTMLElement} from */
    openLenses(from) {
        this.back = from;
        this.show(
            from,
            undefined,
            /** @type {HTMLElement[]} */ ([...document.querySelectorAll('.lenses [role=tab]')])
                .filter((tab) => tab.offsetParent === null)
                .map((tab) => [
                    tab.textContent?.trim() ?? '',
                    tab.dataset.lens === this.bench.ledger.lens ? '✓' : '',
                    () => this.bench.command(`lens-${tab.dataset.lens}`),
                ]),
        );
    }

    /** @param {HTMLElement} from */
    openTints(from) {
        const { bench } = this;
        this.back = from;
        this.show(from, undefined, [
            .../** @type {[string, string][]} */ ([
                ['own', 'Own materials'],
                ['layer', 'Layer'],
                ['tag', 'Tag'],
                ['tags', 'How many tags'],
                ['without-tags', 'What has no tag'],
                ['set', 'Set'],
                ['kind', 'Kind'],
                ['material', 'Material'],
                ['source', 'Source'],
                ['weight', 'Weight'],
                ['lock', 'Lock'],
                ['output', 'Desk and output'],
            ]).map(([by, label]) => [label, '', () => bench.command(`tint-${by}`)]),
            null,
            ['Shuffled colours', '', () => bench.command('tint-shuffle')],
            bench.picked > 0 ? ['Shuffled colours, only the pick', '', () => bench.command('tint-shuffle-pick')] : null,
        ]);
    }

    /** One click for only a kind, one for all but it. @param {HTMLElement} from */
    async openKinds(from) {
        /** @type {{label: string, objects: number, condition: string}[]} */
        const kinds = (await this.bench.server.json('/find/complete?words=kind:&at=5')) ?? [];
        /** @type {{label: string, objects: number, condition: string}[]} */
        const classes = (await this.bench.server.json('/find/complete?words=class%3D&at=6')) ?? [];
        this.back = from;
        const pair = (/** @type {{label: string, objects: number, condition: string}} */ { label, objects, condition }) => ({
            label,
            objects,
            only: () => this.bench.finder.narrow(condition, 'only'),
            without: () => this.bench.finder.narrow(condition, 'without'),
        });
        this.showPairs(from, [
            ['Kinds', kinds.map(pair)],
            ['Classes', classes.map(pair)],
        ]);
    }

    /**
     * @param {HTMLElement} from
     * @param {[string, {label: string, objects: number, only: () => void, without: () => void}[]][]} groups
     */
    showPairs(from, groups) {
        this.element.replaceChildren();
        for (const [title, pairs] of groups) {
            if (pairs.length === 0) continue;
            this.element.append(Object.assign(document.createElement('p'), { className: 'menu-title', textContent: title }));
            for (const { label, objects, only, without } of pairs) {
                const line = Object.assign(document.createElement('div'), { className: 'pair' });
                line.setAttribute('role', 'group');
                const make = (/** @type {string} */ text, /** @type {string} */ title, /** @type {() => void} */ act) => {
                    const button = Object.assign(document.createElement('button'), { className: 'item', type: 'button', title });
                    button.setAttribute('role', 'menuitem');
                    button.append(text);
                    button.addEventListener('click', () => {
                        this.element.hidePopover();
                        act();
                    });
                    return button;
                };
                const first = make(label, `Only ${label}`, only);
                first.append(Object.assign(document.createElement('kbd'), { textContent: objects.toLocaleString('en') }));
                const second = make('all but', `All but ${label}`, without);
                second.setAttribute('aria-label', `All but ${label}`);
                line.append(first, second);
                this.element.append(line);
            }
        }
        this.place(from);
    }

    /** @param {HTMLElement} row of a layer or a tag @param {(values: Record<string, any>) => any} send */
    colour(row, send) {
        this.chooseColour(row, row.dataset.colour ?? '', `Colour of ${row.dataset.name}`, (colour) => send({ colour }));
    }

    /**
     * @param {HTMLElement} by what it is beside
     * @param {string} now
     * @param {string} label
     * @param {(colour: string) => any} chosen
     */
    chooseColour(by, now, label, chosen) {
        // One that was left without choosing says nothing.
        document.getElementById('row-colour')?.remove();
        const input = Object.assign(document.createElement('input'), {
            id: 'row-colour',
            type: 'color',
            tabIndex: -1,
            value: now || '#888888',
            className: 'unseen',
        });
        input.setAttribute('aria-label', label);
        // Beside the row, not in it: rows are replaced while somebody chooses.
        const { left, bottom } = (by.querySelector('.swatch') ?? by).getBoundingClientRect();
        Object.assign(input.style, { left: `${left}px`, top: `${bottom}px` });
        document.body.append(input);
        input.addEventListener('change', () => {
            chosen(input.value);
            input.remove();
        });
        input.click();
    }

    /**
     * @param {HTMLElement | null} button
     * @param {MouseEvent | undefined} event
     * @param {any[]} items label, key, act; null for a line, or several side by side under the name of a group
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
            if (item.group) {
                const group = Object.assign(document.createElement('div'), { className: 'item-group' });
                group.setAttribute('role', 'group');
                group.setAttribute('aria-label', item.group);
                group.append(...item.items.map((/** @type {any[]} */ each) => this.entry(each)));
                this.element.append(group);
            } else this.element.append(this.entry(item));
        }
        this.place(button, event);
    }

    /** @param {any[]} item label, key, act */
    entry([label, key, act]) {
        const entry = Object.assign(document.createElement('button'), { className: 'item', type: 'button' });
        entry.setAttribute('role', 'menuitem');
        entry.append(label);
        if (key) entry.append(Object.assign(document.createElement('kbd'), { textContent: key }));
        entry.addEventListener('click', () => {
            this.element.hidePopover();
            act();
        });
        return entry;
    }

    /** @param {HTMLElement | null} button @param {MouseEvent} [event] */
    place(button, event) {
        this.element.showPopover();
        const at = button?.getBoundingClientRect();
        const { width, height } = this.element.getBoundingClientRect();
        const x = event
            ? event.clientX
            : at && at.left + width < innerWidth - 60 && at.left < innerWidth / 2
              ? at.left
              : (at?.right ?? 0) - width;
        const y = event ? event.clientY : (at?.bottom ?? 0) + 2;
        const [top, left] = [Math.min(y, innerHeight - height - 6), Math.min(x, innerWidth - width - 6)];
        this.element.style.inset = `${Math.max(4, top)}px auto auto ${Math.max(4, left)}px`;
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
