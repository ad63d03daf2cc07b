import {
    BoxGeometry,
    BufferAttribute,
    BufferGeometry,
    Color,
    DoubleSide,
    FloatType,
    GLSL3,
    InstancedBufferAttribute,
    InstancedBufferGeometry,
    Mesh,
    NoBlending,
    NormalBlending,
    Points,
    RGBAFormat,
    RedFormat,
    ShaderMaterial,
    UnsignedByteType,
    Vector2,
    Vector3,
    Vector4,
} from 'three';
import { boxFragment, boxVertex, cutFragment, cutVertex, dotFragment, dotVertex, partFragment, partVertex } from './shaders.js';
import { byNumber, emptyPictures, fourByNumber, stackedPictures, texture } from './textures.js';

/**
 * Colour, texture, whether it is see-through, cutoff of a masked one, colour of the light that it gives, whether it is shown whatever the
 * light, texture that tilts the surface, and how much.
 * @typedef {[number, number | null, number, number, number, number, number | null, number]} Surface
 */

/** Texels and floats that a material takes. */
const TEXELS = 3;
const FLOATS = TEXELS * 4;

/** Planes that cut at most. */
const MOST_CUTS = 12;

/** Steps of colour in the background. */
export const BANDS = 64;

/** What things look like: materials, textures, rungs, tints, the pick and the theme, as the shaders read them. */
export class Look {
    /**
     * @param {import('./placements.js').Placements} placements
     * @param {Record<string, {value: any}>} screen what the last step to the screen reads
     */
    constructor(placements, screen) {
        this.screen = screen;
        /** @type {Uint8Array} */
        this.states = new Uint8Array(1);
        /** Red, green, blue and line style by object number; empty where none has any. @type {Uint8Array} */
        this.lines = new Uint8Array(0);
        this.edges = 'own';
        /** @type {Map<number, Surface>} */
        this.surfaces = new Map();
        this.shared = {
            places: { value: placements.place },
            meshes: { value: placements.meshes },
            materials: { value: texture(new Float32Array(FLOATS), TEXELS, 1, FloatType, RGBAFormat) },
            states: { value: texture(new Uint8Array(1024), 1024, 1, UnsignedByteType, RedFormat) },
            tints: { value: texture(new Uint8Array(4), 1, 1, UnsignedByteType, RGBAFormat) },
            lines: { value: texture(new Uint8Array(4), 1, 1, UnsignedByteType, RGBAFormat) },
            screenSize: { value: new Vector2(1, 1) },
            jitter: { value: new Vector2() },
            entries: { value: null },
            pictures: { value: emptyPictures() },
            reliefs: { value: emptyPictures() },
            skyLight: { value: new Vector3(0.78, 0.79, 0.8) },
            groundLight: { value: new Vector3(0.46, 0.44, 0.4) },
            sunLight: { value: new Vector3(0.42, 0.39, 0.33) },
            sunWay: { value: new Vector3(0.42, -0.52, 0.74).normalize() },
            ghostInk: { value: new Color() },
            boxFill: { value: new Color() },
            cuts: { value: Array.from({ length: MOST_CUTS }, () => new Vector4()) },
            cutCount: { value: 0 },
            /** 1 where only edges are drawn, on paper. */
            paper: { value: 0 },
        };
        this.materials = {
            solid: this.material(partVertex, partFragment, { MASKED: '' }, false),
            unlit: this.material(partVertex, partFragment, { UNLIT: '' }, false),
            seeThrough: this.material(partVertex, partFragment, { SEE_THROUGH: '' }, true),
            ghost: this.material(partVertex, partFragment, { GHOST: '' }, true),
            line: this.material(partVertex, partFragment, { LINE: '' }, true),
            box: this.material(boxVertex, boxFragment, {}, false),
            dot: this.material(dotVertex, dotFragment, {}, false),
        };
        /** Planes that cut: normal and distance, as the canvas counts. @type {number[][]} */
        this.cuts = [];
        this.caps = this.makeCaps();
        this.nothing = fourByNumber(null);
        this.screen.takes.value = this.nothing;
        this.boxes = this.makeBoxes();
        this.dots = this.makeDots();
        /** Colours of the background, from the bottom up. @type {Color[]} */
        this.backdrop = [];
    }

