<form class="ask file-under" data-submit="post" data-address="{{ route('file', $bench->project) }}">
    <h2 id="dialog-title">File {{ number_format($count) }} under</h2>
    <input type="hidden" name="keys" value="{{ $keys }}" />
    <input type="search" data-narrow placeholder="Part of a layer name" aria-label="Find a layer" />
    <div class="choices" role="radiogroup" aria-label="Layer">
        @foreach ($bench->layers()->walk() as [$layer, $depth])
            <label data-text="{{ mb_strtolower($layer->name) }}" style="--level: {{ $depth }}"
                ><input type="radio" name="layer" value="{{ $layer->number }}" @checked ($loop->first) /><span
                    class="swatch"
                    style="--swatch: {{ $layer->colour }}"
                ></span>
                <span class="label" title="{{ $bench->layers()->path($layer->number) }}">{{ $layer->name }}</span></label
            >
        @endforeach
    </div>
    <label class="tick"><input type="checkbox" name="with_held" value="1" checked /> What the picked groups hold goes along</label>
    <p class="acts"><button class="button pick">File</button> <button type="button" class="button" data-close>Leave it</button></p>
</form>
