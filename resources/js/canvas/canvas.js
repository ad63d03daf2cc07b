import { Arriving } from './arriving.js';
import { Viewpoint } from './camera.js';
import { Draft } from './draft.js';
import { Framing } from './framing.js';
import { Meshed } from './meshed.js';
import { Packs } from './packs.js';
import { Painter, UnableToDraw } from './painter.js';
import { Placements } from './placements.js';
import { seenOf } from './pickmarks.js';
import { listenToPointer } from './pointer.js';
import { portraitOf } from './portrait.js';

/**
 * @typedef {object} Settings
 * @property {string} records address of the draw records
 * @property {string} packs
 * @property {string} textures
 * @property {string} versions address of what coarser versions there are
 * @property {string} meshes address of what mesh each object is drawn with
 * @property {{triangles: number, calls: number, megabytes: number}} budget of the graphics card
 * @property {number} smoothing times that a finished picture is drawn again
 * @property {number} resolution pixels that are drawn for each of the page, in each direction
 * @property {Record<string, import('./look.js').Surface>} materials
 * @property {string} csrf
 * @property {boolean} [isWhole] whether all that is ever shown is fetched at the beginning
 */

/** Milliseconds after which the graphics card is made ready whatever has come. */
const OPEN_MS = 2500;

/** Milliseconds for each placement for which a picture is left to be looked at while more comes. */
const PATIENCE_MS = 0.02;

/** Milliseconds that the first picture may take to become whole before it is shown as it is. */
const WHOLE_MS = 400;

/**
 * The canvas of a workbench. It draws what it is told and reports gestures as events on its element:
 * `shelf:pick` {number, mode}, `shelf:menu` {number, x, y}, `shelf:hover` {number}, `shelf:drawn` {drawn, calls,
 * coarser, missing, megabytes, done, loading},
 * `shelf:sight` when it looks from elsewhere, `shelf:failed` {response} when objects could not be fetched, `shelf:unable` when the browser
 * cannot draw.
 */
export class Canvas {
    /**
     * @param {HTMLElement} element
     * @param {Settings} settings
     */
    constructor(element, settings) {
        this.element = element;
        this.settings = settings;
        this.arriving = new Arriving(element, settings, (read) => this.came(read));
        this.surface = /** @type {HTMLCanvasElement} */ (element.querySelector('canvas'));
        this.placements = new Placements();
        this.packs = new Packs(settings.packs, this.placements, () => this.packArrived());
        this.packs.held = true;
        /** How many packs there were when coarser versions were asked for. */
        this.packCount = 0;
        this.meshed = new Meshed(this);
        this.painter = new Painter(this.placements, this.packs, settings.budget, settings.smoothing, settings.resolution);
        this.painter.look.setMaterials(settings.materials);
        this.viewpoint = new Viewpoint(this.surface, () => this.cameraMoved());
        this.framing = new Framing(element, this.surface, this.viewpoint, this.placements);
        /** @type {Draft | null} */
        this.draft = new Draft(this.surface);
        this.opened = false;
        /** When the first picture could be seen. */
        this.pictureAt = Infinity;
        // Also where nothing has come, and where nothing is shown.
        setTimeout(() => this.open(), OPEN_MS);
        /** @type {Uint8Array} */
        this.states = new Uint8Array(1);
        /** @type {Uint8Array} */
        this.pick = new Uint8Array(0);
        this.hovered = 0;
        /** What a click on each object takes, where it is not the object itself. @type {Uint32Array | null} */
        this.taken = null;
        this.outlined = 0;
        /** Whether a click picks what is under it. */
        this.clicks = true;
        this.movingUntil = 0;
        /** When the last picture was finished, and how many milliseconds it took. */
        this.drawnAt = 0;
        /** @type {HTMLCanvasElement | undefined} */
        this.lastPicture = undefined;
        this.drawnIn = 0;
        this.stale = true;
        /** What has come since the picture was begun that is seen. */
        this.arrivals = 0;
        this.screenStale = true;
        this.loading = true;
        /** Whether the painter is busy with a picture that is not for the screen. */
        this.isAside = false;
        /** Answers with objects that somebody waits for. */
        this.fetching = 0;
        /** Whether textures of materials are still to come. */
        this.untextured = true;
        this.listen();
        new ResizeObserver(() => this.resize()).observe(element);
        this.resize();
        this.setTheme();
        requestAnimationFrame(() => this.frame());
    }

