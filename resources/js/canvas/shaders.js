/**
 * Shared by all drawing: how a placement, a mesh and a material are read from their textures, which are 1024 wide or have one row: where a
 * processor draws, a division for each value would cost more than reading it.
 */
const READING = /* glsl */ `
precision highp float;
precision highp int;
precision highp sampler2D;
precision highp usampler2D;
uniform sampler2D places;
uniform sampler2D meshes;
uniform sampler2D materials;
uniform sampler2D states;
uniform sampler2D tints;
uniform vec2 jitter;
vec4 cell(sampler2D data, int index) { return texelFetch(data, ivec2(index & 1023, index >> 10), 0); }
vec3 number(float object) { int n = int(object + 0.5); return vec3(n & 255, (n >> 8) & 255, (n >> 16) & 255) / 255.0; }
vec4 tintOf(float object) { return cell(tints, int(object + 0.5)); }
float rungOf(float object) { return floor(cell(states, int(object + 0.5)).r * 255.0 + 0.5); }
`;

export const partVertex = /* glsl */ `
${READING}
#if !defined(GL_ANGLE_multi_draw)
#define gl_DrawID _gl_DrawID
uniform int _gl_DrawID;
#endif
uniform usampler2D entries;
in vec4 color;
out vec3 vNormal;
out vec3 vView;
out vec2 vUv;
out vec4 vColour;
flat out vec3 vNumber;
flat out vec4 vSurface;
#if defined(RELIEF)
flat out vec2 vRelief;
#endif
#if defined(LINE)
uniform sampler2D lines;
uniform vec2 screenSize;
flat out vec4 vLine;
flat out vec2 vFrom;
#endif
void main() {
    uvec2 entry = texelFetch(entries, ivec2(gl_DrawID & 1023, gl_DrawID >> 10), 0).rg;
    int place = int(entry.x) * 4;
    vec4 r0 = cell(places, place), r1 = cell(places, place + 1), r2 = cell(places, place + 2), about = cell(places, place + 3);
    vec4 local = vec4(position.xyz * cell(meshes, int(about.y + 0.5) * 3).xyz, 1.0);
    vec3 world = vec3(dot(r0, local), dot(r1, local), dot(r2, local));
    // Normals go by the cofactors of the transform, so that mirrored and unevenly scaled parts are lit rightly.
    vec3 x = vec3(r0.x, r1.x, r2.x), y = vec3(r0.y, r1.y, r2.y), z = vec3(r0.z, r1.z, r2.z);
    vNormal = cross(y, z) * normal.x + cross(z, x) * normal.y + cross(x, y) * normal.z;
    vView = world - cameraPosition;
    vUv = uv;
    vNumber = number(about.x);
    vec4 own = cell(materials, int(entry.y) * 3);
    vec4 more = cell(materials, int(entry.y) * 3 + 1);
    float full = step(4.5, rungOf(about.x));
    vec4 tint = tintOf(about.x);
    vColour = mix(own * mix(vec4(1.0), color, full), vec4(tint.rgb * tint.rgb, own.a), tint.a);
    float whole = full * (1.0 - tint.a);
    vSurface = vec4(mix(-1.0, more.x, whole), more.y * (1.0 - tint.a), more.z * whole, more.w * whole);
#if defined(RELIEF)
    // Otherwise it does not matter which side of a mirrored part is its front.
    if (dot(x, cross(y, z)) < 0.0) vNormal = -vNormal;
    vRelief = full > 0.5 ? cell(materials, int(entry.y) * 3 + 2).xy : vec2(-1.0);
#endif
    gl_Position = projectionMatrix * viewMatrix * vec4(world, 1.0);
#if defined(LINE)
    vLine = cell(lines, int(about.x + 0.5));
    vFrom = (gl_Position.xy / gl_Position.w * 0.5 + 0.5) * screenSize;
    // Edges lie in the faces that they belong to: a hair nearer, they are seen.
    gl_Position.z -= 0.0004 * gl_Position.w;
#endif
    gl_Position.xy += jitter * gl_Position.w;
    gl_PointSize = 3.0;
}
`;

