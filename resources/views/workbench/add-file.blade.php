@use ('VineShelf\Layers\SortBy')
@php
    $project = $bench->project;
    $counted = fn (int $count, string $what) => number_format($count) . ' ' . $what . ($count === 1 ? '' : 's');
    $shown = [];
    foreach ([
        [$hide, 'hides it until somebody reviews what is new'],
        [$show, 'shows it in full'],
        [$views - $hide - $show, 'shows it as the desk does'],
    ] as [$count, $does]) {
        if ($count > 0) {
            $those = $count === $views ? ($count === 1 ? 'it' : 'they') : $count;
            $shown[] = "$those " . ($count === 1 ? $does : preg_replace('~^(\w+)s~', '$1', $does));
        }
    }
@endphp
<form class="ask add-file" data-add-file data-address="{{ route('imports.store') }}">
    <h2 id="dialog-title">{{ $name }}</h2>
    <fieldset>
        <legend>Goes</legend>
        <label class="tick"
            ><input type="radio" name="project" value="{{ $project->key }}" checked /> into {{ $project->name }}, as a new source</label
        >
        <label class="tick"><input type="radio" name="project" value="" /> into a new project</label>
    </fieldset>
    <p class="pair-line">
        <label for="add-sort">Make layers from</label>
        <select id="add-sort" name="sort_by">
            @foreach (SortBy::cases() as $by)
                <option value="{{ $by->value }}">{{ $by->label() }}</option>
            @endforeach
        </select>
        <input
            name="property"
            value="layer"
            maxlength="100"
            aria-label="Property that layers are made from"
            data-shown-for="property"
            hidden
        />
    </p>
    <p class="hint into-this">Layers that are here already are used again, also those that were renamed or moved since they came.</p>
    <p class="pair-line">
        <label for="add-tags">Make tags from</label>
        <input id="add-tags" name="tags_from" placeholder="no property" maxlength="100" />
        <label for="add-apart">values apart by</label> <input id="add-apart" name="separator" value=";" maxlength="10" size="2" />
    </p>
    <p class="pair-line into-this">
        <label for="add-landing">What it leaves unfiled lands in</label>
        <select id="add-landing" name="landing">
            @foreach ($bench->layers()->walk() as [$layer])
                <option value="{{ $layer->number }}" @selected ($layer->number === $landing->layer->number)>
                    {{ $bench->layers()->path($layer->number) }}
                </option>
            @endforeach
        </select>
    </p>
    <p class="hint into-this">
        @if ($views === 0)
            No view keeps rungs yet: nothing of it is hidden anywhere.
        @else
            {{ $counted($views, 'view') }} {{ $views === 1 ? 'has' : 'have' }} not seen it:
            {{ implode(', ', $shown) }}.
        @endif
        @if ($project->sorts_what_comes)
            The sorting rules of the project run when it is in.
        @endif
    </p>
    <p class="error" role="alert" hidden></p>
    <p class="acts">
        <button class="button primary">Take it in</button> <button type="button" class="button" data-close>Cancel</button>
    </p>
</form>