    /** Fetches everything that is on show. @param {{eye: number[], target: number[], fov: number} | null} camera */
    async load(camera) {
        if (camera) {
            this.viewpoint.set(camera, true);
            this.framing.framed = true;
        }
        await this.arriving.all(() => {
            this.versionsCame();
            this.arriving.pictures().then((pictures) => {
                this.painter.look.setPictures(pictures);
                this.untextured = false;
                this.stale = true;
            });
            if (!this.framing.framed) this.framing.all(true);
        });
        this.loading = false;
        this.refreshBounds();
        this.cameMore();
        this.meshed.loaded();
    }

    /** Asks for coarser versions when there may be more than are known. @param {number} packs that there ever were */
    hearPacks(packs) {
        const grown = this.packCount > 0 && packs !== this.packCount;
        this.packCount = packs;
        if (grown) this.versionsCame();
    }

    async versionsCame() {
        this.placements.setVersions(await this.arriving.versions());
        this.packs.settle();
        this.packs.held = false;
        this.stale = true;
    }

    /** @param {import('./reader.js').Read} read */
    came(read) {
        this.placements.append(read);
        this.packs.settle();
        this.refreshBounds();
        this.cameMore();
    }

    /** Fetches objects that were not on show; somebody waits for these. @param {Uint32Array} numbers */
    async show(numbers) {
        this.fetching++;
        await this.arriving.some(numbers);
        this.fetching--;
        this.stale = true;
    }

    refreshBounds() {
        this.viewpoint.all = this.placements.bounds((index) => (this.states[this.placements.object[index]] & 15) > 0);
    }

    /**
     * @param {Uint8Array} states rung by object number, plus 16 when guarded
     * @param {Uint8Array} pick 1 by object number when picked
     */
    setState(states, pick) {
        let changed = states.length !== this.states.length;
        const missing = [];
        const fetches = !this.loading && !this.settings.isWhole;
        for (let number = 0; number < states.length; number++) {
            if (states[number] === this.states[number]) continue;
            changed = true;
            if (fetches && (states[number] & 15) > 0 && (this.states[number] & 15) === 0 && !this.placements.has(number))
                missing.push(number);
        }
        this.states = states;
        this.pick = pick;
        this.painter.look.setPick(pick);
        this.screenStale = true;
        if (changed) this.painter.look.setStates(states);
        this.report('shelf:picked', {});
        // A draft has the pick in its colours.
        if (changed || this.draft) this.stale = true;
        for (let at = 0; at < missing.length; at += 100000) this.show(Uint32Array.from(missing.slice(at, at + 100000)));
    }

    /** @param {Uint8Array | null} colours four bytes by object number; null for own materials */
    setTint(colours) {
        this.painter.look.setTint(colours);
        this.stale = true;
    }

    /** @param {Uint8Array | null} lines red, green, blue and line style by object number; null where none has any */
    setLines(lines) {
        this.painter.look.setLines(lines);
        this.stale = true;
    }

    /**
     * @param {number[][]} cuts planes that cut: normal and distance, as the canvas counts
     * @param {boolean} moving whether somebody drags one of them
     */
    setCuts(cuts, moving) {
        this.painter.look.setCuts(cuts);
        if (moving) {
            // Faces that were cut elsewhere are wrong here.
            this.painter.look.caps.visible = false;
            this.movingUntil = performance.now() + 140;
        }
        this.stale = true;
        this.hover(0);
    }

    /** @param {ArrayBuffer} bytes where numbers begin; how many triangles; then the object of each, its colour, and its corners */
    setCaps(bytes) {
        const [from, count] = new Uint32Array(bytes, 0, 2);
        this.painter.look.setCaps(
            new Float32Array(bytes, from + count * 8, count * 9),
            new Uint32Array(bytes, from, count),
            new Uint32Array(bytes, from + count * 4, count),
        );
        this.stale = true;
    }

    /** @param {string} mode how edges are drawn */
    setEdges(mode) {
        this.painter.look.setEdges(mode);
        this.painter.frames.edges = mode;
        this.stale = true;
    }

    /** @param {Uint32Array | null} taken what a click on each object takes, by object number; null for itself */
    setTakes(taken) {
        this.taken = taken;
        this.painter.look.setTakes(taken);
        this.hover(0);
        this.screenStale = true;
    }

    /** What a click on an object takes. @param {number} number */
    takenBy(number) {
        return this.taken ? (this.taken[number] ?? number) : number;
    }