/** What a section cuts away is not drawn. */
const CUTTING = /* glsl */ `
#if defined(SECTION)
uniform vec4 cuts[12];
uniform int cutCount;
void cut(vec3 world) {
    for (int at = 0; at < 12; at++) if (at < cutCount && dot(cuts[at].xyz, world) > cuts[at].w) discard;
}
#endif
`;

export const partFragment = /* glsl */ `
precision highp float;
${CUTTING}
precision highp sampler2DArray;
uniform sampler2DArray pictures;
uniform vec3 skyLight;
uniform vec3 groundLight;
uniform vec3 sunLight;
uniform vec3 sunWay;
uniform vec3 ghostInk;
uniform vec3 boxFill;
uniform float paper;
in vec3 vNormal;
in vec3 vView;
in vec2 vUv;
in vec4 vColour;
flat in vec3 vNumber;
flat in vec4 vSurface;
layout(location = 0) out vec4 outColour;
layout(location = 1) out vec4 outNumber;
layout(location = 2) out vec4 outGhost;
#if defined(LINE)
flat in vec4 vLine;
flat in vec2 vFrom;
/** Whether a pattern is drawn at a distance along its line, in pixels. */
bool drawnAt(float pattern, float along) {
    if (pattern < 1.5) return true;
    if (pattern < 2.5) return mod(along, 9.0) < 6.0;
    if (pattern < 3.5) return mod(along, 4.0) < 1.5;
    float at = mod(along, 13.5);
    return at < 7.0 || (at > 9.5 && at < 11.0);
}
#endif
#if defined(RELIEF)
uniform sampler2DArray reliefs;
flat in vec2 vRelief;
/** A normal that a normal map tilts: the directions in which its coordinates grow are those in which they change on the screen. */
vec3 tilted(vec3 facing, float side) {
    vec3 right = dFdx(vView), up = dFdy(vView);
    vec2 uvRight = dFdx(vUv), uvUp = dFdy(vUv);
    vec3 a = cross(up, facing), b = cross(facing, right);
    vec3 u = a * uvRight.x + b * uvUp.x, v = a * uvRight.y + b * uvUp.y;
    float longest = max(dot(u, u), dot(v, v));
    vec3 tilt = texture(reliefs, vec3(vUv, vRelief.x)).xyz * 2.0 - 1.0;
    vec2 along = tilt.xy * vRelief.y * side;
    // A map's green grows upwards, its coordinates downwards.
    return longest > 0.0 ? normalize((u * along.x - v * along.y) * inversesqrt(longest) + facing * tilt.z) : facing;
}
#endif
void main() {
#if defined(SECTION)
    cut(vView + cameraPosition);
#endif
    vec3 facing = dot(vNormal, vNormal) > 1e-12 ? normalize(vNormal) : normalize(cross(dFdx(vView), dFdy(vView)));
    vec3 way = isOrthographic ? -vec3(viewMatrix[0][2], viewMatrix[1][2], viewMatrix[2][2]) : normalize(vView);
    float side = dot(facing, way) > 0.0 ? -1.0 : 1.0;
    facing *= side;
#if defined(GHOST)
    float rim = 1.0 - abs(dot(facing, way));
    outColour = vec4(ghostInk, 0.02 + 0.07 * rim * rim);
    outNumber = vec4(0.0);
    outGhost = vec4(vNumber, 1.0);
#elif defined(LINE)
    float pattern = floor(vLine.a * 255.0 + 0.5);
    if (pattern > 0.5 && !drawnAt(pattern, distance(gl_FragCoord.xy, vFrom))) discard;
    outColour = pattern > 0.5 ? vec4(vLine.rgb, 1.0) : vec4(ghostInk, 0.38);
    outNumber = vec4(0.0);
    outGhost = vec4(0.0);
#else
    vec4 colour = vColour;
    if (vSurface.x > -0.5) colour *= texture(pictures, vec3(vUv, vSurface.x));
#if defined(MASKED)
    if (colour.a < vSurface.y) discard;
#endif
#if defined(UNLIT)
    vec3 lit = colour.rgb;
#else
#if defined(RELIEF)
    if (vRelief.x > -0.5) facing = tilted(facing, side);
#endif
    vec3 light = mix(groundLight, skyLight, facing.z * 0.5 + 0.5) + sunLight * max(0.0, dot(facing, sunWay));
    light += vec3(0.10) * max(0.0, -dot(facing, way));
    vec3 lit = colour.rgb * mix(light, vec3(1.0), vSurface.w);
    if (vSurface.z > 0.5) lit += pow(mod(floor(vSurface.z / vec3(1.0, 256.0, 65536.0)), 256.0) / 255.0, vec3(2.0));
    // What is brighter than most is pressed together, so that white keeps its form.
    vec3 over = max(lit - 0.6, 0.0) * (1.0 - vSurface.w);
    lit = lit - over + over / (1.0 + over / 0.7);
#endif
    lit = mix(lit, boxFill * boxFill, paper);
#if defined(SEE_THROUGH)
    float rim = 1.0 - abs(dot(facing, way));
    outColour = vec4(sqrt(lit), min(1.0, colour.a * (0.75 + 0.9 * rim * rim)));
#else
    outColour = vec4(sqrt(lit), 1.0);
#endif
#if defined(SEE_THROUGH)
    // Glass lies over what is solid: it is kept apart, marked by the highest bit, so that a pick behind it still shows.
    outNumber = vec4(0.0);
    outGhost = vec4(vNumber.rg, vNumber.b + 128.0 / 255.0, 1.0);
#else
    outNumber = vec4(vNumber, 1.0);
    outGhost = vec4(0.0);
#endif
#endif
}
`;

