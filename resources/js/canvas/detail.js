/** What is drawn of a placement, besides a level of its mesh. */
export const BOX = 254;
export const DOT = 255;

/** Pixels that what is drawn may be off where there is room for it: less than can be seen. */
export const FINEST = 0.6;

/** Pixels that it may be off where there is not. */
const STEPS = [FINEST, 1, 1.6, 2.5, 4, 6.5, 10, 16];

/** How far a mesh may be from the sides of its box, in shares of its reach. */
const BOX_ROUGH = 0.5;
const BOX_TRIANGLES = 12;

/** What a piece, a box and a dot cost to draw besides their triangles, in triangles. */
export const CALL = 30;
export const BOX_WEIGHT = 40;
export const DOT_WEIGHT = 1;

/** A level stays until another is better by this. */
const STAYS = 0.7;

/** While the camera moves, of more placements than this a part is summed up for all, and what is not reached is not worked out. */
const MANY = 16384;

/**
 * Which version of its mesh each placement is drawn as: the coarsest that is off by fewer pixels than is allowed, nothing above its rung.
 * How many pixels that is follows from what all of it may cost.
 */
export class Detail {
    constructor() {
        /** What each placement was drawn as last: a level, BOX or DOT. */
        this.level = new Uint8Array(0);
        /** What it should be drawn as. */
        this.wanted = new Uint8Array(0);
        /** Pixels that what is drawn may be off. */
        this.allowed = FINEST;
        /** What is less than that, and what is left of the budget for what has it, the largest first. */
        this.better = FINEST;
        /** Whether all of it can be drawn for what it may cost. */
        this.fits = true;
        /** Whether what each should be drawn as is worked out when it is drawn. */
        this.isLazy = false;
        this.spare = { triangles: 0, calls: 0, weight: 0 };
        this.triangles = new Float64Array(STEPS.length);
        this.calls = new Float64Array(STEPS.length);
        this.weights = new Float64Array(STEPS.length);
    }

    /**
     * Finds out how many pixels may be allowed, and what everything should be drawn as.
     * @param {import('./placements.js').Placements} placements
     * @param {Uint8Array} states rung by object number
     * @param {import('./order.js').Order} order
     * @param {{triangles: number, calls: number, weight: number}} budget at most
     * @param {boolean} moving whether the next picture comes at once: what is drawn then changes as seldom as can be
     */
    fit(placements, states, order, budget, moving) {
        if (this.level.length < placements.count) {
            const level = new Uint8Array(placements.capacity).fill(DOT);
            level.set(this.level);
            this.level = level;
            this.wanted = new Uint8Array(placements.capacity);
        }
        this.isLazy = moving && order.count > MANY;
        this.add(placements, states, order, this.isLazy ? Math.ceil((order.count / MANY) * 2) : 1);
        const fits = (/** @type {number} */ step, /** @type {number} */ share) =>
            this.triangles[step] <= budget.triangles * share &&
            this.calls[step] <= budget.calls * share &&
            this.weights[step] <= budget.weight * share;
        let step = 0;
        while (step < STEPS.length - 1 && !fits(step, 1)) step++;
        this.fits = fits(step, 1);
        // What only just fits again would come and go with every turn of the camera.
        const before = STEPS.indexOf(this.allowed);
        if (moving && step < before && fits(before, 1) && !fits(step, 0.85)) step = before;
        this.allowed = STEPS[step];
        this.better = STEPS[Math.max(0, step - 1)];
        this.spare.triangles = budget.triangles - this.triangles[step];
        this.spare.calls = budget.calls - this.calls[step];
        this.spare.weight = budget.weight - this.weights[step];
        if (this.isLazy) return;
        for (let next = 0; next < order.count; next++) {
            const index = order.list[next];
            const facts = placements.facts[placements.mesh[index]];
            const rung = states[placements.object[index]] & 15;
            const level = this.of(facts, rung, order.size[index]);
            this.wanted[index] = moving ? this.steady(index, facts, rung, order.size[index], level) : level;
        }
    }

    /**
     * What one should be drawn as; to be asked in order, the largest first.
     * @param {number} index
     * @param {import('./placements.js').MeshFacts} facts
     * @param {number} rung
     * @param {number} pixels from its middle to its rim
     */
    chosen(index, facts, rung, pixels) {
        return this.isLazy ? this.steady(index, facts, rung, pixels, this.of(facts, rung, pixels)) : this.wanted[index];
    }