    setTheme() {
        const theme = document.documentElement.dataset.theme;
        this.painter.look.setTheme(theme === 'dark' || (theme !== 'light' && matchMedia('(prefers-color-scheme: dark)').matches));
        this.stale = true;
    }

    resize() {
        const { clientWidth, clientHeight } = this.element;
        if (clientWidth === 0 || clientHeight === 0 || this.isAside) return;
        this.keepPicture();
        this.painter.resize(clientWidth, clientHeight);
        this.draft?.resize(clientWidth, clientHeight);
        this.viewpoint.resize(clientWidth, clientHeight);
        this.stale = true;
        this.report('shelf:sight', {});
    }

    /** Another size empties the canvas: the last picture stays over it, at the new height, until there is one of that size. */
    keepPicture() {
        const { surface } = this;
        if (this.lastPicture || this.drawnAt === 0 || surface.width === 0 || surface.height === 0) return;
        const kept = document.createElement('canvas');
        kept.className = 'last-picture';
        [kept.width, kept.height] = [surface.width, surface.height];
        kept.getContext('2d')?.drawImage(surface, 0, 0);
        surface.after(kept);
        this.lastPicture = kept;
    }

    cameraMoved() {
        this.movingUntil = performance.now() + 140;
        this.stale = true;
        this.hover(0);
        this.report('shelf:sight', {});
    }

    packArrived() {
        this.packs.fetchNext();
        this.cameMore();
    }

    /** The picture under way is finished first; it is drawn anew when enough has come. */
    cameMore() {
        if (this.painter.hasPicture) this.arrivals++;
        else this.stale = true;
    }

    /** Outlines an object until another one is, wherever the pointer goes. @param {number} number 0 for none */
    outline(number) {
        this.outlined = number;
        this.screenStale = true;
    }