    /**
     * @param {string} vertexShader
     * @param {string} fragmentShader
     * @param {Record<string, string>} defines
     * @param {boolean} transparent
     */
    material(vertexShader, fragmentShader, defines, transparent) {
        return new ShaderMaterial({
            vertexShader,
            fragmentShader,
            defines,
            glslVersion: GLSL3,
            uniforms: this.shared,
            side: DoubleSide,
            transparent,
            depthWrite: !transparent,
            blending: transparent ? NormalBlending : NoBlending,
        });
    }

    makeBoxes() {
        const cube = new BoxGeometry(2, 2, 2);
        const geometry = new InstancedBufferGeometry();
        geometry.setAttribute('position', cube.getAttribute('position'));
        geometry.setAttribute('normal', cube.getAttribute('normal'));
        geometry.setIndex(cube.index);
        geometry.setAttribute('placement', new InstancedBufferAttribute(new Uint32Array(8192), 1));
        geometry.instanceCount = 0;
        const mesh = new Mesh(geometry, this.materials.box);
        mesh.frustumCulled = false;
        return mesh;
    }

    makeDots() {
        const geometry = new BufferGeometry();
        geometry.setAttribute('placement', new BufferAttribute(new Uint32Array(8192), 1));
        geometry.setDrawRange(0, 0);
        const dots = new Points(geometry, this.materials.dot);
        dots.frustumCulled = false;
        return dots;
    }

    /** The cut faces; none until they come. */
    makeCaps() {
        const mesh = new Mesh(new BufferGeometry(), this.material(cutVertex, cutFragment, {}, false));
        mesh.frustumCulled = false;
        mesh.visible = false;
        return mesh;
    }

    /** @param {number[][]} cuts normal and distance of each plane, as the canvas counts */
    setCuts(cuts) {
        this.cuts = cuts;
        cuts.slice(0, MOST_CUTS).forEach((cut, at) => this.shared.cuts.value[at].fromArray(cut));
        this.shared.cutCount.value = Math.min(MOST_CUTS, cuts.length);
        if (cuts.length === 0 || 'SECTION' in this.materials.solid.defines) return;
        // From here on planes are looked at: shaders that do cost more, also where there is none.
        for (const material of Object.values(this.materials)) {
            material.defines.SECTION = '';
            material.needsUpdate = true;
        }
    }

    /**
     * @param {Float32Array} places nine for each triangle
     * @param {Uint32Array} numbers the object of each triangle
     * @param {Uint32Array} colours red, green and blue of each triangle in one number
     */
    setCaps(places, numbers, colours) {
        const count = numbers.length;
        const objects = new Float32Array(count * 3);
        const shades = new Uint8Array(count * 9);
        for (let at = 0; at < count * 3; at++) {
            const triangle = (at / 3) | 0;
            objects[at] = numbers[triangle];
            const colour = colours[triangle];
            shades.set([(colour >> 16) & 255, (colour >> 8) & 255, colour & 255], at * 3);
        }
        this.caps.geometry.dispose();
        this.caps.geometry = new BufferGeometry();
        this.caps.geometry.setAttribute('position', new BufferAttribute(places, 3));
        this.caps.geometry.setAttribute('object', new BufferAttribute(objects, 1));
        this.caps.geometry.setAttribute('colour', new BufferAttribute(shades, 3, true));
        this.caps.visible = count > 0;
    }

    /** @param {boolean} dark */
    setTheme(dark) {
        const set = (/** @type {any} */ uniform, /** @type {string} */ hex) => uniform.value.set(hex);
        const [bottom, middle, top] = (dark ? ['#171d1a', '#2c3830', '#1a211d'] : ['#e7dfca', '#f8f5ec', '#efe9da']).map(
            (hex) => new Color(hex),
        );
        this.backdrop = Array.from({ length: BANDS }, (_, band) => {
            const at = (band + 0.5) / BANDS;
            return at > 0.45 ? middle.clone().lerp(top, (at - 0.45) / 0.55) : bottom.clone().lerp(middle, at / 0.45);
        });
        set(this.shared.ghostInk, dark ? '#c9d6cb' : '#2b3a32');
        set(this.shared.boxFill, dark ? '#3a473f' : '#fbf7ec');
        set(this.screen.ink, dark ? '#0c110e' : '#26332b');
        set(this.screen.grape, dark ? '#e39ad8' : '#b3589f');
        set(this.screen.hoverInk, dark ? '#f2e6c8' : '#1f2a24');
    }