/** Boxes: a unit cube per placement, with its edges drawn darker. */
export const boxVertex = /* glsl */ `
${READING}
in uint placement;
out vec3 vCorner;
out vec3 vNormal;
out vec3 vView;
flat out vec3 vNumber;
flat out vec3 vColour;
flat out float vOutlined;
void main() {
    int place = int(placement) * 4;
    vec4 r0 = cell(places, place), r1 = cell(places, place + 1), r2 = cell(places, place + 2), about = cell(places, place + 3);
    int mesh = int(about.y + 0.5) * 3;
    vec4 half4 = cell(meshes, mesh + 1);
    vec4 local = vec4(position * half4.xyz, 1.0);
    vec3 world = vec3(dot(r0, local), dot(r1, local), dot(r2, local));
    vec3 x = vec3(r0.x, r1.x, r2.x), y = vec3(r0.y, r1.y, r2.y), z = vec3(r0.z, r1.z, r2.z);
    vNormal = cross(y, z) * normal.x + cross(z, x) * normal.y + cross(x, y) * normal.z;
    vView = world - cameraPosition;
    vCorner = position;
    vNumber = number(about.x);
    vOutlined = 1.0 - step(1.5, rungOf(about.x));
    vec4 tint = tintOf(about.x);
    vColour = mix(cell(meshes, mesh + 2).rgb, tint.rgb, tint.a);
    vColour = vColour * vColour;
    gl_Position = projectionMatrix * viewMatrix * vec4(world, 1.0);
    gl_Position.xy += jitter * gl_Position.w;
}
`;

export const boxFragment = /* glsl */ `
precision highp float;
${CUTTING}
uniform vec3 skyLight;
uniform vec3 groundLight;
uniform vec3 sunLight;
uniform vec3 sunWay;
uniform vec3 ghostInk;
uniform vec3 boxFill;
in vec3 vCorner;
in vec3 vNormal;
in vec3 vView;
flat in vec3 vNumber;
flat in vec3 vColour;
flat in float vOutlined;
layout(location = 0) out vec4 outColour;
layout(location = 1) out vec4 outNumber;
layout(location = 2) out vec4 outGhost;
void main() {
#if defined(SECTION)
    cut(vView + cameraPosition);
#endif
    vec3 facing = dot(vNormal, vNormal) > 1e-20 ? normalize(vNormal) : vec3(0.0, 0.0, 1.0);
    if (dot(facing, isOrthographic ? -vec3(viewMatrix[0][2], viewMatrix[1][2], viewMatrix[2][2]) : vView) > 0.0) facing = -facing;
    vec3 light = mix(groundLight, skyLight, facing.z * 0.5 + 0.5) + sunLight * max(0.0, dot(facing, sunWay));
    vec3 lit = mix(vColour, mix(vColour, boxFill * boxFill, 0.72), vOutlined) * light;
    vec3 near = 1.0 - abs(vCorner);
    vec3 wide = fwidth(vCorner) * 1.1 + 1e-6;
    vec3 line = 1.0 - smoothstep(wide * 0.4, wide, near);
    float edge = max(min(line.x, line.y), max(min(line.y, line.z), min(line.z, line.x)));
    // A box of a few pixels is all edges: it has none.
    edge *= 1.0 - smoothstep(0.15, 0.4, max(wide.x, max(wide.y, wide.z)));
    outColour = vec4(mix(sqrt(lit), ghostInk, edge * mix(0.25, 0.8, vOutlined)), 1.0);
    outNumber = vec4(vNumber, 1.0);
    outGhost = vec4(0.0);
}
`;

