import { leaveFrom } from '../pictures/from.js';
import { askForRow } from './newrow.js';
import { renameInPlace } from './rename.js';
import { ViewFinder } from './viewfinder.js';
import { menuOfFolder, menuOfView } from './viewmenu.js';

/**
 * What dropping views or folders on something that stands on the shelf would do.
 * @param {{keys: string[]}} dragged
 * @param {{key: string, name: string}} on
 * @param {number} share how far to the right the pointer is in it, 0 to 1
 * @returns {{where: string, says: string} | null}
 */
export function dropOnShelf(dragged, { key, name }, share) {
    if (dragged.keys.includes(key)) return null;
    const what = dragged.keys.length === 1 ? 'it' : `${dragged.keys.length}`;
    if (key.startsWith('F') && share > 0.3) return { where: 'into', says: `Move ${what} into ${name}` };
    const where = share < 0.5 ? 'before' : 'after';
    return { where, says: `Move ${what} ${where} ${name}` };
}

/**
 * Where something goes that is moved one place by key.
 * @param {{key: string, within: string}[]} line all that stands on the shelf, in order; within: key of its folder, "" for none
 * @param {string} key what moves
 * @param {boolean} on whether towards the end
 * @returns {{where: string, mark: string} | null} null where it stands at that end already
 */
export function oneFurther(line, key, on) {
    const at = line.findIndex((each) => each.key === key);
    const { within } = line[at];
    const isIn = (/** @type {{within: string}} */ each) => {
        for (let above = each.within; above !== ''; above = line.find(({ key: of }) => of === above)?.within ?? '')
            if (above === key) return true;
        return false;
    };
    if (!on) {
        const before = line.slice(0, at).findLast((each) => each.within === within);
        if (before) return { where: before.key.startsWith('F') ? 'into' : 'before', mark: before.key };
        return within === '' ? null : { where: 'before', mark: within };
    }
    const next = line.slice(at + 1).find((each) => !isIn(each));
    if (next?.within === within && !next.key.startsWith('F')) return { where: 'after', mark: next.key };
    if (next?.within === within) {
        const first = line.find((each) => each.within === next.key);
        return first ? { where: 'before', mark: first.key } : { where: 'into', mark: next.key };
    }
    return within === '' ? null : { where: 'after', mark: within };
}