    /** Until the graphics card is ready, boxes are drawn without it. */
    drawDraft() {
        if (!this.draft || !this.stale || this.placements.count === 0) return;
        this.stale = false;
        this.viewpoint.clip();
        const { look, order } = this.painter;
        const boxes = this.draft.draw(this.placements, look, order, this.viewpoint.camera);
        this.report('shelf:drawn', { ...this.painter.summary, drawn: 12 * boxes, boxes, megabytes: 0, loading: true });
        // Only when that is on the screen: while the card is made ready, the browser shows nothing new.
        requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(() => this.open())));
    }

    /** Makes the graphics card ready, once. */
    open() {
        if (this.opened) return;
        this.opened = true;
        try {
            this.painter.open(this.surface);
            this.stale = true;
        } catch (error) {
            if (!(error instanceof UnableToDraw)) throw error;
            this.report('shelf:unable', {});
        }
    }

    /** The draft goes when there is a picture that is whole, or worth more. */
    endDraft(/** @type {number} */ now) {
        if (!this.draft || !this.painter.hasPicture) return;
        this.pictureAt = Math.min(this.pictureAt, now);
        const { pass } = this.painter;
        if (pass && !pass.moving && pass.round === 0 && now - this.pictureAt < WHOLE_MS) return;
        this.draft.end();
        this.draft = null;
    }

    frame() {
        requestAnimationFrame(() => this.frame());
        if (this.isAside) return undefined;
        if (!this.painter.isOpen) return this.drawDraft();
        const now = performance.now();
        const moving = now < this.movingUntil;
        if (this.wasMoving && !moving) this.stale = true;
        this.wasMoving = moving;
        // Making edges smooth can wait for what has come.
        const free = !this.painter.pass || this.painter.pass.round > 0;
        if (free && this.arrivals > 0 && !moving && this.worthDrawingAnew(now)) this.stale = true;
        if (this.stale && this.placements.count > 0) {
            this.stale = false;
            this.arrivals = 0;
            this.viewpoint.clip();
            this.painter.begin(this.viewpoint.camera, moving);
        }
        if (this.painter.pass) {
            const { milliseconds } = this.painter.pass;
            if (!this.painter.step()) {
                [this.drawnAt, this.drawnIn] = [performance.now(), milliseconds];
                if (!moving) this.painter.giveBack();
            }
            this.packs.fetchNext();
            this.screenStale = true;
            const megabytes = this.painter.bytes / 1e6;
            this.report('shelf:drawn', { ...this.painter.summary, missing: this.packs.missing, megabytes, loading: this.loading });
        }
        if (this.screenStale && this.painter.worthShowing) {
            this.screenStale = false;
            // A hit is outlined itself, whatever a click there would take.
            this.painter.look.screen.anyTake.value = this.taken && this.hovered > 0 ? 1 : 0;
            this.painter.show(this.hovered || this.outlined);
            if (!this.painter.pass || this.painter.pass.round > 0) {
                this.lastPicture?.remove();
                this.lastPicture = undefined;
            }
        }
        this.endDraft(now);
    }

    /**
     * What came waits until all has, or for as long as the last picture took and a while: less than half of the time goes into pictures
     * that will not stay, and what comes next comes faster while nothing is drawn.
     */
    worthDrawingAnew(/** @type {number} */ now) {
        if (this.packs.coming.size === 0 && !this.loading) {
            // What came last may need packs that nobody has asked for.
            this.painter.survey(this.viewpoint.camera);
            this.packs.fetchNext();
            if (this.packs.coming.size === 0) return true;
        }
        return now - this.drawnAt > Math.max(this.drawnIn, this.placements.count * PATIENCE_MS);
    }

    listen() {
        listenToPointer(this);
        this.surface.addEventListener('keydown', (event) => this.viewpoint.key(event) && event.preventDefault());
        addEventListener('shelf:theme', () => this.setTheme());
        matchMedia('(prefers-color-scheme: dark)').addEventListener('change', () => this.setTheme());
    }

    /** @param {number} x pixels from the left @param {number} y from the top @returns {number} of the object there, 0 for none */
    numberAt(x, y) {
        return (this.draft ?? this.painter).numberAt(x, y);
    }

    /**
     * Placements of what is picked and drawn.
     * @param {number} most none where more objects are picked
     * @returns {number[]}
     */
    pickedPlacements(most) {
        const { placements, pick, states } = this;
        const found = [];
        for (let number = 1, picked = 0; number < pick.length; number++) {
            if (pick[number] !== 1) continue;
            if (++picked > most) return [];
            const first = placements.first[number] ?? 0;
            if (first > 0 && (states[number] & 15) > 0) found.push(first - 1);
        }
        return found;
    }

    /** @returns {Map<number, number> | null} pixels of the page in which each picked object shows; null while the picture is not whole */
    seen() {
        const { painter } = this;
        return painter.isOpen && !this.draft && !painter.pass
            ? seenOf(painter.frames.numbers(), this.pick, painter.resolution ** -2)
            : null;
    }

    /** @param {number} number */
    isGuarded(number) {
        return (this.states[number] & 16) > 0;
    }

    /** @param {number} number */
    hover(number) {
        if (number === this.hovered) return;
        this.hovered = number;
        this.screenStale = true;
        this.report('shelf:hover', { number, guarded: this.isGuarded(number) });
    }

    /**
     * A small picture of the pick alone, from where the canvas looks.
     * @param {number} width pixels
     * @param {number} height
     * @returns {Promise<string>} a data address; empty when nothing that is picked draws anything
     */
    async portrait(width, height) {
        return portraitOf(this, width, height);
    }

    /** A small picture of what the canvas shows. @returns {string} a data address */
    picture() {
        if (this.painter.isOpen) this.painter.show(0);
        this.screenStale = true;
        const shown = this.draft?.board ?? this.surface;
        const board = document.createElement('canvas');
        board.width = 248;
        board.height = 148;
        const scale = Math.max(board.width / shown.width, board.height / shown.height);
        const pen = /** @type {CanvasRenderingContext2D} */ (board.getContext('2d'));
        pen.imageSmoothingQuality = 'high';
        const [width, height] = [shown.width * scale, shown.height * scale];
        pen.drawImage(shown, (board.width - width) / 2, (board.height - height) / 2, width, height);
        return board.toDataURL('image/jpeg', 0.88);
    }

    /** Where the model is seen from, with the shape of the picture. @returns {import('./camera.js').Sight} */
    sight() {
        const { up } = this.viewpoint.camera;
        const turned = this.viewpoint.isParallel ? { up: up.toArray() } : {};
        return { ...this.viewpoint.get(), ...turned, aspect: this.element.clientWidth / Math.max(1, this.element.clientHeight) };
    }

    /**
     * @param {string} name
     * @param {object} detail
     */
    report(name, detail) {
        this.element.dispatchEvent(new CustomEvent(name, { detail, bubbles: true }));
    }
}