/** Dots: what is no larger than a few pixels, as large as its box looks. */
export const dotVertex = /* glsl */ `
${READING}
in uint placement;
uniform vec2 screenSize;
uniform vec3 skyLight;
uniform vec3 groundLight;
uniform vec3 sunLight;
uniform vec3 sunWay;
uniform vec3 boxFill;
out vec3 vView;
flat out vec3 vNumber;
flat out vec3 vColour;
void main() {
    int place = int(placement) * 4;
    vec4 r0 = cell(places, place), r1 = cell(places, place + 1), r2 = cell(places, place + 2), about = cell(places, place + 3);
    int mesh = int(about.y + 0.5) * 3;
    vec3 halves = cell(meshes, mesh + 1).xyz;
    vec3 world = vec3(r0.w, r1.w, r2.w);
    vec3 reach = vec3(dot(abs(r0.xyz), halves), dot(abs(r1.xyz), halves), dot(abs(r2.xyz), halves));
    vView = world - cameraPosition;
    vNumber = number(about.x);
    vec4 tint = tintOf(about.x);
    vec3 colour = mix(cell(meshes, mesh + 2).rgb, tint.rgb, tint.a);
    colour = mix(colour * colour, boxFill * boxFill, 0.72 * (1.0 - step(1.5, rungOf(about.x))));
    // As bright as a box would be on the whole that is seen from above.
    vColour = sqrt(colour * (mix(groundLight, skyLight, 0.8) + sunLight * max(0.0, sunWay.z) * 0.6));
    gl_Position = projectionMatrix * viewMatrix * vec4(world, 1.0);
    gl_PointSize = clamp((reach.x + reach.y + reach.z) * 0.66 * projectionMatrix[1][1] * 0.5 * screenSize.y / gl_Position.w, 1.0, 24.0);
    gl_Position.xy += jitter * gl_Position.w;
}
`;

export const dotFragment = /* glsl */ `
precision highp float;
${CUTTING}
in vec3 vView;
flat in vec3 vNumber;
flat in vec3 vColour;
layout(location = 0) out vec4 outColour;
layout(location = 1) out vec4 outNumber;
layout(location = 2) out vec4 outGhost;
void main() {
#if defined(SECTION)
    cut(vView + cameraPosition);
#endif
    outColour = vec4(vColour, 1.0);
    outNumber = vec4(vNumber, 1.0);
    outGhost = vec4(0.0);
}
`;

/** Cut faces: each triangle in one colour, and of one object. */
export const cutVertex = /* glsl */ `
precision highp float;
precision highp int;
uniform vec2 jitter;
in float object;
in vec3 colour;
flat out vec3 vNumber;
flat out vec3 vColour;
void main() {
    int n = int(object + 0.5);
    vNumber = vec3(n & 255, (n >> 8) & 255, (n >> 16) & 255) / 255.0;
    vColour = colour;
    gl_Position = projectionMatrix * viewMatrix * vec4(position, 1.0);
    gl_Position.xy += jitter * gl_Position.w;
}
`;

export const cutFragment = /* glsl */ `
precision highp float;
flat in vec3 vNumber;
flat in vec3 vColour;
layout(location = 0) out vec4 outColour;
layout(location = 1) out vec4 outNumber;
layout(location = 2) out vec4 outGhost;
void main() {
    outColour = vec4(vColour, 1.0);
    outNumber = vec4(vNumber, 1.0);
    outGhost = vec4(0.0);
}
`;