    /** @param {Record<string, Surface>} materials by number */
    setMaterials(materials) {
        const numbers = Object.keys(materials).map(Number);
        const width = 1024;
        const rows = Math.ceil(((Math.max(0, ...numbers) + 1) * TEXELS) / width);
        const data = new Float32Array(width * rows * 4);
        data.set([0.55, 0.55, 0.55, 1, -1, 0, 0, 0, -1]);
        for (const number of numbers) {
            const [colour, , , cutoff, glow, unlit, , tilt] = materials[number];
            // The shaders light in a space of gamma 2, which needs only a square and a root.
            const linear = [0, 8, 16].map((shift) => (((colour >>> shift) & 255) / 255) ** 2);
            // A light's colour is one number of 24 bits, which a float holds.
            data.set([...linear, (colour >>> 24) / 255, -1, cutoff, glow, unlit, -1, tilt], number * FLOATS);
            this.surfaces.set(number, materials[number]);
        }
        this.shared.materials.value = texture(data, width, rows, FloatType, RGBAFormat);
    }

    /** @param {Map<number, ImageBitmap>} pictures by texture number */
    setPictures(pictures) {
        if (pictures.size === 0) return;
        const data = this.shared.materials.value.image.data;
        for (const [uniform, member, entry] of /** @type {const} */ ([
            ['pictures', 1, 4],
            ['reliefs', 6, 8],
        ])) {
            const numbers = [...new Set([...this.surfaces.values()].map((surface) => surface[member]))].filter((number) =>
                pictures.has(number),
            );
            if (numbers.length === 0) continue;
            this.shared[uniform].value = stackedPictures(
                numbers.map((number) => pictures.get(number)),
                uniform === 'pictures',
            );
            for (const [number, surface] of this.surfaces) data[number * FLOATS + entry] = numbers.indexOf(surface[member]);
        }
        this.shared.materials.value.needsUpdate = true;
        if ([...this.surfaces.values()].some((surface) => pictures.has(surface[6] ?? 0))) this.tilt();
    }

    /** Bytes of pictures on the graphics card, with the smaller ones that it makes of them. */
    get bytes() {
        const { pictures, reliefs } = this.shared;
        return [pictures, reliefs].reduce((sum, { value }) => sum + /** @type {any} */ (value).image.data.byteLength * (4 / 3), 0);
    }

    /** From here on normal maps are looked at: shaders that do cost more, also where there is none. */
    tilt() {
        for (const material of [this.materials.solid, this.materials.seeThrough]) {
            material.defines.RELIEF = '';
            material.needsUpdate = true;
        }
    }

    /** @param {Uint8Array} states rung by object number, plus 16 when guarded */
    setStates(states) {
        this.states = states;
        this.shared.states.value.dispose();
        this.shared.states.value = byNumber(states, (state) => state & 15);
    }

    /** @param {Uint8Array | null} colours four bytes by object number, the last one 255 where it is tinted; null for none */
    setTint(colours) {
        this.shared.tints.value.dispose();
        this.shared.tints.value = fourByNumber(colours);
    }

    /** @param {Uint8Array | null} lines red, green, blue and line style by object number; null where none has any */
    setLines(lines) {
        this.lines = lines ?? new Uint8Array(0);
        this.shared.lines.value.dispose();
        this.shared.lines.value = fourByNumber(lines);
    }

    /** @param {Uint32Array | null} taken what a click on each object takes, by object number; null for itself */
    setTakes(taken) {
        if (this.screen.takes.value !== this.nothing) this.screen.takes.value.dispose();
        this.screen.takes.value = taken ? fourByNumber(new Uint8Array(taken.buffer, taken.byteOffset, taken.byteLength)) : this.nothing;
    }

    /** @param {string} mode "own" as layers and tags say, "over" all shading, "none", or "only" edges */
    setEdges(mode) {
        this.edges = mode;
        this.shared.paper.value = mode === 'only' ? 1 : 0;
    }

    /** Whether an object's edges are drawn over its faces. @param {number} object */
    hasLines(object) {
        if (this.edges !== 'own') return this.edges !== 'none';
        return this.lines.length > 0 && this.lines[object * 4 + 3] > 0;
    }

    /** @param {Uint8Array} pick 1 by object number when picked */
    setPick(pick) {
        const uniform = this.screen.picks;
        uniform.value.dispose();
        uniform.value = byNumber(pick, (value) => value);
        this.screen.anyPick.value = pick.includes(1) ? 1 : 0;
    }
}
