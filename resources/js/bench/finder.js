import { Marker } from './marker.js';

/**
 * The line above the ledger: words or a rule. Offers how to go on, shows what is wrong where it is wrong, and steps through what was
 * found.
 */
export class Finder {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        this.input = bench.ledger.input;
        this.list = /** @type {HTMLElement} */ (document.getElementById('offers'));
        this.placeElement = /** @type {HTMLElement} */ (document.getElementById('hit-place'));
        this.says = /** @type {HTMLElement} */ (document.getElementById('rule-says'));
        /** @type {{label: string, insert: string, at: number, length: number, meaning: string, objects: number | null}[]} */
        this.offers = [];
        this.chosen = -1;
        this.object = 0;
        /** Which of the hits it is, from 1; 0 for none. */
        this.place = 0;
        /** What emptying the line brings. @type {Promise<any> | undefined} */
        this.emptied = undefined;
        /**
         * Where the last hit was framed from, and the direction that the person had chosen before.
         * @type {import('../canvas/camera.js').Sight | undefined}
         */
        this.led = undefined;
        this.ledAt = 0;
        /** @type {number[] | undefined} */
        this.way = undefined;
        /** What was in the line before each step that was clicked. @type {string[]} */
        this.steps = [];
        /** The set whose rule is in the line. @type {{set: number, name: string} | undefined} */
        this.editing = undefined;
        this.marker = new Marker(bench.canvas, /** @type {SVGElement} */ (/** @type {unknown} */ (document.getElementById('marker'))));
        this.input.addEventListener('input', () => this.typed());
        this.input.addEventListener('keydown', (event) => this.key(event));
        this.input.addEventListener('blur', () => setTimeout(() => this.close(), 150));
        this.input.addEventListener('search', () => this.input.value === '' && this.typed());
        this.list.addEventListener('pointerdown', (event) => {
            const option = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[role=option]'));
            if (!option) return;
            event.preventDefault();
            this.accept(Number(option.dataset.at));
        });
    }

    typed() {
        if (this.input.value === '') {
            this.steps = [];
            this.editing = undefined;
            this.showSteps();
        }
        clearTimeout(this.waiting);
        this.waiting = window.setTimeout(() => this.search(), 120);
        this.offer();
    }

    /** @param {string} [words] written into the line first */
    async search(words) {
        if (words !== undefined) {
            this.input.value = words;
            clearTimeout(this.waiting);
            // Offers that are on their way were for what stood there before.
            this.close();
        }
        this.leaveHit();
        const status = await this.bench.ledger.search(this.input.value);
        this.input.setAttribute('aria-invalid', String(status === 422));
        // A rule that was put together by clicks may be longer than the line.
        this.input.title = this.input.value;
        this.input.classList.toggle('is-rule', /[:=<>()"]|\b(and|or|not|is|has|inside|holding|beside)\b/i.test(this.input.value));
        if (status === 200) this.bench.own.keepLine(this.bench.ledger.words);
        if (status === 200 && this.says.querySelector('.error')) this.says.replaceChildren();
        // Whoever has stepped on before the rows came reads which hit it is.
        if (status === 200 && this.place === 0)
            this.placeElement.textContent =
                this.bench.ledger.shown.hits === '' ? '' : `${Number(this.bench.ledger.shown.hits).toLocaleString('en')} found`;
    }

    /** The hit that was stepped to is no longer pointed out. */
    leaveHit() {
        this.object = this.place = 0;
        this.bench.canvas.outline(0);
        this.marker.mark(null);
        this.bench.ledger.point('');
    }

    async offer() {
        const { value, selectionStart } = this.input;
        const asked = (this.asked = `${value} ${selectionStart}`);
        if (value.trim() === '') return this.close();
        await new Promise((resolve) => setTimeout(resolve, 90));
        if (asked !== this.asked) return;
        const offers = await this.bench.server.json(
            `/find/complete?words=${encodeURIComponent(value)}&at=${characters(value, selectionStart ?? value.length)}`,
        );
        if (asked !== this.asked || !offers || document.activeElement !== this.input) return;
        const chosen = this.offers[this.chosen]?.label;
        // A plain word is a name most of the time: fields are offered only where one starts like it.
        const plain = /^[^\s:=<>()"]*$/.test(value);
        this.offers = plain
            ? offers.filter((/** @type {any} */ offer) => offer.label.toLowerCase().startsWith(value.toLowerCase()))
            : offers;
        // What is written out already needs no offer.
        if (this.offers.some((offer) => isWritten(value, offer))) this.offers = [];
        // What somebody has chosen meanwhile stays chosen when it is still offered.
        this.chosen = chosen === undefined ? -1 : this.offers.findIndex(({ label }) => label === chosen);
        this.draw();
    }

    draw() {
        this.list.hidden = this.offers.length === 0;
        this.input.setAttribute('aria-expanded', String(!this.list.hidden));
        this.list.replaceChildren(
            ...this.offers.map((offer, at) => {
                const option = Object.assign(document.createElement('div'), { id: `offer-${at}`, className: 'offer' });
                option.setAttribute('role', 'option');
                option.setAttribute('aria-selected', String(at === this.chosen));
                option.dataset.at = String(at);
                option.append(
                    Object.assign(document.createElement('code'), { textContent: offer.label }),
                    Object.assign(document.createElement('span'), { className: 'label', textContent: offer.meaning }),
                );
                if (offer.objects !== null)
                    option.append(Object.assign(document.createElement('small'), { textContent: offer.objects.toLocaleString('en') }));
                return option;
            }),
        );
        if (this.chosen >= 0) this.input.setAttribute('aria-activedescendant', `offer-${this.chosen}`);
        else this.input.removeAttribute('aria-activedescendant');
        document.getElementById(`offer-${this.chosen}`)?.scrollIntoView({ block: 'nearest' });
    }

    close() {
        this.asked = '';
        this.offers = [];
        this.chosen = -1;
        this.draw();
    }

    /** @param {number} at */
    accept(at) {
        const offer = this.offers[at];
        if (!offer) return;
        const letters = [...this.input.value];
        const before = letters.slice(0, offer.at).join('') + offer.insert;
        const rest = letters.slice(offer.at + offer.length).join('');
        this.input.value = before + (offer.insert.endsWith(' ') ? rest.replace(/^ /, '') : rest);
        this.input.setSelectionRange(before.length, before.length);
        this.typed();
    }

    /** @param {KeyboardEvent} event */
    key(event) {
        const open = !this.list.hidden;
        if (event.key === 'ArrowDown' && open) this.choose(1);
        else if (event.key === 'ArrowUp' && open) this.choose(-1);
        else if ((event.key === 'Tab' || event.key === 'Enter') && open && this.chosen >= 0) this.accept(this.chosen);
        else if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) this.bench.command('hits-pick');
        else if (event.key === 'Enter') this.step(event.shiftKey ? -1 : 1);
        else if (event.key === 'Escape' && open) this.close();
        else if (event.key === 'Escape' && this.input.value === '') this.leave();
        else if (event.key === 'Escape') this.emptied = this.search('');
        else if (event.key === 'ArrowDown') this.bench.ledger.focusPlace(0);
        else return;
        event.preventDefault();
        event.stopPropagation();
    }

    /** Gives the keyboard to the rows, once those have come that an emptied line brings. */
    async leave() {
        await this.emptied;
        this.bench.ledger.takeFocus();
    }

    /** @param {number} way */
    choose(way) {
        const count = this.offers.length;
        this.chosen = this.chosen < 0 ? (way > 0 ? 0 : count - 1) : (this.chosen + way + count) % count;
        this.draw();
    }

    /** Frames the next hit, or the one before. @param {number} way 1 or -1 */
    async step(way) {
        clearTimeout(this.waiting);
        if (this.input.value.trim() !== this.bench.ledger.words) await this.search();
        if (this.bench.ledger.words === '') return;
        this.close();
        const { lens, words } = this.bench.ledger;
        const hit = await this.bench.server.json(
            `/find/step?lens=${lens}&words=${encodeURIComponent(words)}&object=${this.object}&way=${way}`,
        );
        if (!hit || words !== this.bench.ledger.words) return;
        if (hit.total === 0) return this.bench.say('Nothing was found to step through.');
        this.object = hit.object;
        this.place = hit.place;
        const place = `${hit.place.toLocaleString('en')} of ${hit.total.toLocaleString('en')}`;
        this.placeElement.textContent = hit.hidden ? `${place} · hidden` : place;
        this.approach(hit.object, hit.box, () => hit.object === this.object);
        this.bench.canvas.outline(hit.object);
        this.marker.mark(hit.box);
        this.bench.ledger.point(`O${hit.object}`);
        this.bench.ledger.show(`O${hit.object}`);
    }

    /**
     * Frames an object, from where nothing stands in front of it. Each is looked at from the person's own direction if it can be, not
     * from where the one before was seen.
     * @param {number} object
     * @param {number[] | null} box least and greatest x, y, z in metres
     * @param {() => boolean} isWanted still, when the server has answered
     */
    async approach(object, box, isWanted = () => true) {
        const { canvas, server } = this.bench;
        const { viewpoint } = canvas;
        // A camera that is held stays where it is: the hit is only pointed out.
        if (!box || viewpoint.held) return;
        const here = viewpoint.get();
        const { led } = this;
        // Still there, or still on the way there.
        const isLed =
            led !== undefined &&
            (performance.now() - this.ledAt < 600 || Math.hypot(...here.eye.map((value, axis) => value - led.eye[axis])) < 1e-3);
        if (!isLed) this.way = here.eye.map((value, axis) => value - here.target[axis]);
        canvas.framing.lookAround();
        const sight = viewpoint.fitted(canvas.framing.roomy(box, 1.8), this.way);
        const found = viewpoint.isParallel
            ? null
            : await server.json(`/find/sight?object=${object}&${sight.eye.map((value) => `eye[]=${value}`).join('&')}`);
        if (!isWanted()) return;
        this.led = found?.eye ? { ...sight, eye: found.eye } : sight;
        this.ledAt = performance.now();
        viewpoint.set(this.led);
    }

    /**
     * The rule with one condition more, one step that can be taken back.
     * @param {string} condition
     * @param {'only' | 'without' | 'and' | 'or'} way
     */
    async narrow(condition, way) {
        const { words } = this.bench.ledger;
        const answer = await this.bench.server.json(
            `/find/narrow?words=${encodeURIComponent(words)}&by=${encodeURIComponent(condition)}&way=${way}`,
        );
        if (!answer) return;
        this.steps.push(words);
        await this.search(answer.words);
        this.showSteps();
        const found = answer.count === 1 ? '1 object' : `${answer.count.toLocaleString('en')} objects`;
        this.bench.say(`${found}: ${answer.words}`);
    }

    /** The rule as it was before the last step. */
    async stepBack() {
        const before = this.steps.pop();
        if (before === undefined) return this.bench.say('There is no step to take back; what is typed is changed in the line.');
        await this.search(before);
        this.showSteps();
    }

    /** The rule of a set comes into the line, to be changed there. @param {number} set @param {string} rule @param {string} name */
    async edit(set, rule, name) {
        this.steps = [];
        this.editing = { set, name };
        await this.search(rule);
        this.showSteps();
        this.input.focus();
    }

    /** Keeps what is in the line as the rule of the set that it came from. */
    async keepRule() {
        if (!this.editing) return this.bench.say('No set is being changed; keep the rule as a new one.');
        const status = await this.bench.server.ask('PATCH', `/rows/E${this.editing.set}`, { rule: this.input.value });
        if (status !== 200) return;
        this.editing = undefined;
        this.showSteps();
    }

    showSteps() {
        const back = /** @type {HTMLElement} */ (document.getElementById('rule-back'));
        const keep = /** @type {HTMLElement} */ (document.getElementById('rule-keep'));
        back.hidden = this.steps.length === 0;
        keep.hidden = !this.editing;
        keep.textContent = this.editing ? `Keep in ${this.editing.name}` : '';
        keep.title = this.editing ? `The rule in the line becomes the rule of the set ${this.editing.name}` : '';
    }
}

/**
 * Whether an offer is in the line already, whatever its case.
 * @param {string} value
 * @param {{insert: string, at: number, length: number}} offer
 */
function isWritten(value, { insert, at, length }) {
    const there = [...value].slice(at, at + length).join('');
    const bare = (/** @type {string} */ text) => text.trim().replace(/^"|"$/g, '').toLowerCase();
    return length > 0 && bare(there) === bare(insert);
}

/** The server counts whole characters, the browser halves of some. @param {string} text @param {number} halves */
function characters(text, halves) {
    return [...text.slice(0, halves)].length;
}
