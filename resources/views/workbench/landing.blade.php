<form class="ask file-under" data-submit="post" data-address="{{ route('landing', $bench->project) }}">
    <h2 id="dialog-title">New objects land in</h2>
    <input type="search" data-narrow placeholder="Part of a layer name" aria-label="Find a layer" autofocus />
    <div class="choices" role="radiogroup" aria-label="Layer">
        @foreach ($bench->layers()->walk() as [$layer, $depth])
            <label data-text="{{ mb_strtolower($layer->name) }}" style="--level: {{ $depth }}"
                ><input type="radio" name="layer" value="{{ $layer->number }}" @checked ($layer->number === $landing->layer->number) /><span
                    class="swatch"
                    style="--swatch: {{ $layer->colour }}"
                ></span>
                <span class="label" title="{{ $bench->layers()->path($layer->number) }}">{{ $layer->name }}</span></label
            >
        @endforeach
    </div>
    <input type="hidden" name="asked" value="1" />
    <label class="tick"
        ><input type="checkbox" name="in_new" value="1" @checked ($bench->desk->lands_in_new) /> Every new layer becomes the landing
        layer</label
    >
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Land there</button> <button type="button" class="button" data-close>Leave it</button></p>
</form>
