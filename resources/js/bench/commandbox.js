import { shownKey } from './keys.js';

const MOST = 12;

/** So many commands are remembered as used lately, in this browser. */
const MOST_USED = 12;

/** @returns {string[]} ids of the commands that were used lately, the last one first */
function used() {
    return (localStorage.getItem('commands-used') ?? '').split(' ').filter(Boolean);
}

/** @param {string} id */
function use(id) {
    localStorage.setItem('commands-used', [id, ...used().filter((other) => other !== id)].slice(0, MOST_USED).join(' '));
}

/** One box for every command and every name. */
export class CommandBox {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
    }

    open() {
        const box = document.createElement('div');
        box.className = 'command-box';
        box.innerHTML = `
            <h2 id="dialog-title" class="unseen">Commands and names</h2>
            <input type="text" role="combobox" aria-expanded="true" aria-controls="command-list" aria-autocomplete="list"
                aria-label="Command or name" placeholder="A command, or a name in the project"
                autocomplete="off" spellcheck="false" autofocus>
            <div id="command-list" role="listbox" aria-label="Commands and names"></div>`;
        this.bench.dialogs.show(box);
        this.input = /** @type {HTMLInputElement} */ (box.querySelector('input'));
        this.list = /** @type {HTMLElement} */ (box.querySelector('#command-list'));
        this.names = [];
        this.input.addEventListener('input', () => this.typed());
        this.input.addEventListener('keydown', (event) => this.key(event));
        this.list.addEventListener('click', (event) => {
            const option = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-at]'));
            if (option) this.run(Number(option.dataset.at));
        });
        this.draw();
    }

    async typed() {
        const words = this.input?.value ?? '';
        this.draw();
        await new Promise((resolve) => setTimeout(resolve, 110));
        if (words !== this.input?.value || words.trim() === '') return;
        const names = await this.bench.server.json(`/find/names?q=${encodeURIComponent(words)}`);
        if (words !== this.input?.value) return;
        this.names = names ?? [];
        this.draw();
    }

    draw() {
        const words = (this.input?.value ?? '').trim().toLowerCase();
        if (words === '') this.names = [];
        const parts = words.split(/\s+/);
        const commands = this.bench.commands.filter(
            (command) =>
                !command.quiet &&
                (this.bench.mayChange || !command.changes) &&
                parts.every((part) => `${command.name} ${command.part}`.toLowerCase().includes(part)),
        );
        const recent = used();
        const begins = (/** @type {string} */ name) => words !== '' && name.toLowerCase().startsWith(words);
        const lately = (/** @type {string} */ id) => (recent.includes(id) ? recent.indexOf(id) : MOST_USED);
        commands.sort((a, b) => Number(begins(b.name)) - Number(begins(a.name)) || lately(a.id) - lately(b.id));
        const listed = commands.slice(0, words === '' ? 200 : MOST).map((command) => ({
            label: command.name,
            where: command.part,
            key: command.keys.split(' ')[0],
            act: () => {
                use(command.id);
                this.bench.command(command.id);
            },
        }));
        const named = this.names.map((/** @type {any} */ name) => ({
            label: name.name || 'unnamed',
            where: name.where,
            key: '',
            act: () => this.goTo(name),
        }));
        // What begins with the words comes first, commands and names alike.
        /** @type {{label: string, where: string, key: string, act: () => void}[]} */
        this.items = [...listed, ...named].sort((a, b) => Number(begins(b.label)) - Number(begins(a.label)));
        this.chosen = 0;
        this.list?.replaceChildren(
            ...this.items.map((item, at) => {
                const option = Object.assign(document.createElement('div'), { id: `command-${at}`, className: 'offer' });
                option.setAttribute('role', 'option');
                option.dataset.at = String(at);
                option.append(
                    Object.assign(document.createElement('span'), { className: 'label', textContent: item.label, title: item.label }),
                    Object.assign(document.createElement('small'), { textContent: item.where }),
                );
                if (item.key) option.append(Object.assign(document.createElement('kbd'), { textContent: shownKey(item.key) }));
                return option;
            }),
        );
        this.mark();
    }

    mark() {
        for (const option of this.list?.children ?? [])
            option.setAttribute('aria-selected', String(option.id === `command-${this.chosen}`));
        this.input?.setAttribute('aria-activedescendant', `command-${this.chosen}`);
        document.getElementById(`command-${this.chosen}`)?.scrollIntoView({ block: 'nearest' });
    }

    /** @param {KeyboardEvent} event */
    key(event) {
        const count = this.items?.length ?? 0;
        const way = { ArrowDown: 1, ArrowUp: -1, PageDown: 8, PageUp: -8 }[event.key];
        if (way && count > 0) {
            this.chosen = Math.max(0, Math.min(count - 1, (this.chosen ?? 0) + way));
            this.mark();
        } else if (event.key === 'Enter') this.run(this.chosen ?? 0);
        else return;
        event.preventDefault();
    }

    /** @param {number} at */
    run(at) {
        const item = this.items?.[at];
        if (!item) return;
        this.bench.dialogs.close();
        item.act();
    }

    /** @param {{what: string, key: string}} name */
    async goTo({ what, key }) {
        const { bench } = this;
        if (what === 'view') return bench.server.ask('POST', `/views/${key}/apply`);
        const lens = { layer: 'layers', material: 'materials', tags: 'tags', sets: 'sets' }[what];
        if (lens) {
            await bench.turn(/** @type {HTMLElement} */ (document.getElementById(`lens-${lens}`)));
            return bench.ledger.show(key, true);
        }
        await bench.pick({ keys: key, mode: 'replace' });
        bench.looking.frameObject(Number(key.slice(1)));
    }
}
