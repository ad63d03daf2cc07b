<form class="ask file-under" data-submit="post" data-address="{{ route('file', $bench->project) }}" data-or-new="/file/along">
    <h2 id="dialog-title">File {{ number_format($count) }} under</h2>
    <input type="hidden" name="keys" value="{{ $keys }}" />
    <input
        type="search"
        name="name"
        data-narrow
        placeholder="Part of a layer name, or a new one: Plant / Pumps"
        aria-label="Find a layer, or name a new one"
        maxlength="400"
        autocomplete="off"
        autofocus
    />
    <div class="choices" role="radiogroup" aria-label="Layer">
        @foreach ($bench->layers()->walk() as [$layer, $depth])
            <label data-text="{{ mb_strtolower(App\SortingRules\Paths::layer($bench, $layer->number)) }}" style="--level: {{ $depth }}"
                ><input type="radio" name="layer" value="{{ $layer->number }}" @checked ($loop->first) /><span
                    class="swatch"
                    style="--swatch: {{ $layer->colour }}"
                ></span>
                <span class="label" title="{{ $bench->layers()->path($layer->number) }}">{{ $layer->name }}</span></label
            >
        @endforeach
    </div>
    <p class="or-new" data-new hidden>There is no such layer: it will be made.</p>
    <label class="tick"><input type="checkbox" name="with_held" value="1" checked /> What the picked groups hold goes along</label>
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button pick">File</button> <button type="button" class="button" data-close>Leave it</button></p>
</form>
