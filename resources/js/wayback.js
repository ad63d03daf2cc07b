/** Name of this window in the workbench of a project, see {@link OwnWindow}. @param {string} project its address */
const entryOf = (project) => `window ${project}`;

/** Notes what this window is called there, for the pages that lead back. @param {string} project its address @param {string} name */
export function noteWindow(project, name) {
    sessionStorage.setItem(entryOf(project), name);
}

/** The address of a workbench as this window had it. @param {string} address */
export function wayBack(address) {
    const there = new URL(address, location.href);
    const name = sessionStorage.getItem(entryOf(there.pathname));
    if (name && !there.searchParams.has('w')) there.searchParams.set('w', name);
    return there.href;
}

/** Links that are followed in this window lead back to its own ledger. */
export function followBack() {
    document.addEventListener('click', (event) => {
        const link = event.target instanceof Element ? event.target.closest('a[href]') : null;
        if (!(link instanceof HTMLAnchorElement) || event.ctrlKey || event.metaKey || event.shiftKey || link.target !== '') return;
        if (link.origin === location.origin && !link.hash) link.href = wayBack(link.href);
    });
}
