<form class="ask file-under" data-submit="post" data-address="{{ route('layers.merge', $bench->project) }}">
    <h2 id="dialog-title">Merge {{ count($layers) }} layers into</h2>
    <input type="hidden" name="keys" value="{{ implode(',', array_map(fn ($layer) => "L$layer->number", $layers)) }}" />
    <div class="choices" role="radiogroup" aria-label="The layer that stays">
        @foreach ($layers as $layer)
            <label style="--level: 0"
                ><input
                    type="radio"
                    name="into"
                    value="{{ $layer->number }}"
                    @checked ($loop->first)
                    @if ($loop->first) autofocus @endif
                /><span
                    class="swatch"
                    style="--swatch: {{ $layer->colour }}"
                ></span>
                <span class="label">{{ $bench->layers()->path($layer->number) }}</span>
                <small>{{ number_format($bench->contents()->objects($layer->number)) }}</small></label
            >
        @endforeach
    </div>
    <p>The others go. What is filed under them, and the layers in them, move into the one that stays.</p>
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Merge</button> <button type="button" class="button" data-close>Cancel</button></p>
</form>
