@use ('VineShelf\Naming\Renaming')
@php
    $path = static fn (array $names): string => implode(' / ', $names);
    $address = $line === null
        ? route('sorting-rules.store', $bench->project)
        : route('sorting-rules.update', [$bench->project, $line->number]);
@endphp
<form
    class="ask sorting-line"
    data-submit="{{ $line === null ? 'post' : 'patch' }}"
    data-address="{{ $address }}"
>
    <h2 id="dialog-title">{{ $line === null ? 'Add a sorting rule' : 'Change the sorting rule' }}</h2>
    <label for="line-rule">Objects that fit</label>
    <input
        id="line-rule"
        name="rule"
        class="mono"
        maxlength="4000"
        value="{{ $written->rule }}"
        placeholder="class:Window or material=glass"
        spellcheck="false"
        autocomplete="off"
        autofocus
    />
    <label class="tick"
        ><input type="checkbox" name="only" value="1" @checked ($written->only) /> these alone, not what picked groups hold</label
    >
    <label for="line-layer">go under the layer</label>
    <input
        id="line-layer"
        name="layer"
        list="layer-paths"
        maxlength="4000"
        value="{{ $path($written->layer) }}"
        placeholder="Stands / Seats"
        autocomplete="off"
    />
    <datalist id="layer-paths">
        @foreach ($bench->layers()->walk() as [$layer])
            <option value="{{ App\SortingRules\Paths::layer($bench, $layer->number) }}"></option>
        @endforeach
    </datalist>
    <label for="line-tags">get the tags</label>
    <input
        id="line-tags"
        name="tags"
        maxlength="4000"
        value="{{ implode('; ', array_map($path, $written->tags)) }}"
        placeholder="Phases / First; Wet"
        autocomplete="off"
    />
    <label for="line-name">are called</label>
    <input
        id="line-name"
        name="name"
        maxlength="500"
        value="{{ $written->name }}"
        placeholder="{layer} {number}"
        autocomplete="off"
        aria-describedby="line-places"
    />
    <p class="hint" id="line-places">
        {{ implode(' ', Renaming::PLACES) }} stand for what they say. What is left empty stays as it is; layers, folders and tags that
        are missing are made.
    </p>
    <label class="tick"
        ><input type="checkbox" name="goes_on" value="1" @checked ($written->goesOn) /> rules below may take them as well</label
    >
    <label for="line-note">Note</label>
    <input id="line-note" name="note" maxlength="1000" value="{{ $written->note }}" autocomplete="off" />
    <p class="error" role="alert" hidden></p>
    <p class="acts">
        <button class="button primary">{{ $line === null ? 'Add' : 'Keep' }}</button>
        <button type="button" class="button" data-close>Cancel</button>
    </p>
</form>