    /**
     * Whether there is room for something better, which is then taken.
     * @param {import('./placements.js').MeshFacts} facts
     * @param {number} level
     * @param {number} better
     */
    affords(facts, level, better) {
        const { spare } = this;
        const more = costOf(facts, better) - costOf(facts, level);
        const calls = (better < BOX ? 1 : 0) - (level < BOX ? 1 : 0);
        const weight = weightOf(facts, better) - weightOf(facts, level);
        if (more > spare.triangles || calls > spare.calls || weight > spare.weight) return false;
        spare.triangles -= more;
        spare.calls -= calls;
        spare.weight -= weight;
        return true;
    }

    /** Sums up what everything would cost at each step, or one of so many for all of them. */
    add(
        /** @type {import('./placements.js').Placements} */ placements,
        /** @type {Uint8Array} */ states,
        /** @type {import('./order.js').Order} */ order,
        /** @type {number} */ every,
    ) {
        const { triangles, calls, weights } = this;
        triangles.fill(0);
        calls.fill(0);
        weights.fill(0);
        const last = STEPS.length;
        for (let next = 0; next < order.count; next += every) {
            const index = order.list[next];
            const rung = states[placements.object[index]] & 15;
            const facts = placements.facts[placements.mesh[index]];
            const pixels = order.size[index];
            for (let step = 0; step < last; step++) {
                const level = wanted(facts, rung, pixels, STEPS[step]);
                triangles[step] += costOf(facts, level) * every;
                weights[step] += weightOf(facts, level) * every;
                if (level < BOX) calls[step] += every;
            }
        }
    }

    /**
     * What a placement should be drawn as.
     * @param {import('./placements.js').MeshFacts} facts
     * @param {number} rung
     * @param {number} pixels from its middle to its rim
     */
    of(facts, rung, pixels) {
        const level = wanted(facts, rung, pixels, this.allowed);
        const better = this.better < this.allowed ? wanted(facts, rung, pixels, this.better) : level;
        return better !== level && this.affords(facts, level, better) ? better : level;
    }

    /**
     * What it was before, where the other would hardly be better.
     * @param {number} index
     * @param {import('./placements.js').MeshFacts} facts
     * @param {number} rung
     * @param {number} pixels
     * @param {number} level
     */
    steady(index, facts, rung, pixels, level) {
        const before = this.level[index];
        const isNear = before < level && level < BOX && before >= floor(facts, rung);
        return isNear && facts.levels[level].rough * pixels > this.allowed * STAYS ? before : level;
    }
}

/** Triangles; a dot is none. @param {import('./placements.js').MeshFacts} facts @param {number} level */
function costOf(facts, level) {
    return level === DOT ? 0 : level === BOX ? BOX_TRIANGLES : facts.levels[level].triangles;
}

/** In triangles, with what a call costs. @param {import('./placements.js').MeshFacts} facts @param {number} level */
function weightOf(facts, level) {
    return level === DOT ? DOT_WEIGHT : level === BOX ? BOX_WEIGHT : facts.levels[level].triangles + CALL;
}

/** The finest level that a rung lets through. @param {import('./placements.js').MeshFacts} facts @param {number} rung */
function floor(facts, rung) {
    return rung < 4 ? facts.coarse : 0;
}

/**
 * @param {import('./placements.js').MeshFacts} facts
 * @param {number} rung
 * @param {number} pixels from the middle to the rim
 * @param {number} allowed pixels that it may be off
 * @returns {number} a level of the mesh, BOX or DOT
 */
export function wanted(facts, rung, pixels, allowed) {
    if (rung === 1) return pixels <= allowed ? DOT : BOX;
    if (rung > 2 && pixels <= allowed) return DOT;
    const { levels } = facts;
    let level = floor(facts, rung);
    while (level + 1 < levels.length && levels[level + 1].rough * pixels <= allowed) level++;
    return rung > 2 && BOX_ROUGH * pixels <= allowed && levels[level].triangles > BOX_TRIANGLES ? BOX : level;
}

/**
 * The level that is here and nearest to the one that is wanted: rather a coarser one.
 * @param {import('./placements.js').MeshFacts} facts
 * @param {number} level
 * @param {number} rung
 * @returns {number} -1 where nothing is here
 */
export function here(facts, level, rung) {
    const { levels } = facts;
    for (let at = level; at < levels.length; at++) if (levels[at].pieces) return at;
    for (let at = level - 1; at >= floor(facts, rung); at--) if (levels[at].pieces) return at;
    // Until Coarse is made or has come, the mesh itself is what there is.
    for (let at = floor(facts, rung) - 1; at >= 0; at--) if (levels[at].pieces) return at;
    return -1;
}