export const screenVertex = /* glsl */ `
out vec2 vAt;
void main() { vAt = position.xy * 0.5 + 0.5; gl_Position = vec4(position.xy, 0.0, 1.0); }
`;

/** Adds one finished pass to the mean of those before it. */
export const meanFragment = /* glsl */ `
precision highp float;
uniform sampler2D colours;
uniform float share;
in vec2 vAt;
layout(location = 0) out vec4 outColour;
void main() { outColour = vec4(texture(colours, vAt).rgb, share); }
`;

/**
 * Puts the picture on the screen: drawing, the pick's colour, and outlines of the pick and of what the pointer is over. What is not
 * needed is not compiled: where a processor draws, it works out both sides of every condition.
 */
export const screenFragment = /* glsl */ `
precision highp float;
precision highp sampler2D;
uniform sampler2D colours;
uniform sampler2D numbers;
uniform sampler2D ghosts;
uniform sampler2D picks;
uniform sampler2D takes;
uniform vec3 grape;
uniform vec3 hoverInk;
uniform float hovered;
uniform float inked;
uniform vec3 ink;
uniform vec2 size;
in vec2 vAt;
layout(location = 0) out vec4 outColour;
float decoded(vec3 bytes) { return dot(floor(bytes * 255.0 + 0.5), vec3(1.0, 256.0, 65536.0)); }
ivec2 cellOf(float n) { return ivec2(int(n + 0.5) & 1023, int(n + 0.5) >> 10); }
float picked(float n) { return n > 0.5 ? step(0.5, texelFetch(picks, cellOf(n), 0).r * 255.0) : 0.0; }
/** What a click would pick: glass before what is solid, what is solid before a ghost; and whether that or what is solid is picked. */
vec2 seenAt(ivec2 place) {
    ivec2 at = clamp(place, ivec2(0), ivec2(size) - 1);
    float solid = decoded(texelFetch(numbers, at, 0).rgb);
    float over = decoded(texelFetch(ghosts, at, 0).rgb);
    float here = over >= 8388608.0 ? over - 8388608.0 : solid > 0.5 ? solid : over;
#if defined(PICKED)
    return vec2(here, max(picked(solid), picked(here)));
#else
    return vec2(here, 0.0);
#endif
}
/** Whether the pointer is over it, or over what a click there takes with it. */
bool isHovered(float n) {
#if defined(TAKEN)
    n = n > 0.5 ? decoded(texelFetch(takes, cellOf(n), 0).rgb) : n;
#endif
    return abs(n - hovered) < 0.5;
}
void main() {
    ivec2 at = ivec2(vAt * size);
    vec3 colour = texelFetch(colours, at, 0).rgb;
#if defined(INKED)
    // A thin line where one object ends and another begins, as in a drawing.
    vec3 own = texelFetch(numbers, at, 0).rgb;
    vec3 right = texelFetch(numbers, min(at + ivec2(1, 0), ivec2(size) - 1), 0).rgb;
    vec3 below = texelFetch(numbers, max(at - ivec2(0, 1), ivec2(0)), 0).rgb;
    if (any(notEqual(own, right)) || any(notEqual(own, below))) colour = mix(colour, ink, inked);
#endif
#if defined(PICKED) || defined(HOVERED)
    vec2 here = seenAt(at);
#if !defined(MOVING)
    vec2 beside[4] = vec2[](seenAt(at + ivec2(1, 0)), seenAt(at - ivec2(1, 0)), seenAt(at + ivec2(0, 1)), seenAt(at - ivec2(0, 1)));
#endif
#if defined(PICKED)
    colour = mix(colour, grape * (0.42 + 0.8 * dot(colour, vec3(0.3, 0.5, 0.2))), here.y * 0.84);
#if !defined(MOVING)
    float pickEdge = (1.0 - here.y) * max(max(beside[0].y, beside[1].y), max(beside[2].y, beside[3].y));
    colour = mix(colour, grape * 0.72, pickEdge);
#endif
#endif
#if defined(HOVERED)
    bool isOver = isHovered(here.x);
    bool isEdge = false;
    for (int side = 0; side < 4; side++) isEdge = isEdge || isOver != isHovered(beside[side].x);
    if (isEdge) colour = hoverInk;
#endif
#endif
    outColour = vec4(colour, 1.0);
}
`;