/** The shelf: views standing in their folders, which can be folded away; what stands there moves by dragging and by key. */
export class Shelf {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        this.element = /** @type {HTMLElement} */ (document.getElementById('shelf'));
        this.place = `shelf-folded ${bench.server.base}`;
        /** @type {Set<string>} keys of folders that are folded away */
        this.folded = new Set(JSON.parse(localStorage.getItem(this.place) ?? '[]'));
        /** @type {Set<string>} what is chosen besides, to be moved together */
        this.chosen = new Set();
        /** Number of the view that the desk came from, and how the desk differs from it. */
        this.current = '0';
        this.differs = '';
        this.finder = new ViewFinder(this);
        this.element.addEventListener('keydown', (event) => this.onKey(event));
        this.element.addEventListener('click', (event) => this.onClick(event), true);
        this.element.addEventListener('contextmenu', (event) => {
            const item = this.itemOf(event.target);
            if (!item) return;
            event.preventDefault();
            this.openMenu(item, event);
        });
        this.listenToDrag();
        new MutationObserver(() => this.mark()).observe(this.element, {
            childList: true,
            subtree: true,
            attributeFilter: ['hidden', 'class', 'aria-expanded'],
        });
        this.mark();
    }

    /** @param {EventTarget | null} target */
    itemOf(target) {
        return /** @type {HTMLElement | null} */ (/** @type {Element | null} */ (target)?.closest?.('[data-key]') ?? null);
    }

    items() {
        return /** @type {HTMLElement[]} */ ([...this.element.querySelectorAll('[data-key]')]);
    }

    /** Which shelf this is. */
    get stamp() {
        return /** @type {HTMLElement | null} */ (this.element.querySelector('[data-stamp]'))?.dataset.stamp ?? '';
    }

    /** @param {string} view number of the one that the desk came from, "0" for none @param {string} differs how the desk differs from it */
    hears(view, differs) {
        this.current = view;
        this.differs = differs;
        this.mark();
    }

    /** @param {HTMLElement} item a view's card */
    markCurrent(item) {
        const isCurrent = item.dataset.view !== undefined && item.dataset.view === this.current;
        if (item.classList.contains('current') !== isCurrent) item.classList.toggle('current', isCurrent);
        const picture = item.querySelector('.view-picture');
        if (picture && (picture.getAttribute('aria-current') === 'true') !== isCurrent)
            if (isCurrent) picture.setAttribute('aria-current', 'true');
            else picture.removeAttribute('aria-current');
        const says = isCurrent ? this.differs : '';
        const dot = /** @type {HTMLElement | null} */ (item.querySelector('.differs'));
        if ((dot?.title ?? '') === says) return;
        dot?.remove();
        if (says === '' || !picture) return;
        const mark = Object.assign(document.createElement('span'), { className: 'differs', title: says });
        mark.append(Object.assign(document.createElement('span'), { className: 'unseen', textContent: says }));
        picture.append(mark);
    }

    /** Puts what the page alone knows on what the server sent: what is folded away, what is chosen, and the current view. */
    mark() {
        for (const item of this.items()) {
            this.markCurrent(item);
            const key = item.dataset.key ?? '';
            const away =
                this.finder.words === ''
                    ? (item.dataset.within ?? '').split(' ').some((folder) => this.folded.has(folder))
                    : this.finder.hides(item);
            if (item.hidden !== away) item.hidden = away;
            if (item.classList.contains('chosen') !== this.chosen.has(key)) item.classList.toggle('chosen', this.chosen.has(key));
            const spine = item.querySelector('.spine');
            const open = String(this.finder.words !== '' || !this.folded.has(key));
            if (spine && spine.getAttribute('aria-expanded') !== open) spine.setAttribute('aria-expanded', open);
        }
    }

    /** @param {string} key of a folder */
    fold(key) {
        if (!this.folded.delete(key)) this.folded.add(key);
        localStorage.setItem(this.place, JSON.stringify([...this.folded]));
        this.mark();
    }

    /** What an action on something is for: all that is chosen where it is among them. @param {string} key */
    meant(key) {
        return this.chosen.has(key) ? [...this.chosen] : [key];
    }

    /** @param {MouseEvent} event */
    onClick(event) {
        const item = this.itemOf(event.target);
        const key = item?.dataset.key ?? '';
        if (!item || !(/** @type {Element} */ (event.target).closest('.view-picture, .spine'))) return;
        if (event.ctrlKey || event.metaKey || event.shiftKey) {
            event.stopPropagation();
            event.preventDefault();
            if (!this.chosen.delete(key)) this.chosen.add(key);
        } else {
            this.chosen.clear();
            if (key.startsWith('F')) this.fold(key);
        }
        this.mark();
    }

    /** @param {KeyboardEvent} event */
    onKey(event) {
        const item = this.itemOf(event.target);
        const button = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('.view-picture, .spine'));
        if (!item || !button) return;
        const { bench } = this;
        const key = item.dataset.key ?? '';
        const view = key.startsWith('V');
        const sideways = event.key === 'ArrowLeft' || event.key === 'ArrowRight';
        if (sideways && event.altKey && event.shiftKey) {
            this.moveOne(key, event.key === 'ArrowRight');
        } else if (sideways && !event.altKey && !event.ctrlKey && !event.metaKey) {
            const buttons = /** @type {HTMLElement[]} */ ([...this.element.querySelectorAll('.view-picture, .spine')]).filter(
                (each) => each.offsetParent,
            );
            const step = event.key === 'ArrowRight' ? 1 : -1;
            const next = buttons[Math.max(0, Math.min(buttons.length - 1, buttons.indexOf(button) + step))];
            next.focus();
            if (next.classList.contains('view-picture')) bench.command('apply-view', next);
        } else if (event.key === 'F2' && bench.may()) this.rename(item);
        else if (event.key === 'Delete' && bench.may()) this.remove(key);
        else if (event.key === 'ContextMenu' || (event.key === 'F10' && event.shiftKey)) this.openMenu(item);
        else if (event.key === ' ' && event.ctrlKey) {
            if (!this.chosen.delete(key)) this.chosen.add(key);
            this.mark();
        } else if (event.key === 'Escape' && this.chosen.size > 0) {
            this.chosen.clear();
            this.mark();
        } else if (!view && event.key === 'Enter') this.fold(key);
        else return;
        event.preventDefault();
        event.stopPropagation();
    }

    /** @param {string} key @param {boolean} on */
    moveOne(key, on) {
        if (!this.bench.may()) return;
        const line = this.items().map((item) => ({
            key: item.dataset.key ?? '',
            within: (item.dataset.within ?? '').split(' ').pop() ?? '',
        }));
        const to = oneFurther(line, key, on);
        if (to) this.bench.server.ask('POST', '/rows/move', { keys: key, ...to });
    }

    /** @param {string} key */
    remove(key) {
        const keys = this.meant(key);
        this.chosen.clear();
        // Views ask nothing: it can be taken back.
        if (keys.every((each) => each.startsWith('V'))) return this.bench.server.ask('DELETE', '/views', { keys: keys.join(',') });
        return this.bench.openDialog(`/rows/delete?keys=${keys.join(',')}`);
    }

    /** @param {'POST' | 'DELETE'} method @param {string} path @param {string[]} keys */
    onThose(method, path, keys) {
        this.chosen.clear();
        return this.bench.server.ask(method, path, { keys: keys.join(',') });
    }

    /** @param {HTMLElement} item */
    rename(item) {
        const key = item.dataset.key ?? '';
        renameInPlace(/** @type {HTMLElement} */ (item.querySelector('.label')), item.dataset.name ?? '', {
            className: 'rename',
            length: key.startsWith('V') ? 120 : 200,
            after: () => /** @type {HTMLElement | null} */ (item.querySelector('.view-picture, .spine'))?.focus(),
            keep: (name) => this.bench.server.ask('PATCH', key.startsWith('V') ? `/views/${key.slice(1)}` : `/rows/${key}`, { name }),
            leave: this.bench.freshener(),
        });
    }

    /** @param {HTMLElement} item @param {MouseEvent} [event] */
    openMenu(item, event) {
        const key = item.dataset.key ?? '';
        const button = /** @type {HTMLElement} */ (item.querySelector('.view-picture, .spine'));
        if (!this.bench.mayChange) return;
        this.bench.menus.back = button;
        this.bench.menus.show(button, event, key.startsWith('V') ? menuOfView(this, item, key) : menuOfFolder(this, item, key));
    }

    /** Walks through views as a presentation, from the current one on where it is among them. @param {string[]} [keys] all without them */
    walkThrough(keys) {
        const of = keys ?? [];
        const views = this.items().filter(
            ({ dataset: { view, key = '', within = '' } }) =>
                view !== undefined && (of.length === 0 || of.includes(key) || within.split(' ').some((folder) => of.includes(folder))),
        );
        if (views.length === 0) return this.bench.say('There are no views to walk through yet. V keeps one.');
        const at = Math.max(
            0,
            views.findIndex((item) => item.dataset.view === this.current),
        );
        return location.assign(`${this.bench.server.base}/walk/${keys ? keys.join(',') : 'all'}#${at + 1}`);
    }

    /** Goes to where pictures of views are drawn. @param {string[]} [keys] of views and folders; all without them */
    pictures(keys) {
        if (this.items().every(({ dataset }) => dataset.view === undefined))
            return this.bench.say('There are no views to make pictures of yet. V keeps one.');
        leaveFrom(this.bench.server.base, this.bench.canvas.viewpoint.get());
        return location.assign(`${this.bench.server.base}/pictures/${keys ? keys.join(',') : 'all'}`);
    }

    /** @param {string[]} keys */
    folderAround(keys) {
        this.chosen.clear();
        askForRow(this.bench, 'folder', { holds: 'views', around: keys });
    }

    listenToDrag() {
        /** @type {{keys: string[]} | null} */
        let dragged = null;
        /** @type {{item: HTMLElement, where: string} | null} */
        let over = null;
        const clear = () => {
            over?.item.classList.remove('drop-before', 'drop-after', 'drop-into');
            over = null;
        };
        this.element.addEventListener('dragstart', (event) => {
            const item = this.itemOf(event.target);
            if (!item || !this.bench.mayChange) return event.preventDefault();
            dragged = { keys: this.meant(item.dataset.key ?? '') };
            event.dataTransfer?.setData('text/plain', item.dataset.name ?? '');
            if (event.dataTransfer) event.dataTransfer.effectAllowed = 'move';
            return undefined;
        });
        this.element.addEventListener('dragover', (event) => {
            const item = this.itemOf(event.target);
            const { left = 0, width = 1 } = item?.getBoundingClientRect() ?? {};
            const on = { key: item?.dataset.key ?? '', name: item?.dataset.name ?? '' };
            const drop = dragged && item ? dropOnShelf(dragged, on, (event.clientX - left) / width) : null;
            if (!item || !drop) return clear();
            event.preventDefault();
            if (over?.item === item && over.where === drop.where) return undefined;
            clear();
            over = { item, where: drop.where };
            item.dataset.drop = drop.says;
            item.classList.add(`drop-${drop.where}`);
            return undefined;
        });
        this.element.addEventListener('drop', (event) => {
            if (!dragged || !over) return;
            event.preventDefault();
            this.bench.server.ask('POST', '/rows/move', {
                keys: dragged.keys.join(','),
                where: over.where,
                mark: over.item.dataset.key ?? '',
            });
            this.chosen.clear();
            clear();
            dragged = null;
        });
        this.element.addEventListener('dragend', () => {
            clear();
            dragged = null;
        });
    }
}
