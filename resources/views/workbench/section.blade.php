@use ('App\View\Icon')
<form class="section-panel" id="section-panel" aria-label="Section" hidden>
    <p class="section-head">
        <strong>Section</strong>
        <button
            type="button"
            class="button small"
            data-section="turn"
            aria-pressed="false"
            title="Cuts, or not; what is set stays (Shift+T)"
        >
            Off
        </button>
        <button type="button" class="icon-button" data-section="close" title="Close; the section stays (Esc)" aria-label="Close">
            {!! Icon::svg('x') !!}
        </button>
    </p>
    <div class="section-sides" hidden>
        @foreach (['x', 'y', 'z'] as $axis => $name)
            <label
                ><span>{{ $name }}</span>
                <input type="number" step="any" data-side="{{ $axis }}" aria-label="Least {{ $name }} of the box, metres" />
                <input type="number" step="any" data-side="{{ $axis + 3 }}" aria-label="Greatest {{ $name }} of the box, metres"
            /></label>
        @endforeach
    </div>
    <p class="section-acts">
        <button type="button" class="button small" data-section="around" title="A box around the pick">Around pick</button>
        <input
            type="number"
            name="margin"
            value="0.5"
            step="any"
            aria-label="Room around the pick, metres"
            title="Room around the pick, metres"
        />
        <button type="button" class="button small" data-section="all" title="A box around everything that is shown">All</button>
        <button type="button" class="icon-button" data-section="no-box" title="No box" aria-label="No box">
            {!! Icon::svg('trash-2') !!}
        </button>
    </p>
    <p class="section-acts">
        <select name="level" aria-label="Level to cut a plan above" hidden></select>
        <input
            type="number"
            name="height"
            value="1.2"
            step="any"
            aria-label="Height of the plan cut, metres"
            title="Height of the plan cut, metres"
        />
        <button type="button" class="button small" data-section="plan" title="Cut away everything above this height">Plan cut</button>
    </p>
    <div class="section-planes"></div>
    <p class="section-acts">
        <span>Plane</span>
        @foreach (['x', 'y', 'z'] as $name)
            <button
                type="button"
                class="button small"
                data-section="add"
                data-across="{{ $name }}"
                title="A plane across {{ $name }}"
                aria-label="A plane across {{ $name }}"
            >
                {{ $name }}
            </button>
        @endforeach
        <button type="button" class="button small" data-section="add" data-across="camera" title="A plane that faces the camera">
            Facing
        </button>
    </p>
</form>
<template id="section-plane">
    <p class="section-acts">
        <label
            ><span></span> <input type="number" step="any" aria-label="Distance of the plane, metres"
        /></label>
        <button type="button" class="icon-button" data-section="flip" data-at title="Cut the other side" aria-label="Cut the other side">
            {!! Icon::svg('flip-horizontal-2') !!}
        </button>
        <button type="button" class="icon-button" data-section="remove" data-at title="Remove the plane" aria-label="Remove the plane">
            {!! Icon::svg('trash-2') !!}
        </button>
    </p>
</template>
