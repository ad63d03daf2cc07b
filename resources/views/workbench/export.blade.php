@php
    $layers = $bench->layers()->walk();
    $sets = $bench->sets()->all();
@endphp
<form class="ask export" data-export>
    <h2 id="dialog-title">Export parts</h2>
    <label for="export-of">What</label>
    <select id="export-of" name="of" autofocus>
        @if ($picked > 0)
            <option value="pick">what is picked: {{ number_format($picked) }}</option>
        @endif
        @if ($rule !== '')
            <option value="hits">what “{{ $rule }}” finds</option>
        @endif
        <option value="all">everything</option>
        <optgroup label="Layers">
            @foreach ($layers as [$layer])
                <option value="L{{ $layer->number }}" @selected ($of === "L$layer->number")>
                    {{ $bench->layers()->path($layer->number) }}
                </option>
            @endforeach
        </optgroup>
        @if ($sets !== [])
            <optgroup label="Sets">
                @foreach ($sets as $set)
                    <option value="E{{ $set->number }}" @selected ($of === "E$set->number")>{{ $set->name }}</option>
                @endforeach
            </optgroup>
        @endif
    </select>
    <fieldset>
        <legend>As</legend>
        <label class="tick"><input type="radio" name="side" value="output" checked /> pictures show it</label>
        <label class="tick"><input type="radio" name="side" value="desk" /> the desk shows it</label>
        @if ($views->isNotEmpty())
            <label for="export-view">with the rungs of</label>
            <select id="export-view" name="view">
                <option value="0">no view</option>
                @foreach ($views as $view)
                    <option value="{{ $view->no }}">{{ $view->name }}</option>
                @endforeach
            </select>
        @endif
    </fieldset>
    <fieldset>
        <legend>Smaller</legend>
        <label class="tick"><input type="checkbox" name="quantized" value="1" /> places as whole numbers of 16 bits</label>
        <label class="tick"
            ><input type="checkbox" name="compressed" value="1" /> compressed, for readers that know EXT_meshopt_compression</label
        >
    </fieldset>
    <p class="hint">
        Binary glTF, with layers, tags and properties. What is hidden stays out{{ $heldBack > 0 ? ', and '.number_format($heldBack)
            .($heldBack === 1 ? ' object that is' : ' objects that are').' not for export' : '' }}.
    </p>
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Export</button> <button type="button" class="button" data-close>Cancel</button></p>
</form>
