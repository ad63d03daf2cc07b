/**
 * What comes after everything solid: glass, far before near; then ghosts with their edges; then the edges that layers and tags ask for.
 * Drawn in slices, each going on where the one before ended.
 */
export class SeeThrough {
    /** @param {import('./painter.js').Painter} painter */
    constructor(painter) {
        this.painter = painter;
        this.begin();
    }

    /** Nothing is drawn yet, of placements that are still to be found. */
    begin() {
        /** @type {number[]} */
        this.glass = [];
        /** @type {number[]} */
        this.ghosts = [];
        /** What is solid and has its edges drawn over it. @type {number[]} */
        this.edged = [];
        /** Which of glass, ghosts and their edges comes next, and which placement of it. */
        this.stage = this.at = 0;
    }

    /**
     * While the camera moves, some of each is drawn; otherwise, what comes next.
     * @param {number} allowance triangles
     * @param {boolean} moving
     * @returns {{done: boolean, spent: number}} whether nothing is left, and the triangles and lines that were drawn
     */
    draw(allowance, moving) {
        const { packs, look } = this.painter;
        if (this.stage === 0 && this.at === 0) {
            this.farFirst(this.glass);
            this.finestFirst();
        }
        const stages = /** @type {const} */ ([
            [this.glass, (/** @type {number} */ index) => this.putGlass(index), look.materials.seeThrough],
            [this.ghosts, (/** @type {number} */ index) => this.putFaces(index), look.materials.ghost],
            [this.ghosts, (/** @type {number} */ index) => this.putEdges(index), look.materials.line],
            [this.edged, (/** @type {number} */ index) => this.putOutlines(index), look.materials.line],
        ]);
        let spent = 0;
        for (; this.stage < stages.length && (moving || spent < allowance); this.stage++) {
            const [list, put, material] = stages[this.stage];
            const most = moving ? spent + allowance : allowance;
            for (const page of packs.pages) page.clear();
            const from = this.at;
            while (this.at < list.length && spent < most) spent += put(list[this.at++]) + 30;
            if (this.at > from) this.painter.render(() => material, false);
            if (this.at < list.length && !moving) break;
            this.at = 0;
        }
        return { done: this.stage === stages.length, spent };
    }

    /** @param {number[]} list placements */
    farFirst(list) {
        const { sphere } = this.painter.placements;
        const { x, y, z } = this.painter.order.eye;
        const far = (/** @type {number} */ at) => (sphere[at * 4] - x) ** 2 + (sphere[at * 4 + 1] - y) ** 2 + (sphere[at * 4 + 2] - z) ** 2;
        list.sort((a, b) => far(b) - far(a));
    }

    /** Those that lie on the same pages together: in one go or in slices, what lies over what is the same. */
    finestFirst() {
        const { level } = this.painter.detail;
        this.ghosts = [...this.ghosts.filter((index) => level[index] === 0), ...this.ghosts.filter((index) => level[index] > 0)];
    }

    /** @param {number} index of a placement */
    factsOf(index) {
        const { placements } = this.painter;
        return placements.facts[placements.mesh[index]];
    }

    /** What a placement is drawn as. @param {number} index of a placement @returns {import('./placements.js').Level} */
    levelOf(index) {
        const { levels } = this.factsOf(index);
        return levels[Math.min(levels.length - 1, this.painter.detail.level[index])];
    }

    /** @param {number} index of a placement @returns {import('./pages.js').Piece[]} */
    piecesOf(index) {
        return this.levelOf(index).pieces ?? [];
    }

    /** @param {number} index @returns {number} triangles */
    putGlass(index) {
        let triangles = 0;
        for (const piece of this.piecesOf(index)) {
            if (this.painter.look.surfaces.get(piece.material)?.[2] !== 1 || piece.page.kind !== 'triangles') continue;
            piece.page.draw(index, piece);
            triangles += piece.triangles;
        }
        return triangles;
    }

    /** @param {number} index @returns {number} triangles */
    putFaces(index) {
        let triangles = 0;
        for (const piece of this.piecesOf(index)) {
            if (piece.page.kind !== 'triangles') continue;
            piece.page.draw(index, piece);
            triangles += piece.triangles;
        }
        return triangles;
    }

    /** @param {number} index @returns {number} lines */
    putEdges(index) {
        const lines = this.putOutlines(index);
        for (const piece of this.piecesOf(index)) {
            if (piece.page.kind !== 'triangles') piece.page.draw(index, piece);
        }
        return lines;
    }

    /** The edges of what has faces, alone. @param {number} index @returns {number} lines */
    putOutlines(index) {
        let lines = 0;
        for (const piece of this.painter.packs.edges(this.factsOf(index), this.levelOf(index))) {
            piece.page.draw(index, piece);
            lines += piece.count / 2;
        }
        return lines;
    }
}
