import { readBcf, writeBcf } from './bcf.js';
import { openCompare } from './compare.js';
import { openComments, openSharing } from './sharing.js';

/**
 * Commands about views.
 * @param {import('./workbench.js').Workbench} bench
 * @param {(part: string, id: string, name: string, keys: string, run: (from: HTMLElement) => any, more?: any) => any} command
 */
export function viewingCommands(bench, command) {
    const ask = bench.server.ask.bind(bench.server);
    const view = (/** @type {HTMLElement} */ from) => Number(from.dataset.view);
    return [
        command('Views', 'keep-view', 'Keep this view…', 'v', () => bench.openDialog('/views/new'), { changes: true }),
        command('Views', 'apply-view', 'Apply a view', '', (from) => ask('POST', `/views/${view(from)}/apply`), { quiet: true }),
        command('Views', 'find-view', 'Find a view on the shelf', 'Alt+s', () => bench.shelf.finder.open(), { quiet: true }),
        command('Views', 'walk-through', 'Walk through all views as a presentation', 'Alt+p', () => bench.shelf.walkThrough()),
        command('Views', 'pictures', 'Pictures of views…', 'Alt+i', () => bench.shelf.pictures()),
        command('Views', 'comments', 'What guests said of a view…', '', (from) => openComments(bench, view(from)), { quiet: true }),
        command('Views', 'share', 'Share views by a link…', 'Alt+l', () => openSharing(bench), { changes: true }),
        command('Views', 'review-views', 'Review what is new to views…', 'Alt+r', () => bench.openDialog('/views/review'), {
            changes: true,
        }),
        command('Views', 'bcf-3', 'All views as BCF 3.0', '', () => writeBcf(bench, '3.0')),
        command('Views', 'bcf-2', 'All views as BCF 2.1', '', () => writeBcf(bench, '2.1')),
        command('Views', 'bcf-read', 'Read views from a BCF…', '', () => readBcf(bench), { changes: true }),
        command('Views', 'compare', 'Compare views, the desk and pictures…', 'Alt+c', () => openCompare(bench)),
        command(
            'Views',
            'views-as-they-were',
            'Keep views as they were before the last change',
            '',
            (from) => ask('POST', '/views/as-they-were', { change: from.dataset.change ?? 0 }),
            { changes: true, quiet: true },
        ),
        command(
            'Views',
            'view-menu',
            'More for a view',
            '',
            (from) => bench.shelf.openMenu(/** @type {HTMLElement} */ (from.closest('[data-key]'))),
            { quiet: true },
        ),
    ];
}
